import { checkByCode } from '@entretien/core/checks';
import { factsOf, site, unitOf } from '../../../testing/facts.js';
import { button, field, fill, problems, renderPage } from '../../../testing/render-page.js';
import { MeasureDialog } from './MeasureDialog.js';

test('nonsense is refused beside its field, and nothing typed is lost', async () => {
  const unit = unitOf({ stages: 2, workingPressureBar: 10 });
  const { sent } = await renderPage(
    <MeasureDialog
      unit={unit}
      site={site}
      facts={factsOf()}
      timeZone="Europe/Zurich"
      check={checkByCode('stage-pressures')}
      onClose={() => undefined}
    />,
    { '/compressors/unit/measurements?limit=200': { items: [], nextCursor: null } },
  );
  await fill('Intake air', '212');
  expect(problems()).toContain('Intake air: 212 °C? It lies between -40 °C and 60 °C. Was it read in °F?');
  await fill('After stage 1', '2.5');
  await fill('After stage 2', 'ten');
  expect(problems().join()).toContain('“ten” is not a figure');
  expect(button('Save measurement').disabled).toBe(true);
  await fill('Intake air', '212 °F');
  expect(problems().join()).toContain('100 °C?');
  await fill('Intake air', '68 °F');
  await fill('After stage 2', '2');
  expect(problems().join()).toContain('After stage 2 the pressure must be higher than before it');
  expect(button('Save measurement').disabled).toBe(true);
  expect(field('After stage 1').value).toBe('2.5');
  await fill('After stage 2', '10');
  expect(problems()).toEqual([]);
  expect(button('Save measurement').disabled).toBe(false);
  expect(sent).toEqual([]);
});
