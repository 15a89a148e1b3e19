import type { SiteView } from '@entretien/contracts';
import { enter, fill, problems, renderPage } from '../../testing/render-page.js';
import { SiteDialog } from './SiteDialog.js';

const known = {
  id: '01890a5d-ac96-774b-bcce-b302099a8057',
  name: 'Coppel Joinery',
  timeZone: 'Europe/Zurich',
  altitudeM: 640,
  contact: 'Hanna',
} as unknown as SiteView;

test('a site without a name is refused beside the field, and nothing is sent', async () => {
  const { sent } = await renderPage(<SiteDialog onClose={() => undefined} />, { '/sites': known });
  await enter('Save site');
  expect(problems().join()).toMatch(/name/i);
  expect(sent).toEqual([]);
});

test('a name is enough; what is empty is not sent', async () => {
  const { sent } = await renderPage(<SiteDialog onClose={() => undefined} />, { '/sites': known });
  await fill('Name', 'Odrin Glassworks');
  await enter('Save site');
  const [{ body }] = sent as unknown as [{ body: object }];
  expect(Object.keys(body).sort()).toEqual(['id', 'name', 'timeZone']);
});

test.each(['20 bar', 'high', '60000'])('an altitude of “%s” is refused where it stands', async (typed) => {
  const { sent } = await renderPage(<SiteDialog onClose={() => undefined} />, { '/sites': known });
  await fill('Name', 'Odrin Glassworks');
  await fill('Altitude', typed);
  await enter('Save site');
  expect(problems().join()).not.toBe('');
  expect(sent).toEqual([]);
});

test('of a known site only what changed is sent; what was emptied is no longer known', async () => {
  const path = `/sites/${known.id}/changes`;
  const { sent } = await renderPage(<SiteDialog site={known} onClose={() => undefined} />, { [path]: known });
  await fill('Address', 'Mill lane 4');
  await fill('Who to ask for', '');
  await enter('Save site');
  const [{ body }] = sent as unknown as [{ body: Record<string, unknown> }];
  const { id: _id, ...changes } = body;
  expect(changes).toEqual({ address: 'Mill lane 4', contact: null });
});
