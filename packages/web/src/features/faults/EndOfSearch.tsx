import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import type { CompressorView } from '@entretien/contracts';
import { checkByCode, checksFor } from '@entretien/core/checks';
import { causeOn, type CauseCode, type FindingView } from '@entretien/core/faults';
import { proceduresFor } from '@entretien/core/repairs';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Caution } from '../../components/Caution.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { percent } from './CauseOdds.js';
import { useSearches, type Search } from './searches.js';
import { useOpenRepair } from './use-open-repair.js';

interface EndOfSearchProps {
  readonly unit: CompressorView;
  readonly search: Search;
  readonly view: FindingView;
  readonly timeZone: string;
  /** It was put in the outbox, to be sent later. */
  readonly onKept: () => void;
}

/** Where a search ends: in a repair with its cause, what to take along, and the check that will show it. */
export function EndOfSearch({ unit, search, view, timeZone, onKept }: EndOfSearchProps) {
  const isPlain = view.isKnown && !view.nothingFits;
  const [isOpen, setOpen] = useState(false);
  const [chosen, setChosen] = useState<CauseCode | null>(null);
  const cause = chosen ?? (view.nothingFits ? 'OTHER' : view.isKnown ? view.repair : view.odds[0]!.cause);
  const { repairId, finish, isSending, error } = useOpenRepair(unit, search, timeZone);
  const end = useSearches((searches) => searches.end);
  const navigate = useNavigate();
  const { guide } = causeOn(cause, unit);
  const hasGuide = proceduresFor(unit).some(({ code }) => code === guide);
  const send = async () => {
    const isSent = await finish(cause === 'OTHER' ? null : cause);
    end(unit.id);
    if (isSent) await navigate(`/repairs/${repairId}${hasGuide ? `?guide=${guide}` : ''}`);
    else onKept();
  };
  if (!isOpen && !isPlain)
    return (
      <Button variant="outlined" fullWidth onClick={() => setOpen(true)} sx={{ minHeight: 52, mt: 2.5 }}>
        I know it: open the repair
      </Button>
    );
  return (
    <Box
      component="section"
      aria-label="Fix it"
      sx={{ borderTop: 1, borderColor: 'divider', mt: 2.5, pt: 1.5 }}
    >
      <TextField
        select
        size="small"
        fullWidth
        label="The cause"
        value={cause}
        onChange={(event) => setChosen(event.target.value as CauseCode)}
        sx={{ mb: 1.5 }}
      >
        {view.odds.map(({ cause: code, odds }) => (
          <MenuItem key={code} value={code}>
            {causeOn(code, unit).name} · {percent(odds)}
          </MenuItem>
        ))}
      </TextField>
      <AboutCause unit={unit} code={cause} />
      <ProblemLine error={error} />
      <Button
        variant="contained"
        fullWidth
        disabled={isSending}
        onClick={() => void send().catch(() => undefined)}
        sx={{ minHeight: 60, mt: 1 }}
      >
        {search.repairId === null ? 'Open the repair' : 'Write it into the repair'}
      </Button>
    </Box>
  );
}

/** What putting a cause right takes: minutes, parts, whose work it is, and the check that shows it. */
function AboutCause({ unit, code }: { readonly unit: CompressorView; readonly code: CauseCode }) {
  const { minutes, takes, trade, caution, verifiedBy } = causeOn(code, unit);
  if (code === 'OTHER')
    return (
      <Typography variant="body2" sx={{ mb: 1 }}>
        No cause is written down. The maker, or somebody who sees it afresh, looks next.
      </Typography>
    );
  const check = checksFor(unit).some((one) => one.code === verifiedBy) ? checkByCode(verifiedBy!) : undefined;
  const lines = [
    `About ${minutes} min of work`,
    takes ? `Take along: ${takes.join(', ')}` : '',
    check ? `Shown to be right by: ${check.name}` : '',
  ].filter(Boolean);
  return (
    <>
      {[trade, caution].map((text) => text !== undefined && <Caution key={text} text={text} />)}
      {lines.map((line) => (
        <Typography key={line} variant="body2">
          {line}
        </Typography>
      ))}
    </>
  );
}
