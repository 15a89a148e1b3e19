import { TextField, Typography } from '@mui/material';
import { ReturnToService, type StopView } from '@entretien/contracts';
import { checkByCode, verdictInShort } from '@entretien/core/checks';
import { stopLimits } from '@entretien/core/stop';
import { useState } from 'react';
import { currentInstantText } from '../../data/clock.js';
import { useMeasurements } from '../../data/queries.js';
import { Caution } from '../Caution.js';
import { FormDialog } from '../FormDialog.js';
import { formatDate } from '../describe-due.js';
import { useFactForm } from '../use-fact-form.js';
import { useNow } from '../use-now.js';
import { toLocalText } from '../WhenField.js';

interface BringBackProps {
  readonly stop: StopView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** It runs again: shown by a later better verdict, or decided by somebody, with the reason. */
export function BringBackDialog({ stop, timeZone, onClose }: BringBackProps) {
  const form = useFactForm<ReturnToService>(
    ReturnToService,
    `/compressors/${stop.compressorId}/return-to-service`,
    timeZone,
    onClose,
  );
  const { data: measurements } = useMeasurements(stop.compressorId);
  const [shownBy, setShownBy] = useState('');
  const [decidedBy, setDecidedBy] = useState('');
  const [reason, setReason] = useState('');
  const now = useNow();
  const since = Date.parse(stop.since);
  const better = (measurements ?? []).filter(
    ({ judgement, takenAt, voided }) =>
      voided === undefined &&
      (judgement.verdict === 'good' || judgement.verdict === 'watch') &&
      Date.parse(takenAt) > since,
  );
  const isDecided = decidedBy.trim() !== '' && reason.trim() !== '';
  return (
    <FormDialog
      title={`${stop.tag}: back in service`}
      submit="It runs again"
      canSubmit={shownBy !== '' || isDecided}
      isSending={form.isSending}
      problem={
        form.generalProblem ??
        form.problemOf('shownBy') ??
        form.problemOf('reason') ??
        form.problemOf('at') ??
        null
      }
      onClose={onClose}
      onSubmit={() =>
        form.send({
          at: currentInstantText(),
          ends: stop.id,
          ...(shownBy === '' ? {} : { shownBy }),
          ...(isDecided ? { decidedBy: decidedBy.trim(), reason: reason.trim() } : {}),
        })
      }
    >
      <Caution text={stop.why} />
      {stop.check !== null && (
        <Typography variant="body2">
          {checkByCode(stop.check)?.name ?? stop.check} measured again with a better verdict ends it by
          itself.
        </Typography>
      )}
      <TextField
        select
        label="Shown by"
        value={shownBy}
        onChange={(event) => setShownBy(event.target.value)}
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
        helperText={better.length === 0 ? 'Nothing better was measured since.' : ' '}
      >
        <option value="">no measurement</option>
        {better.map(({ id, check, takenAt, judgement }) => (
          <option key={id} value={id}>
            {checkByCode(check)?.name ?? check}, {verdictInShort(judgement.verdict)},{' '}
            {formatDate(toLocalText(Date.parse(takenAt), timeZone).slice(0, 10), now, timeZone)}
          </option>
        ))}
      </TextField>
      <TextField
        label="Or who decides"
        value={decidedBy}
        onChange={(event) => setDecidedBy(event.target.value)}
        slotProps={{ htmlInput: { maxLength: stopLimits.informed } }}
      />
      <TextField
        label="And why"
        value={reason}
        multiline
        onChange={(event) => setReason(event.target.value)}
        slotProps={{ htmlInput: { maxLength: stopLimits.reason } }}
        helperText="No reason ends a stop of a relief valve, of a pressure vessel, or of air that is breathed."
      />
    </FormDialog>
  );
}
