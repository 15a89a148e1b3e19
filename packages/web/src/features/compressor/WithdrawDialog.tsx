import { Button, FormControlLabel, Radio, RadioGroup, TextField, Typography } from '@mui/material';
import { type WithdrawalView, WithdrawFact } from '@entretien/contracts';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';

/** What was recorded on one day, of which something was wrong. */
export interface Withdrawable {
  readonly day: string;
  readonly lines: readonly {
    readonly text: string;
    readonly hours?: number | null;
    readonly path: string;
  }[];
}

interface WithdrawProps extends Withdrawable {
  readonly compressorId: string;
  /** Opens the form that puts a reading right instead. */
  readonly onCorrect: (readingId: string) => void;
  readonly onClose: () => void;
}

/** Takes back what was recorded in error. It stays on record, with the reason, and stands no longer. */
export function WithdrawDialog({ compressorId, day, lines, onCorrect, onClose }: WithdrawProps) {
  const [path, setPath] = useState(lines.length === 1 ? lines[0]!.path : '');
  const [reason, setReason] = useState('');
  const [id] = useState(() => newId());
  const post = usePost<WithdrawFact, WithdrawalView>(
    WithdrawFact,
    `/compressors/${compressorId}/${path}/withdrawal`,
  );
  return (
    <FormDialog
      title={`Withdraw what was recorded on ${day}`}
      submit="Withdraw"
      canSubmit={path !== '' && reason.trim() !== ''}
      isSending={post.isPending}
      problem={post.isError ? sentenceOf(post.error) : null}
      onClose={onClose}
      onSubmit={() => post.mutate({ id, reason: reason.trim() }, { onSuccess: onClose })}
    >
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        It stays on record as withdrawn. What is due is worked out without it.
      </Typography>
      <RadioGroup aria-label="What was wrong" value={path} onChange={(event) => setPath(event.target.value)}>
        {lines.map((line) => (
          <FormControlLabel
            key={line.path}
            value={line.path}
            control={<Radio />}
            label={line.text}
            sx={{ minHeight: 44 }}
          />
        ))}
      </RadioGroup>
      {path.startsWith('readings/') && (
        <Button
          variant="outlined"
          onClick={() => onCorrect(path.slice('readings/'.length))}
          sx={{ alignSelf: 'start', minHeight: 44 }}
        >
          Correct the figure instead
        </Button>
      )}
      <TextField
        label="Why"
        required
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        multiline
        slotProps={{ htmlInput: { maxLength: 2000 } }}
      />
    </FormDialog>
  );
}
