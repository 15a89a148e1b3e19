import { Box, Link as MuiLink, TextField, Typography } from '@mui/material';
import { symptomByCode } from '@entretien/core/faults';
import { useState } from 'react';
import { Link } from 'react-router';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useFleet } from '../../data/queries.js';
import { useSearches } from './searches.js';

/** Where a search for a cause begins: those under way on this device, and the unit that is in trouble. */
export function FaultsPage() {
  const fleet = useFleet({ all: true });
  const searches = useSearches(({ items }) => items);
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const units = fleet.units.filter(({ tag, description, siteName }) =>
    [tag, description, siteName].some((one) => one.toLowerCase().includes(wanted)),
  );
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, width: '100%', maxWidth: 1100 }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Fault finder
      </Typography>
      {searches.length > 0 && (
        <Box component="section" aria-label="Under way on this device" sx={{ mb: 3 }}>
          <Typography variant="h2">Under way on this device</Typography>
          <List
            items={searches.map(({ compressorId, tag, symptom, answers }) => ({
              id: compressorId,
              tag,
              text: `${symptomByCode(symptom)?.text ?? symptom} · ${answers.length} answered`,
            }))}
          />
        </Box>
      )}
      <Typography variant="h2" sx={{ mb: 1 }}>
        Which unit is in trouble?
      </Typography>
      <TextField
        label="Tag, name or site"
        size="small"
        value={text}
        onChange={(event) => setText(event.target.value)}
        sx={{ mb: 1, width: '100%', maxWidth: 420 }}
      />
      {fleet.isPending && <LoadingSkeleton lines={8} />}
      {fleet.isError && <ErrorState error={fleet.error} onRetry={() => void fleet.refetch()} />}
      <List
        items={units.map(({ compressorId, tag, siteName, description }) => ({
          id: compressorId,
          tag,
          text: `${description} · ${siteName}`,
        }))}
      />
      {fleet.data && units.length === 0 && (
        <Typography>No unit has this in its tag, name or site.</Typography>
      )}
    </Box>
  );
}

interface ListProps {
  readonly items: readonly { readonly id: string; readonly tag: string; readonly text: string }[];
}

function List({ items }: ListProps) {
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {items.map(({ id, tag, text }) => (
        <Box component="li" key={id} sx={{ borderTop: 1, borderColor: 'divider' }}>
          <MuiLink
            component={Link}
            to={`/units/${id}/faults`}
            sx={{ display: 'flex', minHeight: 48, alignItems: 'center', gap: 2, textDecoration: 'none' }}
          >
            <Box component="span" sx={{ fontWeight: 650, flex: '0 0 92px' }}>
              {tag}
            </Box>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {text}
            </Box>
          </MuiLink>
        </Box>
      ))}
    </Box>
  );
}
