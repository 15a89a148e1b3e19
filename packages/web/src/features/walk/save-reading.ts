import { v7 as newId } from 'uuid';
import type { MeterView, SiteMetersView } from '@entretien/contracts';
import type { MeterChange } from '@entretien/core/hours';
import { currentInstant } from '../../data/clock.js';
import { usePreferences } from '../../data/preferences.js';
import { putInOutbox } from '../../data/outbox/outbox.js';
import { useWalkStore, type SavedReading } from './walk-store.js';

interface WalkFigure {
  readonly hours: number;
  /** The meter change that explains a lower figure. */
  readonly change: (MeterChange & { readonly id: string }) | null;
  /** The reading of this walk that it puts right. */
  readonly mends: SavedReading | null;
}

/** Keeps a figure read on the walk on this device, with the meter change that goes before it, and sends them. */
export async function saveReading(meter: MeterView, site: SiteMetersView, figure: WalkFigure): Promise<void> {
  const now = currentInstant();
  const shared = {
    compressorId: meter.compressorId,
    tag: meter.tag,
    siteId: site.siteId,
    timeZone: site.timeZone,
    personId: usePreferences.getState().personId,
    problem: null,
  };
  const { change, mends, hours } = figure;
  if (change) {
    const { id, changedAt, oldFinalHours, newStartHours, reason } = change;
    const body = { id, changedAt: new Date(changedAt).toISOString(), oldFinalHours, newStartHours, reason };
    await putInOutbox({ ...shared, id, kind: 'meter-change', body, queuedAt: now });
  }
  const id = newId();
  const takenAt = mends?.takenAt ?? now;
  const body = {
    id,
    takenAt: new Date(takenAt).toISOString(),
    hours,
    counts: 'total',
    source: 'typed',
    ...(mends ? { corrects: mends.id } : {}),
  };
  await putInOutbox({ ...shared, id, kind: 'reading', body, queuedAt: now + 1 });
  // Only once it is safe: until then it stays in its field.
  useWalkStore.getState().setSaved(meter.compressorId, { id, takenAt, hours });
}
