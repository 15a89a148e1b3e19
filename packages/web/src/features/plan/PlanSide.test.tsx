import type { PlanView } from '@entretien/contracts';
import { defaultPlan, planFileOf, type ServicePlan } from '@entretien/core/plan';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { idOf, unitOf } from '../../testing/facts.js';
import { button, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { standingOf, taskOf } from '../../testing/standings.js';
import { PlanSide } from './PlanSide.js';
import type { usePlanPreview } from './use-plan-preview.js';

const unit = unitOf({ motor: 'three-phase', receiverL: 100, history: 'new' });
const plan = defaultPlan(unit);
const [first] = plan.tasks;
const saved = {
  ...plan,
  compressorId: 'unit',
  version: 3,
  latest: 3,
  effectiveAt: '2026-11-01T08:00:00Z',
  nextEffectiveAt: null,
  by: 'mira',
  practices: [],
} as unknown as PlanView;
const dueOn = (likelyOn: string) =>
  standingOf([taskOf(first!.code, { ruledBy: 'hours', dueAtHours: 1500, likelyOn })]);
const standingBefore = dueOn('2026-12-20');
const changed = {
  problems: [],
  standing: dueOn('2027-01-15'),
  coming: {},
  differences: [{ code: first!.code, name: first!.name, kind: 'changed', changes: ['every 700 h'] }],
};

interface Shown {
  readonly preview?: object;
  readonly isChanged?: boolean;
  readonly unread?: number;
  readonly latest?: number;
  readonly answers?: Readonly<Record<string, unknown>>;
}

async function side({
  preview = { data: changed },
  isChanged = true,
  unread = 0,
  latest = 3,
  answers = {},
}: Shown = {}) {
  const taken: ServicePlan[] = [];
  const said: string[] = [];
  const { sent } = await renderPage(
    <PlanSide
      unit={unit}
      saved={{ ...saved, latest }}
      timeZone="Europe/Zurich"
      draft={{ basedOn: 3, plan, saveId: idOf(7) }}
      isChanged={isChanged}
      unread={unread}
      preview={preview as ReturnType<typeof usePlanPreview>}
      onTakeAnew={(one) => void taken.push(one)}
      onRebase={() => void said.push('rebased')}
      onDrop={() => void said.push('dropped')}
    />,
    { '/compressors/unit/standing?explain=yes': standingBefore, ...answers },
  );
  return { taken, said, sent };
}

const save = () => button('Save as version 4');

test('what changes is told with how the next date moves, and saved with its note', async () => {
  const { sent, said } = await side({ answers: { '/compressors/unit/plan': saved } });
  expect((await screen.findByRole('list', { name: 'What changes' })).textContent).toContain('every 700 h');
  await waitFor(() => expect(screen.getByText(/ → /)).toBeTruthy());
  await fill('Note', '  After talking to the yard ');
  await press('Save as version 4');
  await waitFor(() => expect(said).toEqual(['dropped']));
  expect(sent[0]).toMatchObject({
    path: '/compressors/unit/plan',
    body: { id: idOf(7), note: 'After talking to the yard' },
  });
  expect((sent[0]!.body as ServicePlan).tasks).toEqual(plan.tasks);
});

test('what the server refuses is said, and the draft stays', async () => {
  const refusal = { status: 412, title: 'Changed', detail: 'Version 4 was saved meanwhile.' };
  const { said } = await side({ answers: { '/compressors/unit/plan': refusal } });
  await press('Save as version 4');
  await waitFor(() => expect(problems().join()).toContain('Version 4 was saved meanwhile.'));
  expect(said).toEqual([]);
  expect(save().disabled).toBe(false);
});

test.each<[string, Shown, RegExp]>([
  ['a field that is not understood', { unread: 1 }, /not understood yet/],
  [
    'a plan that cannot be',
    { preview: { data: { ...changed, problems: [{ code: 'x', sentence: 'It covers itself.' }] } } },
    /It covers itself/,
  ],
  [
    'a server that does not look at it',
    { preview: { isError: true, error: new Error('The server does not answer.') } },
    /does not answer/,
  ],
])('%s is not saved', async (_what, shown, sentence) => {
  await side(shown);
  expect(problems().join()).toMatch(sentence);
  expect(save().disabled).toBe(true);
});

test('a version that was saved meanwhile is told, and mine is kept only by asking', async () => {
  const { said } = await side({ latest: 5 });
  expect(problems().join()).toMatch(/Version 5 was saved meanwhile; you changed version 3/);
  expect(button('Save as version 6').disabled).toBe(true);
  await press('Keep mine');
  expect(said).toEqual(['rebased']);
});

test('a preview that says the same as before says so; what is typed can be dropped', async () => {
  const { said } = await side({ preview: { data: { ...changed, differences: [] } } });
  expect(screen.getByText('Nothing yet: it says the same as before.')).toBeTruthy();
  await press('Discard');
  expect(said).toEqual(['dropped']);
});

function choose(text: string, size?: number): void {
  const file = new File([text], 'plan.json', { type: 'application/json' });
  if (size !== undefined) Object.defineProperty(file, 'size', { value: size });
  fireEvent.change(screen.getByLabelText('A plan as a file'), { target: { files: [file] } });
}

const written = planFileOf(plan, 'piston');

test('a plan from a file comes into the draft, without what has no place here', async () => {
  const { taken } = await side({ isChanged: false });
  const elsewhere = { ...plan.tasks[0]!, code: 'elsewhere', station: 'stage-9' };
  choose(JSON.stringify({ ...written, tasks: [...plan.tasks, elsewhere] }));
  await waitFor(() => expect(taken).toHaveLength(1));
  expect(taken[0]!.tasks).toEqual(plan.tasks);
  expect(problems()).toEqual([]);
});

test.each<[string, string, RegExp]>([
  ['no JSON', '{', /it is no JSON/],
  ['nothing', 'null', /That is no plan/],
  ['another format', JSON.stringify({ ...written, format: 'list' }), /That is no plan/],
  ['no tasks', JSON.stringify({ ...written, tasks: 'all' }), /That is no plan/],
  ['tasks that are none', JSON.stringify({ ...written, tasks: [null] }), /That is no plan/],
  ['a task without a place', JSON.stringify({ ...written, tasks: [{ code: 'a' }] }), /That is no plan/],
  ['a later version', JSON.stringify({ ...written, version: 2 }), /of a later version/],
])('%s is refused with a sentence, and nothing is taken', async (_what, text, sentence) => {
  const { taken } = await side({ isChanged: false });
  choose(text);
  await waitFor(() => expect(problems().join()).toMatch(sentence));
  expect(taken).toEqual([]);
});

test('a file too large is not even opened', async () => {
  const { taken } = await side({ isChanged: false });
  choose(JSON.stringify(written), 1_000_001);
  await waitFor(() => expect(problems().join()).toMatch(/too large/));
  expect(taken).toEqual([]);
});

test('a way chosen among those of practice comes into the draft', async () => {
  const { taken } = await side({ isChanged: false });
  const other = screen.getAllByRole<HTMLInputElement>('radio').find(({ checked }) => !checked)!;
  fireEvent.click(other);
  expect(Object.values(taken[0]!.choices!)).toContain(other.value);
});
