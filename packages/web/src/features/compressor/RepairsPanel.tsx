import { Box, Button, Link as MuiLink, MenuItem, Stack, TextField, Typography } from '@mui/material';
import { type CompressorView, OpenRepair, type RepairView } from '@entretien/contracts';
import { stationName, stationsOf } from '@entretien/core/machine';
import type { RepairKind } from '@entretien/core/repairs';
import { useState } from 'react';
import { Link } from 'react-router';
import { useRepairs } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { formatDate } from '../../components/describe-due.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { TakeOutDialog } from '../../components/stop/TakeOutDialog.js';
import { useNow } from '../../components/use-now.js';
import { toLocalText, WhenField } from '../../components/WhenField.js';

const kindText: Readonly<Record<RepairKind, string>> = {
  fault: 'Fault',
  modification: 'Modification',
  improvement: 'Improvement',
};

const stateText: Readonly<Record<RepairView['state'], string>> = {
  found: 'open',
  'worked-on': 'fixed, not checked',
  'proof-failed': 'check failed',
  proved: 'proved',
  closed: 'closed',
};

interface PanelProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
}

/** Faults of a unit with how each stands, and what was changed on it. */
export function RepairsPanel({ unit, timeZone }: PanelProps) {
  const repairs = useRepairs(unit.id);
  const [isAdding, setAdding] = useState(false);
  const [isTakingOut, setTakingOut] = useState(false);
  const now = useNow();
  if (repairs.isError) return <ErrorState error={repairs.error} onRetry={() => void repairs.refetch()} />;
  if (!repairs.data) return <LoadingSkeleton lines={4} />;
  return (
    <Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button component={Link} variant="outlined" to={`/units/${unit.id}/faults`} sx={{ minHeight: 44 }}>
          Find the cause
        </Button>
        <Button variant="outlined" onClick={() => setAdding(true)} sx={{ minHeight: 44 }}>
          Record a fault or a change
        </Button>
        <Button variant="outlined" color="error" onClick={() => setTakingOut(true)} sx={{ minHeight: 44 }}>
          Take out of service
        </Button>
      </Stack>
      {isTakingOut && (
        <TakeOutDialog
          compressorId={unit.id}
          tag={unit.tag}
          timeZone={timeZone}
          onClose={() => setTakingOut(false)}
        />
      )}
      {repairs.data.length === 0 && (
        <Typography sx={{ color: 'text.secondary' }}>
          No fault, no modification and no improvement is on record.
        </Typography>
      )}
      <Box component="ul" aria-label="Repairs" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {repairs.data.map((repair) => (
          <Box component="li" key={repair.id} sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
            <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline' }}>
              <MuiLink component={Link} to={`/repairs/${repair.id}`} sx={{ flex: 1, fontWeight: 650, py: 1 }}>
                {repair.found}
              </MuiLink>
              <Typography
                variant="body2"
                sx={{
                  fontWeight: 650,
                  color: repair.isOpen ? 'oxide' : 'slate',
                  flex: 'none',
                }}
              >
                {repair.kind === 'fault' ? stateText[repair.state] : kindText[repair.kind].toLowerCase()}
              </Typography>
            </Stack>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {formatDate(toLocalText(Date.parse(repair.foundAt), timeZone).slice(0, 10), now, timeZone)}
              {repair.station ? ` · ${stationName(unit, repair.station)}` : ''}
              {repair.cause ? ` · ${repair.cause}` : ''}
            </Typography>
          </Box>
        ))}
      </Box>
      {isAdding && <AddRepairDialog unit={unit} timeZone={timeZone} onClose={() => setAdding(false)} />}
    </Box>
  );
}

function AddRepairDialog({ unit, timeZone, onClose }: PanelProps & { readonly onClose: () => void }) {
  const [kind, setKind] = useState<RepairKind>('fault');
  const [found, setFound] = useState('');
  const [station, setStation] = useState('');
  const form = useFactForm<OpenRepair>(OpenRepair, `/compressors/${unit.id}/repairs`, timeZone, onClose);
  const { path, beside } = stationsOf(unit);
  return (
    <FormDialog
      title={`${unit.tag}: a fault or a change`}
      submit={kind === 'fault' ? 'Open a repair' : 'Put it on record'}
      canSubmit={found.trim() !== '' && form.when !== null}
      isSending={form.isSending}
      problem={form.generalProblem}
      onSubmit={() =>
        form.send({
          kind,
          found: found.trim(),
          foundAt: new Date(form.when!).toISOString(),
          ...(station === '' ? {} : { station }),
        })
      }
      onClose={onClose}
    >
      <TextField
        select
        label="What it is"
        value={kind}
        onChange={(event) => setKind(event.target.value as RepairKind)}
      >
        <MenuItem value="fault">A fault that was found</MenuItem>
        <MenuItem value="modification">A modification: parts must fit it as it is</MenuItem>
        <MenuItem value="improvement">An improvement that makes the work easier</MenuItem>
      </TextField>
      <TextField
        label={kind === 'fault' ? 'What is wrong' : 'What was changed'}
        value={found}
        onChange={(event) => setFound(event.target.value)}
        error={form.problemOf('found') !== undefined}
        helperText={form.problemOf('found')}
        multiline
        minRows={2}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <TextField select label="Where" value={station} onChange={(event) => setStation(event.target.value)}>
        <MenuItem value="">Not said</MenuItem>
        {[...path, ...beside].map(({ code, name }) => (
          <MenuItem key={code} value={code}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <WhenField
        label="On"
        text={form.whenText}
        onText={form.setWhenText}
        problem={form.when === null ? 'Say when.' : form.problemOf('foundAt')}
      />
    </FormDialog>
  );
}
