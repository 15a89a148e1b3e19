import { act, fireEvent, screen, waitFor } from '@testing-library/react';
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
  await press('Add a closure');
  await fill('First day', '2 Aug 2026');
  await fill('Last day', '20.7.2026');
  await press('Save changes');
  await waitFor(() => expect(problems().join()).toContain('A closure ends on the day it begins, or later.'));
  expect(sent).toEqual([]);
});

test('closures are days from and to, as one writes them; half of one is asked about, and one can be deleted', async () => {
  const { sent } = await openDialog({
    hasHourMeter: false,
    declaredHoursPerWeek: 35,
    closures: ['2026-07-20/2026-08-02'],
  });
  expect(field('First day').value).toBe('20 Jul 2026');
  await press('Add a closure');
  const second = () => screen.getAllByLabelText<HTMLInputElement>('First day')[1]!;
  await act(async () => fireEvent.change(second(), { target: { value: '24.12.2026' } }));
  await press('Save changes');
  await waitFor(() => expect(problems().join()).toContain('2026-07-20'));
  expect(sent).toEqual([]);
  await act(async () =>
    fireEvent.change(screen.getAllByLabelText('Last day')[1]!, { target: { value: '6.1.2027' } }),
  );
  await act(async () => fireEvent.click(screen.getByLabelText('Delete closure 1')));
  await press('Save changes');
  await waitFor(() => expect(sent).toMatchObject([{ body: { closures: ['2026-12-24/2027-01-06'] } }]));
});
