import { Box, Stack } from '@mui/material';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { getBytes } from '../../data/api.js';
import { usePapers } from '../../data/queries.js';

interface AtHandProps {
  readonly compressorId: string;
  /** Whether this device takes them along, for a place without a connection. */
  readonly isKept?: boolean;
}

/** The manuals of a machine in a line, where the work is. */
export function ManualsAtHand({ compressorId, isKept = false }: AtHandProps) {
  const { data } = usePapers(compressorId);
  const read = (data ?? []).filter(({ type, kind }) => type === 'pdf' && kind !== 'other');
  const paths = read.map(({ id }) => `/compressors/${compressorId}/papers/${id}/file`).join(' ');
  useEffect(() => {
    if (!isKept || paths === '') return;
    for (const path of paths.split(' ')) void getBytes(path).catch(() => undefined);
  }, [isKept, paths]);
  if (read.length === 0) return null;
  return (
    <Stack
      component="nav"
      aria-label="Papers at hand"
      direction="row"
      sx={{ flexWrap: 'wrap', columnGap: 2 }}
    >
      {read.map(({ id, title }) => (
        <Box
          key={id}
          component={Link}
          to={`/units/${compressorId}/papers/${id}`}
          sx={{ color: 'primary.main', fontWeight: 600, py: 1, display: 'inline-block' }}
        >
          {title}
        </Box>
      ))}
    </Stack>
  );
}
