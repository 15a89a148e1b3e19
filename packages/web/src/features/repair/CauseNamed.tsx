import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { CompressorView, RepairView } from '@entretien/contracts';
import { beginFinding, causeCodes, causeOn, symptomByCode, type CauseCode } from '@entretien/core/faults';
import { useState } from 'react';
import { Caution } from '../../components/Caution.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { SESSION } from '../../data/session.js';
import { useAdd, useFactOnce } from './use-entry.js';

interface CauseNamedProps {
  readonly repair: RepairView;
  readonly unit: CompressorView;
}

/** What the fault finder knows of the cause; and, once something was done, whether it was that. */
export function CauseNamed({ repair, unit }: CauseNamedProps) {
  const code = causeCodes.find((one) => one === repair.causeCode);
  const cause = code && causeOn(code, unit);
  const { search = null, confirmed = null } = repair;
  return (
    <>
      {repair.isOpen && cause && (
        <Box sx={{ mb: 1.5 }}>
          {[cause.trade, cause.caution].map(
            (text) => text !== undefined && <Caution key={text} text={text} />,
          )}
          {cause.takes && <Typography variant="body2">Take along: {cause.takes.join(', ')}</Typography>}
        </Box>
      )}
      {search !== null && confirmed === null && repair.state !== 'found' && (
        <WasItThat repair={repair} unit={unit} symptom={search.symptom} code={code ?? null} />
      )}
      {confirmed !== null && (
        <Typography variant="body2" sx={{ mb: 1.5, color: 'text.secondary' }}>
          Confirmed: {causeOn(confirmed as CauseCode, unit).name}. The fault finder counts it.
        </Typography>
      )}
    </>
  );
}

interface WasItThatProps extends CauseNamedProps {
  readonly symptom: string;
  readonly code: CauseCode | null;
}

/** The fault finder learns only from what somebody confirmed. */
function WasItThat({ repair, unit, symptom: seen, code }: WasItThatProps) {
  const symptom = symptomByCode(seen);
  const causes = symptom ? beginFinding(symptom, unit).causes : [];
  const [chosen, setChosen] = useState<CauseCode | ''>(code ?? '');
  const fact = useFactOnce();
  const add = useAdd(repair);
  const confirm = (cause: CauseCode) =>
    add.mutate(
      {
        ...fact.made(),
        kind: 'confirmed',
        text: causeOn(cause, unit).name,
        cause,
        session: SESSION,
      },
      { onSuccess: () => fact.forget() },
    );
  return (
    <Box component="section" aria-label="Was it that?" sx={{ mb: 2 }}>
      <Typography sx={{ fontWeight: 650, mb: 1 }}>
        What was it in truth? The fault finder learns from it.
      </Typography>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'start', flexWrap: { xs: 'wrap', sm: 'nowrap' } }}>
        <TextField
          select
          size="small"
          fullWidth
          label="It was"
          value={chosen}
          onChange={(event) => setChosen(event.target.value as CauseCode)}
        >
          {causes.map(({ code: one, name }) => (
            <MenuItem key={one} value={one}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="outlined"
          disabled={chosen === '' || add.isPending}
          onClick={() => chosen !== '' && confirm(chosen)}
          sx={{ minHeight: 44, flex: 'none' }}
        >
          Confirm
        </Button>
      </Stack>
      <ProblemLine error={add.error} />
    </Box>
  );
}
