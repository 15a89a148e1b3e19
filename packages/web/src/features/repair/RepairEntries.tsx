import EditIcon from '@mui/icons-material/EditOutlined';
import { Box, IconButton, Stack, Typography } from '@mui/material';
import type { RepairEntryView, RepairView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { useState } from 'react';
import { VerdictMark } from '../../components/VerdictMark.js';
import { describeEntry } from './describe-entry.js';
import { EntryDialog } from './EntryDialog.js';

interface RepairEntriesProps {
  readonly repair: RepairView;
  readonly timeZone: string;
}

/** What was said and done, each correctable. */
export function RepairEntries({ repair, timeZone }: RepairEntriesProps) {
  const [corrected, setCorrected] = useState<RepairEntryView | null>(null);
  return (
    <>
      <Box component="ol" aria-label="What was done" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {repair.entries
          .filter(({ kind }) => kind !== 'step')
          .map((entry) => (
            <Box component="li" key={entry.id} sx={{ borderTop: 1, borderColor: 'divider', py: 0.25 }}>
              <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
                <Typography variant="body2" sx={{ color: 'text.secondary', flex: 'none', width: 130 }}>
                  {formatMoment(Date.parse(entry.at), timeZone)}
                </Typography>
                <Typography variant="body2" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
                  {describeEntry(entry)}
                </Typography>
                {entry.outcome && <VerdictMark {...entry.outcome} />}
                <IconButton
                  aria-label={`Correct: ${describeEntry(entry)}`}
                  onClick={() => setCorrected(entry)}
                  sx={{ width: 44, height: 44, flex: 'none' }}
                >
                  <EditIcon fontSize="small" />
                </IconButton>
              </Stack>
            </Box>
          ))}
      </Box>
      {corrected && <EntryDialog repair={repair} entry={corrected} onClose={() => setCorrected(null)} />}
    </>
  );
}
