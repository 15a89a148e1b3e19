import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { idOf, site, unitOf } from '../../testing/facts.js';
import { button, daysAgo, enter, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { Repair } from './Repair.js';

const [REPAIR, UNIT] = [idOf(1), idOf(2)];
const ENTRIES = `/repairs/${REPAIR}/entries`;
const repair = (more: object = {}) => ({
  id: REPAIR,
  compressorId: UNIT,
  kind: 'fault',
  foundAt: daysAgo(3),
  found: 'The relief valve weeps',
  state: 'open',
  isOpen: true,
  waitsFor: null,
  cause: null,
  minutes: 0,
  entries: [],
  ...more,
});

async function page(more: object = {}, answers: Readonly<Record<string, unknown>> = {}) {
  const unit = unitOf({ id: UNIT, motor: 'three-phase' });
  const rendered = await renderPage(
    <Repair />,
    {
      [`/repairs/${REPAIR}`]: repair(more),
      [`/compressors/${UNIT}`]: unit,
      [`/compressors/${UNIT}/measurements?limit=200`]: { items: [], nextCursor: null },
      '/sites': { items: [site], nextCursor: null },
      '/stops': [],
      [ENTRIES]: repair(more),
      ...answers,
    },
    { path: '/repairs/:repairId', address: `/repairs/${REPAIR}` },
  );
  await screen.findByText('The relief valve weeps');
  return rendered;
}
const sentTo = (sent: readonly { path: string; body: unknown }[]) =>
  sent.filter(({ path }) => path === ENTRIES);

test('a cause is noted in words, once', async () => {
  const { sent } = await page();
  expect(button('Save the cause').disabled).toBe(true);
  await fill('What is the cause?', '  ');
  expect(button('Save the cause').disabled).toBe(true);
  await fill('What is the cause?', ' Dirt on its seat ');
  await enter('Save the cause');
  expect(sentTo(sent)).toMatchObject([{ body: { kind: 'cause', text: 'Dirt on its seat' } }]);
});

test('what failed to go is sent again under the same id, so that it is recorded once', async () => {
  const { sent } = await page({}, { [ENTRIES]: undefined });
  await fill('Note', 'Key at the gate');
  await enter('Save');
  expect(problems()).toContain('Nothing is known of it.');
  await enter('Save');
  const ids = sentTo(sent).map(({ body }) => (body as { id: string }).id);
  expect(ids).toHaveLength(2);
  expect(new Set(ids).size).toBe(1);
});

test.each(['-5', '20000', 'long'])('“%s” minutes of work are refused', async (minutes) => {
  const { sent } = await page();
  await fill('Work done', 'New spring');
  await fill('Minutes', minutes);
  expect(screen.getByText('0 to 10,000')).toBeTruthy();
  expect(button('Save the work').disabled).toBe(true);
  await enter('Save the work');
  expect(sentTo(sent)).toEqual([]);
});

test('work says what it opens, and how long it took', async () => {
  const { sent } = await page();
  await fill('Work done', 'New spring');
  await fill('Minutes', '25');
  await enter('Save the work');
  expect(sentTo(sent)).toMatchObject([
    { body: { kind: 'work', text: 'New spring', minutes: 25, opens: [] } },
  ]);
});

test('more than an entry has room for is refused by its contract, and not sent', async () => {
  const { sent } = await page();
  await fill('Part used', 'x'.repeat(2001));
  await enter('Save the part');
  expect(sentTo(sent)).toEqual([]);
  expect(problems().join()).toMatch(/2,?000/);
});

const catalogued = (name: string, more: object = {}) => ({
  '/parts': {
    items: [
      {
        id: idOf(9),
        number: 'F-1',
        name,
        class: 'seal',
        answers: 'seal',
        fits: [],
        figures: {},
        inVan: 2,
        ...more,
      },
    ],
    nextCursor: null,
  },
});

test('a part of the catalogue goes by its id; typed over, it is another part, called by its name alone', async () => {
  const { sent } = await page({}, catalogued('Valve seal'));
  const choose = async () => {
    await fill('Part used', 'Valve');
    fireEvent.click(await screen.findByRole('option', { name: /Valve seal/ }));
  };
  await choose();
  await enter('Save the part');
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Part used').value).toBe(''));
  await choose();
  await fill('Part used', 'Valve seal, from the drawer');
  await enter('Save the part');
  const [first, second] = sentTo(sent).map(({ body }) => body as { text: string; part?: string });
  expect(first).toMatchObject({ text: 'Valve seal', part: idOf(9), count: 1 });
  expect(second!.text).toBe('Valve seal, from the drawer');
  expect(second!.part).toBeUndefined();
});

test('oil that is not named for a machine whose air is breathed asks why', async () => {
  const breathing = unitOf({ id: UNIT, family: 'high-pressure', stages: 3, airUse: 'breathing' });
  const { sent } = await page(
    {},
    { ...catalogued('Compressor oil', { class: 'oil' }), [`/compressors/${UNIT}`]: breathing },
  );
  await fill('Part used', 'Compressor');
  fireEvent.click(await screen.findByRole('option', { name: /Compressor oil/ }));
  expect(button('Save the part').disabled).toBe(true);
  await enter('Save the part');
  expect(sentTo(sent)).toEqual([]);
  const why = await screen.findByLabelText(/^Why this part/);
  await act(async () => fireEvent.change(why, { target: { value: 'The same, by the lead' } }));
  await enter('Save the part');
  expect(sentTo(sent)).toMatchObject([{ body: { part: idOf(9), reason: 'The same, by the lead' } }]);
});

test('closed without proof it wants to know why', async () => {
  const { sent } = await page();
  expect(button('Close it').disabled).toBe(true);
  await fill('Or close it without proof, because', 'The machine is scrapped');
  await enter('Close it');
  expect(sentTo(sent)).toMatchObject([{ body: { kind: 'close' } }]);
});

test('what is closed takes notes, and nothing else', async () => {
  await page({ isOpen: false, state: 'closed', cause: 'Dirt on its seat' });
  expect(screen.getByText('Dirt on its seat')).toBeTruthy();
  for (const name of ['Save the cause', 'Save the work', 'Save the part', 'Close it'])
    expect(screen.queryByText(name, { selector: 'button' })).toBeNull();
  expect(button('Save')).toBeTruthy();
});

test('a guided overhaul is opened and folded again; its steps are gone through one by one', async () => {
  const { sent } = await page();
  const [guide] = screen.getByLabelText('Guided overhaul').querySelectorAll('button');
  fireEvent.click(guide!);
  expect(await screen.findByText(/manual of this machine comes first/)).toBeTruthy();
  const [first] = screen.getAllByRole('checkbox');
  expect(first!.getAttribute('aria-checked')).toBe('false');
  fireEvent.click(first!);
  await press('Save');
  expect(sentTo(sent)).toMatchObject([{ body: { kind: 'step' } }]);
});

describe('what was said is corrected', () => {
  const entryOf = (kind: string, more: object = {}) => ({
    id: idOf(7),
    recordedAt: daysAgo(1),
    by: 'somebody',
    marks: [],
    at: daysAgo(1),
    kind,
    text: 'New spring',
    ...more,
  });
  const withdrawal = `${ENTRIES}/${idOf(7)}/withdrawal`;
  const open = async (name: string, entry: object) => {
    const shown = await page({ entries: [entry] }, { [withdrawal]: repair() });
    fireEvent.click(screen.getByLabelText(`Correct: ${name}`));
    return shown;
  };
  const dialog = () => within(screen.getByRole('dialog'));
  const typed = async (label: string, text: string) =>
    act(async () =>
      fireEvent.change(dialog().getByLabelText(new RegExp(`^${label}`)), { target: { value: text } }),
    );
  const submit = (name: string) =>
    act(async () =>
      fireEvent.submit(dialog().getByText<HTMLButtonElement>(name, { selector: '[type=submit]' }).form!),
    );

  test('words and minutes, in the place of the entry', async () => {
    const { sent } = await open('New spring, 40 min', entryOf('work', { minutes: 40 }));
    await typed('Minutes', '-1');
    await submit('Correct');
    expect(sentTo(sent)).toEqual([]);
    await typed('Minutes', '55');
    await typed('What was said', ' New seat ');
    await submit('Correct');
    expect(sentTo(sent)).toMatchObject([
      { body: { kind: 'work', text: 'New seat', minutes: 55, corrects: idOf(7) } },
    ]);
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  test('or withdrawn, with a reason', async () => {
    const { sent } = await open('New spring', entryOf('work'));
    fireEvent.click(dialog().getByText('Withdraw it'));
    await submit('Withdraw');
    expect(sent).toEqual([]);
    await typed('Why', 'The other machine');
    await submit('Withdraw');
    expect(sent).toMatchObject([{ path: withdrawal, body: { reason: 'The other machine' } }]);
  });

  test('a part, a proof or a step can only be withdrawn, and says what follows', async () => {
    await open('2 × New spring', entryOf('part', { count: 2 }));
    expect(dialog().queryByText('Other words')).toBeNull();
    expect(dialog().getByText(/goes back into the van/)).toBeTruthy();
  });
});
