import { waitFor } from '@testing-library/react';
import { unitOf } from '../../testing/facts.js';
import { field, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { EditPlateDialog } from './EditPlateDialog.js';

function openDialog(more: object) {
  return renderPage(
    <EditPlateDialog unit={unitOf(more)} timeZone="Europe/Zurich" onClose={() => undefined} />,
  );
}

test('a figure in the unit of another quantity is refused where it stands, and not sent', async () => {
  const { sent } = await openDialog({ cutOutBar: 10 });
  await fill('Relief setting', '12 cfm');
  await waitFor(() =>
    expect(problems().join()).toContain('“cfm” is no unit of pressure. Use bar, psi, kPa or MPa.'),
  );
  await press('Save changes');
  expect(field('Relief setting').value).toBe('12 cfm');
  expect(sent).toEqual([]);
  await fill('Relief setting', '130 psi');
  await waitFor(() => expect(document.body.textContent).toContain('= 8.96 bar'));
  await press('Save changes');
  await waitFor(() =>
    expect(sent).toEqual([
      {
        path: '/compressors/unit/plate',
        body: expect.objectContaining({ reliefBar: expect.closeTo(8.963, 3) as unknown }) as unknown,
      },
    ]),
  );
});

test('a closure that ends before it begins is refused', async () => {
  const { sent } = await openDialog({ hasHourMeter: false, declaredHoursPerWeek: 35 });
  await fill('Closed from and to', '2026-08-02/2026-07-20');
  await press('Save changes');
  await waitFor(() => expect(problems().join()).toContain('A closure ends on the day it begins, or later.'));
  expect(sent).toEqual([]);
});
