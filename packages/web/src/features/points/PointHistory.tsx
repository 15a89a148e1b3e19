import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import { WithdrawPointWork, type PointView, type PointWorkView } from '@entretien/contracts';
import { checkByCode } from '@entretien/core/checks';
import { pointTaskNames } from '@entretien/core/points';
import { formatMoment } from '@entretien/core/basics';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { usePeople, usePointWork, usePost } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { VerdictMark } from '../../components/VerdictMark.js';

/** What was done and found here, the latest first. */
export function PointHistory({ point }: { readonly point: PointView }) {
  const { data = [] } = usePointWork(point.id);
  const { data: people = [] } = usePeople();
  const [wrong, setWrong] = useState<PointWorkView | null>(null);
  return (
    <Box component="section" aria-label="What was done">
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        What was done
      </Typography>
      {data.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing is on record yet.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {data.map((work) => (
          <Box component="li" key={work.id} sx={{ borderBottom: 1, borderColor: 'divider', py: 0.75 }}>
            <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', gap: 1 }}>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {formatMoment(Date.parse(work.doneAt), point.timeZone)},{' '}
                {people.find(({ id }) => id === work.by)?.name ?? 'somebody'}
              </Typography>
              {!work.withdrawn && (
                <Button
                  size="small"
                  onClick={() => setWrong(work)}
                  sx={{ minHeight: 44, color: 'text.secondary' }}
                >
                  Withdraw
                </Button>
              )}
            </Stack>
            {work.tasks.length > 0 && (
              <Typography sx={{ lineHeight: 1.3, textDecoration: work.withdrawn ? 'line-through' : 'none' }}>
                {inWords(work.tasks.map(({ code }) => pointTaskNames[code] ?? code))}
              </Typography>
            )}
            {work.note && <Typography variant="body2">{work.note}</Typography>}
            {work.looks.map(({ check, at, judgement }) => (
              <Stack key={check + at} direction="row" sx={{ gap: 1, alignItems: 'start', py: 0.25 }}>
                <VerdictMark {...judgement} />
                <Typography variant="body2" sx={{ textDecoration: work.withdrawn ? 'line-through' : 'none' }}>
                  {checkByCode(check)?.name}: {judgement.reason}
                </Typography>
              </Stack>
            ))}
            {work.withdrawn && (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                Withdrawn: {work.withdrawn.reason}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {wrong && <Withdraw point={point} work={wrong} onClose={() => setWrong(null)} />}
    </Box>
  );
}

function inWords(names: readonly string[]): string {
  const text = names.join(', ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

interface WithdrawProps {
  readonly point: PointView;
  readonly work: PointWorkView;
  readonly onClose: () => void;
}

function Withdraw({ point, work, onClose }: WithdrawProps) {
  const [id] = useState(() => newId());
  const [reason, setReason] = useState('');
  const post = usePost<WithdrawPointWork, unknown>(WithdrawPointWork, `/points/${point.id}/withdrawals`);
  return (
    <FormDialog
      title="Withdraw what was put down wrongly"
      submit="Withdraw"
      canSubmit={reason.trim() !== ''}
      isSending={post.isPending}
      problem={post.isError ? sentenceOf(post.error) : null}
      onClose={onClose}
      onSubmit={() => post.mutate({ id, workId: work.id, reason: reason.trim() }, { onSuccess: onClose })}
    >
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        It stays on record as withdrawn. What is due is worked out without it.
      </Typography>
      <TextField
        label="The reason"
        required
        multiline
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 2000 } }}
      />
    </FormDialog>
  );
}
