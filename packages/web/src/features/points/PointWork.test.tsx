import type { PointView } from '@entretien/contracts';
import { screen } from '@testing-library/react';
import { usePreferences } from '../../data/preferences.js';
import { NOW, renderPage } from '../../testing/render-page.js';
import { PointWork } from './PointWork.js';
import type { PointDraft } from './use-point-draft.js';

const point = {
  ...{ id: 'p', siteId: 's', tag: 'P-1', siteName: 'Mill', timeZone: 'UTC', fittedOn: '2026-01-10' },
  ...{ compressorIds: ['u'], vesselIds: [], whenAirGoes: 'Nothing', isBreathed: false, filterMicron: 5 },
  ...{ units: [], vessels: [], state: 'fresh', stops: [], tasks: [], doubts: [] },
} as unknown as PointView;

const draft: PointDraft = {
  ...{ id: 'd', by: 'me', chosen: [], tasks: [], steps: [] },
  looks: [{ check: 'line-filter-drop', values: { flowing: 'yes', dropBar: 0.42 }, at: NOW }],
};

// 0.42 bar are 6.1 psi: over the 0.35 bar from which it is watched, whatever it is read in.
test.each([
  ['bar', /0\.42 bar lost in the filter/],
  ['psi', /6\.1 psi lost in the filter/],
])('what was found stands as it was measured, read in %s', async (pressure, reason) => {
  const { units } = usePreferences.getState();
  usePreferences.setState({ units: { ...units, pressure } });
  try {
    await renderPage(
      <PointWork point={point} draft={draft} put={() => undefined} onDone={() => undefined} />,
    );
    expect(screen.getByText(reason)).toBeTruthy();
    expect(screen.getByText('keep an eye on it')).toBeTruthy();
  } finally {
    usePreferences.setState({ units });
  }
});
