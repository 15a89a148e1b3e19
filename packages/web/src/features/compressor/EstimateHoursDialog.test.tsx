import { waitFor } from '@testing-library/react';
import { factsOf, unitOf } from '../../testing/facts.js';
import { button, fill, press, renderPage } from '../../testing/render-page.js';
import { EstimateHoursDialog } from './EstimateHoursDialog.js';

test('hours are worked out from what can be counted; what is no figure is refused', async () => {
  const { sent } = await renderPage(
    <EstimateHoursDialog
      unit={unitOf({ hasHourMeter: false, family: 'high-pressure', fadLpm: 200 })}
      compressorId="unit"
      tag="EST-1"
      facts={factsOf()}
      timeZone="Europe/Zurich"
      onClose={() => undefined}
    />,
  );
  const page = () => document.body.textContent;
  await fill('Free air delivered', '60 m3');
  expect(page()).toContain('5 h more: about 5 h est.');
  await press('Cycles counted');
  await fill('Cycles counted', 'many');
  expect(page()).toContain('“many” is not a figure.');
  expect(button('Save estimate').disabled).toBe(true);
  await fill('Cycles counted', '240');
  await fill('Minutes of one pump-up', '2.5');
  expect(page()).toContain('10 h more: about 10 h est.');
  expect(sent).toEqual([]);
  await press('Save estimate');
  await waitFor(() => expect(sent.map(({ path }) => path)).toEqual(['/compressors/unit/readings']));
});
