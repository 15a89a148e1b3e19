import { beginFinding, standFinding, symptomByCode, type GivenAnswer } from '@entretien/core/faults';
import { fireEvent, screen, within } from '@testing-library/react';
import { unitOf } from '../../testing/facts.js';
import { daysAgo, NOW, renderPage } from '../../testing/render-page.js';
import { CauseOdds } from './CauseOdds.js';
import { ChooseSymptom } from './ChooseSymptom.js';
import { GivenAnswers } from './GivenAnswers.js';
import { NextTest } from './NextTest.js';
import { confirmedBefore, lastWorkAt, measuredSymptoms } from './suggest.js';

const unit = unitOf({ family: 'piston', motor: 'single-phase', drive: 'belt' });
const finding = beginFinding(symptomByCode('P1')!, unit);
const viewOf = (answers: readonly GivenAnswer[]) => standFinding(finding, answers, 'lock');

test('the next test says what it takes and where each answer leads, and takes one answer', async () => {
  const answers: string[] = [];
  const { next } = viewOf([
    { test: 'T6', answer: 'usual' },
    { test: 'T7', answer: 'usual' },
    { test: 'T39', answer: 'usual' },
  ]);
  await renderPage(
    <NextTest proposal={next!} isThinking={false} onAnswer={(answer) => answers.push(answer)} />,
  );
  const region = await screen.findByRole('region', { name: 'Next test' });
  expect(region.textContent).toContain('7 min · stopped and locked, nothing opened');
  // The hazard stands above the answers.
  const caution = within(region).getByRole('note');
  expect(caution.textContent).toContain('discharge through a resistor');
  const names = within(region)
    .getAllByRole('button')
    .map(({ textContent }) => textContent);
  expect(names).toHaveLength(3);
  expect(names[0]).toMatch(/^Outside the range→ capacitor or start switch 9\d\s%$/);
  expect(names[2]).toBe('Cannot tellnothing moves');
  for (const button of within(region).getAllByRole('button')) fireEvent.click(button);
  expect(answers).toEqual(['outside', 'usual', 'cannot-tell']);
});

test('while it thinks no answer can be given twice', async () => {
  const { next } = viewOf([]);
  await renderPage(<NextTest proposal={next!} isThinking onAnswer={() => expect(true).toBe(false)} />);
  const buttons = await screen.findAllByRole('button');
  for (const button of buttons) expect((button as HTMLButtonElement).disabled).toBe(true);
});

test('causes stand in their order with their odds, and the small ones together', async () => {
  const view = viewOf([{ test: 'T6', answer: 'keeps' }]);
  await renderPage(
    <CauseOdds odds={view.odds} reasons={[{ cause: 'CHK', text: 'confirmed on this unit before' }]} />,
  );
  const rows = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
  expect(rows[0]).toMatch(/^Check valve leaks back or sticksconfirmed on this unit before\d\d\s%$/);
  expect(rows.at(-1)).toMatch(/others/);
});

test('each answer says why it moved the odds, where it came from, and can be taken back', async () => {
  const answers = [
    { test: 'T6', answer: 'keeps' },
    { test: 'T10', answer: 'usual', measurement: 'a measurement' },
  ];
  const undone: string[] = [];
  await renderPage(
    <GivenAnswers answers={answers} why={viewOf(answers).why} onUndo={(test) => undone.push(test)} />,
  );
  const rows = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
  expect(rows[0]).toContain('9 in 10 with “Check valve leaks back or sticks” do this');
  expect(rows[1]).toContain('From a measurement on record.');
  fireEvent.click(screen.getByRole('button', { name: 'Undo: Capacitor' }));
  expect(undone).toEqual(['T10']);
});

const measured = (check: string, verdict: string, days: number, more: object = {}) =>
  ({
    id: `${check} ${days}`,
    check,
    takenAt: daysAgo(days),
    judgement: { verdict, reason: 'As measured.' },
    ...more,
  }) as never;

test('what was measured and failed is offered as what is seen', async () => {
  const chosen: string[] = [];
  const measurements = [measured('pump-up', 'act', 2), measured('check-valve', 'good', 1)];
  await renderPage(
    <ChooseSymptom
      unit={unit}
      measurements={measurements}
      now={NOW}
      onChoose={({ code }) => chosen.push(code)}
    />,
  );
  const lately = await screen.findByRole('region', { name: 'Measured lately' });
  const buttons = within(lately).getAllByRole('button');
  expect(buttons.map(({ textContent }) => textContent)).toEqual([
    'Reaches it, but slowlyPump-up time: As measured.',
  ]);
  fireEvent.click(buttons[0]!);
  fireEvent.click(screen.getByRole('button', { name: 'Knocks, shakes, new noise' }));
  expect(chosen).toEqual(['P4', 'P12']);
});

test('old, better, withdrawn measurements say nothing of what is seen', () => {
  const seen = (...all: never[]) => measuredSymptoms(unit, all, NOW).map(({ symptom }) => symptom.code);
  expect(seen(measured('pump-up', 'act', 40))).toEqual([]);
  expect(seen(measured('pump-up', 'good', 1), measured('pump-up', 'act', 2))).toEqual([]);
  expect(seen(measured('pump-up', 'act', 2, { voided: {} }))).toEqual([]);
});

test('what its repairs say of a unit: causes that were confirmed, and when it was worked on last', () => {
  const repair = (days: number, confirmed: string | null, kinds: readonly string[] = []) =>
    ({
      foundAt: daysAgo(days),
      confirmed,
      entries: kinds.map((kind) => ({ kind, at: daysAgo(days) })),
    }) as never;
  const repairs = [repair(100, 'CHK', ['work', 'note']), repair(900, 'RING'), repair(3, null, ['note'])];
  expect(confirmedBefore(repairs, NOW)).toEqual(['CHK']);
  expect(lastWorkAt(repairs)).toBe(Date.parse(daysAgo(100)));
  expect(lastWorkAt([])).toBe(0);
});

test('a set with an engine has what goes wrong with it, with its cautions; one with a motor has not', async () => {
  const choose = (more: object) =>
    renderPage(
      <ChooseSymptom
        unit={unitOf({ family: 'screw', ...more })}
        measurements={[]}
        now={NOW}
        onChoose={() => undefined}
      />,
    );
  await choose({ motor: 'diesel' });
  const engine = await screen.findByRole('region', { name: 'The engine' });
  expect(engine.textContent).toContain('Battery or its terminals');
  expect(engine.textContent).toContain('The battery is not unhooked while it runs.');
  await choose({ motor: 'three-phase' });
  expect(screen.getAllByRole('region', { name: 'The engine' })).toHaveLength(1);
});
