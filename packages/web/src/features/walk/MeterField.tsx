import { Alert, Box, Button, Stack } from '@mui/material';
import type { MeterView, SiteMetersView } from '@entretien/contracts';
import { MOST_METER_HOURS, meterChangeProblem, type HourLog } from '@entretien/core/hours';
import { parseQuantity } from '@entretien/core/quantities';
import { useState, type KeyboardEvent } from 'react';
import type { QuantityEntry } from '../../components/QuantityField.js';
import { MeterFigure } from '../../components/meter/MeterFigure.js';
import { LookAgain } from '../../components/meter/MeterTexts.js';
import { useTypedFigure } from '../../components/meter/use-typed-figure.js';
import {
  AskMeterChange,
  beginMeterChange,
  MeterChangeFields,
  meterChangeOf,
  type MeterChangeEntry,
} from '../../components/meter/MeterChangePart.js';
import { lastReading, typedHint } from '../../components/meter/typed-figure.js';
import { useNow } from '../../components/use-now.js';
import { fieldId } from './field-id.js';

import { saveReading } from './save-reading.js';
import { useWalkStore, type SavedReading } from './walk-store.js';

interface MeterFieldProps {
  readonly meter: MeterView;
  readonly site: SiteMetersView;
  readonly log: HourLog;
  /** The reading of this walk that is being put right. */
  readonly mends: SavedReading | null;
  readonly onSaved: () => void;
  readonly onGiveUp: (() => void) | null;
}

function entryFrom(text: string): QuantityEntry {
  if (text.trim() === '') return { text, value: null, problem: null };
  const read = parseQuantity(text, 'hours', { min: 0, max: MOST_METER_HOURS });
  return read.ok
    ? { text, value: read.value.value, problem: null }
    : { text, value: null, problem: read.problem.sentence };
}

/** The field for one meter: judged while it is typed, saved with Enter or the thumb, asked about when it is odd. */
export function MeterField({ meter, site, log: recorded, mends, onSaved, onGiveUp }: MeterFieldProps) {
  const { compressorId, tag } = meter;
  const draft = useWalkStore((walk) => walk.drafts[compressorId] ?? '');
  const { setDraft } = useWalkStore.getState();
  const [change, setChange] = useState<MeterChangeEntry | null>(null);
  const [isNotKept, setNotKept] = useState(false);
  const [at] = useState(() => mends?.takenAt ?? null);
  const clock = useNow();
  const now = at ?? clock;
  const entry = entryFrom(draft);
  const typedChange = change && meterChangeOf(change, site.timeZone, now);
  const log = typedChange ? { ...recorded, meterChanges: [...recorded.meterChanges, typedChange] } : recorded;
  const isChangeReady =
    change === null ||
    (typedChange !== null &&
      meterChangeProblem(recorded, typedChange, { now, timeZone: site.timeZone }) === null);
  const { verdict, isAsking, ...figure } = useTypedFigure(log, entry.value, now, site.timeZone);
  const canSave = figure.canSave && isChangeReady;
  const last = lastReading(log);

  const save = async () => {
    if (entry.value === null || !isChangeReady || !figure.confirm()) return;
    const read = {
      hours: entry.value,
      change: change && typedChange && { ...typedChange, id: change.id },
      mends,
    };
    await saveReading(meter, site, read).then(onSaved, () => setNotKept(true));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.target instanceof HTMLInputElement)) return;
    event.preventDefault();
    void save();
  };
  return (
    <Box sx={{ minWidth: 0 }} onKeyDown={onKeyDown}>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'start' }}>
        <MeterFigure
          id={fieldId(compressorId)}
          label={`Figure on ${tag}`}
          autoFocus={mends !== null}
          fullWidth
          entry={entry}
          onEntry={({ text }) => setDraft(compressorId, text)}
          problem={verdict?.problem?.sentence ?? null}
          hint={typedHint(meter, site, verdict, now)}
          sx={{ maxWidth: 420 }}
        />
        <Button
          variant={isAsking ? 'contained' : 'outlined'}
          onClick={() => void save()}
          disabled={!canSave}
          sx={{ minHeight: 54, minWidth: 76, flex: 'none' }}
        >
          {isAsking ? 'Read right' : 'Save'}
        </Button>
        {onGiveUp && (
          <Button onClick={onGiveUp} sx={{ minHeight: 54, flex: 'none' }}>
            Leave it
          </Button>
        )}
      </Stack>
      {isNotKept && (
        <Alert severity="error" variant="outlined">
          This device could not keep the figure: it may be out of room, or set to keep nothing. It still
          stands in the field; write it down.
        </Alert>
      )}
      {isAsking && <LookAgain />}
      {verdict?.problem?.code === 'goes-backwards' && change === null && last && entry.value !== null && (
        <AskMeterChange
          onReason={(reason) =>
            setChange(beginMeterChange(reason, last, entry.value ?? 0, now, site.timeZone))
          }
        />
      )}
      {change && (
        <MeterChangeFields
          entry={change}
          log={recorded}
          timeZone={site.timeZone}
          now={now}
          onEntry={setChange}
        />
      )}
    </Box>
  );
}
