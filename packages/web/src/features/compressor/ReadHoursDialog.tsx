import { Alert, Box, Typography } from '@mui/material';
import {
  type MeterChangeView,
  type ReadingView,
  RecordMeterChange,
  RecordReading,
  type StandingView,
} from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';
import {
  meterChangeProblem,
  readingMarks,
  readingProblem,
  type HourReading,
  type MeterChange,
} from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import { useState } from 'react';
import { sentenceOf } from '../../data/api.js';
import { usePost, type CompressorFacts } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { MeterFigure } from '../../components/meter/MeterFigure.js';
import { emptyEntry, entryOf } from '../../components/QuantityField.js';
import { formatAgo } from '../../components/describe-due.js';
import { WhenField } from '../../components/WhenField.js';
import { describeMark } from '../../components/describe-mark.js';
import { hourLogOf, lastFigure, typedReading } from '../../components/meter/hour-log.js';
import {
  AskMeterChange,
  beginMeterChange,
  MeterChangeFields,
  meterChangeOf,
  type MeterChangeEntry,
} from '../../components/meter/MeterChangePart.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useNow } from '../../components/use-now.js';

interface ReadHoursProps {
  readonly compressorId: string;
  readonly tag: string;
  readonly facts: CompressorFacts;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly onClose: () => void;
  /** The reading that is put right; a new one without. */
  readonly corrects?: ReadingView | undefined;
}

/** Takes a figure off the meter, judged while it is typed. */
export function ReadHoursDialog({
  compressorId,
  tag,
  facts,
  standing,
  timeZone,
  onClose,
  corrects,
}: ReadHoursProps) {
  const [entry, setEntry] = useState(() => (corrects ? entryOf(corrects.hours, 'hours') : emptyEntry));
  const form = useFactForm<RecordReading>(
    RecordReading,
    `/compressors/${compressorId}/readings`,
    timeZone,
    onClose,
    { happenedAt: corrects && Date.parse(corrects.takenAt) },
  );
  const [changeEntry, setChangeEntry] = useState<MeterChangeEntry | null>(null);
  const postChange = usePost<RecordMeterChange, MeterChangeView>(
    RecordMeterChange,
    `/compressors/${compressorId}/meter-changes`,
  );
  const recorded = hourLogOf({
    ...facts,
    readings: facts.readings.filter(({ id }) => id !== corrects?.id),
  });
  const now = useNow();
  const at = form.when ?? now;
  // Once sent, the change is on record and comes back with the facts.
  const unsent = postChange.isSuccess ? null : changeEntry;
  const change = unsent && meterChangeOf(unsent, timeZone, now);
  const log = change ? { ...recorded, meterChanges: [...recorded.meterChanges, change] } : recorded;
  const isChangeReady =
    unsent === null || (change !== null && meterChangeProblem(recorded, change, { now, timeZone }) === null);
  const judged =
    entry.value === null ? null : readingProblem(log, typedReading(entry.value, at, now), { now, timeZone });
  const marks =
    entry.value === null || judged !== null ? [] : readingMarks(log, typedReading(entry.value, at, now));
  const send = async () => {
    if (unsent && change) {
      try {
        await postChange.mutateAsync(changeBody(unsent.id, change));
      } catch {
        return;
      }
    }
    form.send({
      takenAt: new Date(at).toISOString(),
      hours: entry.value,
      counts: 'total',
      source: 'typed',
      ...(corrects ? { corrects: corrects.id } : {}),
    });
  };
  const last = lastFigure(log, at);
  const whenProblem =
    form.when === null
      ? 'Say when it was read.'
      : judged?.field === 'takenAt'
        ? judged.sentence
        : form.problemOf('takenAt');
  return (
    <FormDialog
      title={corrects ? `Correct a reading of ${tag}` : `Read the hours of ${tag}`}
      submit="Save reading"
      canSubmit={entry.value !== null && judged === null && form.when !== null && isChangeReady}
      isSending={form.isSending || postChange.isPending}
      problem={postChange.isError ? sentenceOf(postChange.error) : form.generalProblem}
      onClose={onClose}
      onSubmit={() => void send()}
    >
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {last
          ? `Last ${last.source === 'estimated' ? 'estimated' : 'read'} ${formatFigure(last.hours, { figures: 6, maxDecimals: 1 })} h, ${formatAgo(last.takenAt, now, timeZone)}.`
          : 'This is its first reading: it is counted from here.'}
      </Typography>
      <MeterFigure
        autoFocus
        fullWidth
        entry={entry}
        onEntry={setEntry}
        problem={(judged?.field === 'hours' ? judged.sentence : null) ?? form.problemOf('hours')}
        hint={expected(last, standing, at)}
      />
      {judged?.code === 'goes-backwards' && changeEntry === null && last && entry.value !== null && (
        <AskMeterChange
          onReason={(reason) =>
            setChangeEntry(beginMeterChange(reason, last, entry.value ?? 0, at, timeZone))
          }
        />
      )}
      {unsent && (
        <MeterChangeFields
          entry={unsent}
          log={recorded}
          timeZone={timeZone}
          now={now}
          onEntry={setChangeEntry}
        />
      )}
      {marks.length > 0 && (
        <Alert severity="warning" variant="outlined" sx={{ py: 0 }}>
          {marks.map(describeMark).join(', ')}. Look again; if it stands there like that, save it.
        </Alert>
      )}
      <Gain hours={entry.value} at={at} last={judged === null && changeEntry === null ? last : undefined} />
      <WhenField label="Read at" text={form.whenText} onText={form.setWhenText} problem={whenProblem} />
      <NoteField form={form} />
    </FormDialog>
  );
}

function changeBody(
  id: string,
  { changedAt, oldFinalHours, newStartHours, reason }: MeterChange,
): RecordMeterChange {
  return { id, changedAt: new Date(changedAt).toISOString(), oldFinalHours, newStartHours, reason };
}

/** The figure that the meter should show by now, going on from its last at average use. */
function expected(last: HourReading | undefined, { hoursPerDay }: StandingView, at: number): string {
  if (!last || hoursPerDay === null) return 'Type the figure as it stands there.';
  const figure = last.hours + (hoursPerDay * Math.max(0, at - last.takenAt)) / DAY_MS;
  return `About ${formatFigure(figure, { figures: 4, maxDecimals: 0 })} h is expected.`;
}

/** What the new figure says of the machine's use. */
function Gain({
  hours,
  at,
  last,
}: {
  readonly hours: number | null;
  readonly at: number;
  readonly last: { takenAt: number; hours: number } | undefined;
}) {
  if (hours === null || !last || at - last.takenAt < DAY_MS / 4) return null;
  const gained = hours - last.hours;
  const perDay = gained / ((at - last.takenAt) / DAY_MS);
  return (
    <Box role="status" sx={{ typography: 'body2', color: 'slate', mt: -0.5 }}>
      +{formatFigure(gained, { maxDecimals: 1 })} h since then, {formatFigure(perDay, { maxDecimals: 1 })} h a
      day.
    </Box>
  );
}
