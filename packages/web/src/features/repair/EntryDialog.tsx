import { TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { WithdrawFact, type RepairEntryView, type RepairView } from '@entretien/contracts';
import { typedFigure, formatFigure } from '@entretien/core/quantities';
import { ourEntryKinds } from '@entretien/core/repairs';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import { FormDialog } from '../../components/FormDialog.js';
import { describeEntry } from './describe-entry.js';
import { MinutesField, readMinutes } from './MinutesField.js';
import { useAdd, useFactOnce } from './use-entry.js';

interface EntryDialogProps {
  readonly repair: RepairView;
  readonly entry: RepairEntryView;
  readonly onClose: () => void;
}

/** Corrects the words of an entry, or withdraws it; what is more than words can only be withdrawn. */
export function EntryDialog({ repair, entry, onClose }: EntryDialogProps) {
  const isWords = ourEntryKinds.get(entry.kind)?.isWords ?? false;
  const [way, setWay] = useState<'words' | 'withdraw'>(isWords ? 'words' : 'withdraw');
  const [text, setText] = useState(entry.text);
  const hasMinutes = entry.kind === 'work';
  const [minutes, setMinutes] = useState(
    entry.minutes === undefined ? '' : typedFigure(formatFigure(entry.minutes)),
  );
  const [reason, setReason] = useState('');
  const [id] = useState(() => newId());
  const fact = useFactOnce();
  const add = useAdd(repair);
  const withdraw = usePost<WithdrawFact, RepairView>(
    WithdrawFact,
    `/repairs/${repair.id}/entries/${entry.id}/withdrawal`,
  );
  const { isReadable, ...took } = readMinutes(minutes);
  const said = text.trim();
  const after = { onSuccess: onClose };
  const send = () =>
    way === 'withdraw'
      ? withdraw.mutate({ id, reason: reason.trim() }, after)
      : add.mutate(
          {
            ...fact.made(),
            kind: entry.kind,
            text: said,
            corrects: entry.id,
            session: SESSION,
            ...(hasMinutes ? took : {}),
          },
          after,
        );
  const failed = add.error ?? withdraw.error;
  return (
    <FormDialog
      title={isWords ? 'Correct the entry' : 'Withdraw the entry'}
      submit={way === 'words' ? 'Correct' : 'Withdraw'}
      canSubmit={way === 'words' ? said !== '' && isReadable : reason.trim() !== ''}
      isSending={add.isPending || withdraw.isPending}
      problem={failed ? sentenceOf(failed) : null}
      onSubmit={send}
      onClose={onClose}
    >
      {isWords ? (
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={way}
          aria-label="What to do"
          onChange={(_event, next: 'words' | 'withdraw' | null) => next && setWay(next)}
        >
          <ToggleButton value="words" sx={{ minHeight: 44 }}>
            Other words
          </ToggleButton>
          <ToggleButton value="withdraw" sx={{ minHeight: 44 }}>
            Withdraw it
          </ToggleButton>
        </ToggleButtonGroup>
      ) : (
        <Typography sx={{ fontWeight: 600 }}>{describeEntry(entry)}</Typography>
      )}
      {way === 'words' ? (
        <>
          <TextField
            label="What was said"
            required
            autoFocus
            multiline
            value={text}
            onChange={(event) => setText(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          {hasMinutes && <MinutesField text={minutes} onText={setMinutes} />}
        </>
      ) : (
        <>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {WHAT_FOLLOWS[entry.kind] ?? 'It stays in the logbook as withdrawn.'}
          </Typography>
          <TextField
            label="Why"
            required
            autoFocus
            multiline
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
        </>
      )}
    </FormDialog>
  );
}

const WHAT_FOLLOWS: Readonly<Record<string, string>> = {
  part: 'It stays in the logbook as withdrawn. A part of the catalogue goes back into the van’s stock.',
  proof:
    'It stays in the logbook as withdrawn, with its measurement. The repair is open again until it is proved.',
  close: 'It stays in the logbook as withdrawn. The repair is open again.',
};
