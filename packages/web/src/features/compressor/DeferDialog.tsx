import { fromMeter, formatHoursSeen } from '@entretien/core/hours';
import { TextField, Typography } from '@mui/material';
import { DeferTask, type StandingView, type TaskStandingView } from '@entretien/contracts';
import { useState } from 'react';
import { currentInstantText } from '../../data/clock.js';
import { DayField } from '../../components/DayField.js';
import { Caution } from '../../components/Caution.js';
import { FormDialog } from '../../components/FormDialog.js';
import { emptyEntry, QuantityField } from '../../components/QuantityField.js';
import { useFactForm } from '../../components/use-fact-form.js';

interface DeferProps {
  readonly compressorId: string;
  readonly task: TaskStandingView;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** Puts a task off: why, and until when. What keeps somebody safe wants the risk named, and stays in sight. */
export function DeferDialog({ compressorId, task, standing, timeZone, onClose }: DeferProps) {
  const form = useFactForm<DeferTask>(DeferTask, `/compressors/${compressorId}/deferrals`, timeZone, onClose);
  const [reason, setReason] = useState('');
  const [untilOn, setUntilOn] = useState('');
  const [hours, setHours] = useState(emptyEntry);
  const [risk, setRisk] = useState('');
  const needsRisk = task.safety && risk.trim() === '';
  const hasLimit = untilOn !== '' || hours.value !== null;
  return (
    <FormDialog
      title={`Put off: ${task.name}`}
      submit="Put off"
      canSubmit={reason.trim() !== '' && hasLimit && hours.problem === null && !needsRisk}
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('task') ?? null}
      onClose={onClose}
      onSubmit={() =>
        form.send({
          task: task.code,
          deferredAt: currentInstantText(),
          reason: reason.trim(),
          ...(untilOn === '' ? {} : { untilOn }),
          ...(hours.value === null ? {} : { untilHours: fromMeter(standing.meter, hours.value) }),
          ...(risk.trim() === '' ? {} : { risk: risk.trim() }),
        })
      }
    >
      {task.safety && (
        <Caution text="This keeps somebody safe. Name what can happen while it waits; it stays among what is due." />
      )}
      <TextField
        label="Why it waits"
        required
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        multiline
        error={form.problemOf('reason') !== undefined}
        helperText={form.problemOf('reason') ?? ' '}
        slotProps={{ htmlInput: { maxLength: 2000 } }}
      />
      {task.safety && (
        <TextField
          label="The risk of waiting"
          required
          value={risk}
          onChange={(event) => setRisk(event.target.value)}
          multiline
          error={form.problemOf('risk') !== undefined}
          helperText={form.problemOf('risk') ?? 'Like: water in the cylinders.'}
          slotProps={{ htmlInput: { maxLength: 2000 } }}
        />
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Until a day, or run hours, or both: whichever comes first.
      </Typography>
      <DayField label="Until" day={untilOn} onDay={setUntilOn} problem={form.problemOf('untilOn')} hint=" " />
      {standing.runHours !== null && (
        <QuantityField
          label="Until the meter shows"
          kind="hours"
          entry={hours}
          onEntry={setHours}
          min={0}
          max={1_000_000}
          problem={form.problemOf('untilHours')}
          hint={`Now ${formatHoursSeen(standing.meter, Math.round(standing.runHours), 'full')}.`}
        />
      )}
    </FormDialog>
  );
}
