import { fireEvent, screen } from '@testing-library/react';
import { idOf, site as aSite } from '../../testing/facts.js';
import { button, enter, fill, renderPage } from '../../testing/render-page.js';
import { taskOf } from '../../testing/standings.js';
import { PlanVisitDialog } from './PlanVisitDialog.js';

const [SITE, ONE, TWO] = [idOf(1), idOf(2), idOf(3)];
const site = { ...aSite, id: SITE };
const unit = (compressorId: string, tag: string, tasks: object[], siteId = SITE) => ({
  compressorId,
  tag,
  siteId,
  siteName: 'Coppel Joinery',
  description: 'piston',
  tasks,
});
const due = taskOf('oil-change', { state: 'due' });
const fleet = {
  '/standings?limit=100': {
    items: [
      unit(ONE, 'CJ-1', [due]),
      unit(TWO, 'CJ-2', [taskOf('oil-change')]),
      unit(idOf(4), 'OG-1', [due], idOf(5)),
    ],
    nextCursor: null,
  },
  '/sites': { items: [site], nextCursor: null },
  '/visits': { id: idOf(6) },
  '/settings': { holidays: ['2026-12-24/2027-01-03'] },
};

test('a site’s machines with something due are chosen, with what is due on them', async () => {
  const { sent } = await renderPage(<PlanVisitDialog siteId={SITE} onClose={() => undefined} />, fleet);
  expect(await screen.findByText('CJ-1')).toBeTruthy();
  expect(screen.queryByText('OG-1')).toBeNull();
  await enter('Prepare the visit');
  expect(sent).toMatchObject([
    {
      path: '/visits',
      body: {
        siteId: SITE,
        plannedOn: '2026-11-24',
        units: [{ compressorId: ONE, tasks: ['oil-change'] }],
      },
    },
  ]);
});

test('from a machine’s page it is that machine alone', async () => {
  const { sent } = await renderPage(
    <PlanVisitDialog siteId={SITE} compressorId={TWO} onClose={() => undefined} />,
    fleet,
  );
  await screen.findByText('CJ-2');
  await enter('Prepare the visit');
  expect(sent).toMatchObject([{ body: { units: [{ compressorId: TWO, tasks: [] }] } }]);
});

test('with no machine, or no day, there is no visit', async () => {
  const { sent } = await renderPage(<PlanVisitDialog siteId={SITE} onClose={() => undefined} />, fleet);
  await screen.findByText('CJ-1');
  const [first] = screen.getAllByRole('checkbox');
  fireEvent.click(first!);
  expect(button('Prepare the visit').disabled).toBe(true);
  fireEvent.click(first!);
  await fill('On', '');
  expect(button('Prepare the visit').disabled).toBe(true);
  await enter('Prepare the visit');
  expect(sent).toEqual([]);
});

test('a day that the contract has no room for is refused before anything is sent', async () => {
  const { sent } = await renderPage(<PlanVisitDialog siteId={SITE} onClose={() => undefined} />, fleet);
  await screen.findByText('CJ-1');
  await fill('On', '9999-99-99');
  await enter('Prepare the visit');
  expect(sent).toEqual([]);
});

test('where only one machine stands it is chosen, due or not', async () => {
  const alone = { items: [unit(TWO, 'CJ-2', [taskOf('oil-change')])], nextCursor: null };
  const { sent } = await renderPage(<PlanVisitDialog siteId={SITE} onClose={() => undefined} />, {
    ...fleet,
    '/standings?limit=100': alone,
  });
  await screen.findByText('CJ-2');
  await enter('Prepare the visit');
  expect(sent).toMatchObject([{ body: { units: [{ compressorId: TWO, tasks: [] }] } }]);
});

test('a day on which the workshop is closed is said to be one; it can be planned all the same', async () => {
  const { sent } = await renderPage(<PlanVisitDialog siteId={SITE} onClose={() => undefined} />, fleet);
  await screen.findByText('CJ-1');
  expect(screen.queryByText(/workshop is closed/)).toBeNull();
  await fill('On', '28.12.2026');
  expect(await screen.findByText('The workshop is closed on that day.')).toBeTruthy();
  await enter('Prepare the visit');
  expect(sent).toMatchObject([{ body: { plannedOn: '2026-12-28' } }]);
});
