import { button, enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { standingOf, taskOf } from '../../testing/standings.js';
import { DeferDialog } from './DeferDialog.js';

const PATH = '/compressors/unit/deferrals';

function dialog(more: object = {}, standing: object = {}) {
  const task = taskOf('oil-change', { name: 'Oil change', state: 'overdue', ...more });
  return (
    <DeferDialog
      compressorId="unit"
      task={task}
      standing={standingOf([task], standing)}
      timeZone="Europe/Zurich"
      onClose={() => undefined}
    />
  );
}

test('it wants a reason and a limit, and takes either limit', async () => {
  const { sent } = await renderPage(dialog(), { [PATH]: {} });
  expect(button('Put off').disabled).toBe(true);
  await fill('Why it waits *', 'No oil aboard');
  expect(button('Put off').disabled).toBe(true);
  await fill('Until', '2026-12-01');
  expect(button('Put off').disabled).toBe(false);
  await enter('Put off');
  expect(sent).toMatchObject([
    { path: PATH, body: { task: 'oil-change', reason: 'No oil aboard', untilOn: '2026-12-01' } },
  ]);
});

test('what keeps somebody safe waits only with its risk named', async () => {
  const { sent } = await renderPage(dialog({ safety: true }), { [PATH]: {} });
  await fill('Why it waits *', 'Ordered');
  await fill('Until', '2026-12-01');
  expect(button('Put off').disabled).toBe(true);
  await enter('Put off');
  await fill('The risk of waiting *', '   ');
  expect(button('Put off').disabled).toBe(true);
  await fill('The risk of waiting *', 'It may stick');
  expect(button('Put off').disabled).toBe(false);
  expect(sent).toEqual([]);
  await enter('Put off');
  expect(sent).toMatchObject([{ body: { risk: 'It may stick' } }]);
});

test('hours are those of the meter on the machine', async () => {
  const meter = { offset: 900, fittedAtHours: 900, counts: 'total' };
  const { sent } = await renderPage(dialog({}, { meter }), { [PATH]: {} });
  await fill('Why it waits *', 'Ordered');
  await fill('Until the meter shows', '350');
  await enter('Put off');
  expect(sent).toMatchObject([{ body: { untilHours: 1250 } }]);
});

test.each(['many', '-4', '5000000'])(
  '“%s” hours are none: said beside the field, nothing sent',
  async (typed) => {
    const { sent } = await renderPage(dialog(), { [PATH]: {} });
    await fill('Why it waits *', 'Ordered');
    await fill('Until the meter shows', typed);
    expect(problems().join()).not.toBe('');
    expect(button('Put off').disabled).toBe(true);
    await enter('Put off');
    expect(sent).toEqual([]);
  },
);

test('a day that is none is refused in the words of the contract, before anything is sent', async () => {
  const { sent } = await renderPage(dialog(), { [PATH]: {} });
  await fill('Why it waits *', 'x'.repeat(2001));
  await fill('Until', '2026-12-01');
  await enter('Put off');
  expect(sent).toEqual([]);
  expect(problems().join()).toMatch(/2,?000/);
});
