import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import type { LogbookEntryView } from '@entretien/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { useLogbook } from '../../data/logbook.js';
import { Entries } from '../../components/Entries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { formatDate } from '../../components/describe-due.js';
import { useNow } from '../../components/use-now.js';
import { toLocalText } from '../../components/WhenField.js';
import { WithdrawDialog } from './WithdrawDialog.js';

interface LogbookProps {
  readonly compressorId: string;
  readonly onCorrect: (readingId: string) => void;
}

/** What was read and done on a unit, latest first; what was wrong is withdrawn from here. */
export function Logbook({ compressorId, onCorrect }: LogbookProps) {
  const now = useNow();
  const entries = useLogbook(`compressorId=${compressorId}`, ['unit', compressorId, 'logbook']);
  const [wrong, setWrong] = useState<LogbookEntryView | null>(null);
  if (entries.isError) return <ErrorState error={entries.error} onRetry={() => void entries.refetch()} />;
  if (!entries.data) return <LoadingSkeleton lines={6} />;
  if (entries.items.length === 0) {
    return (
      <Typography sx={{ color: 'text.secondary', py: 2 }}>
        Nothing on record yet. Read the hours to begin.
      </Typography>
    );
  }
  const dayOf = ({ at, timeZone }: LogbookEntryView) =>
    formatDate(toLocalText(Date.parse(at), timeZone).slice(0, 10), now, timeZone);
  return (
    <Box>
      <MuiLink component={Link} to={`/units/${compressorId}/history`} sx={historyLink}>
        Whole history on one page
      </MuiLink>
      <Entries label="Logbook" items={entries.items} isOfOneCompressor onWithdraw={setWrong} />
      {entries.hasNextPage && (
        <Button onClick={() => void entries.fetchNextPage()} size="small" sx={{ mt: 1, minHeight: 44 }}>
          Show earlier
        </Button>
      )}
      {wrong && (
        <WithdrawDialog
          compressorId={compressorId}
          day={dayOf(wrong)}
          lines={[{ text: wrong.text, path: `${wrong.collection}/${wrong.id}` }]}
          onClose={() => setWrong(null)}
          onCorrect={(id) => {
            setWrong(null);
            onCorrect(id);
          }}
        />
      )}
    </Box>
  );
}

const historyLink = {
  fontWeight: 600,
  typography: 'body2',
  display: 'inline-flex',
  minHeight: 44,
  alignItems: 'center',
};
