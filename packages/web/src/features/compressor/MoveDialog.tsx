import { FormControlLabel, MenuItem, Radio, RadioGroup, TextField, Typography } from '@mui/material';
import { ChangePlate, type CompressorView } from '@entretien/contracts';
import { formatDay, localDayAt } from '@entretien/core/basics';
import { futureProblem } from '@entretien/core/hours';
import { useState } from 'react';
import { useSites } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { WhenField } from '../../components/WhenField.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useNow } from '../../components/use-now.js';

interface MoveProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** Moves a unit to another site, takes it out of service, or brings it back. */
export function MoveDialog({ unit, timeZone, onClose }: MoveProps) {
  const now = useNow();
  const { data: sites = [] } = useSites();
  const isRetired = unit.retiredOn !== undefined;
  const [what, setWhat] = useState<'move' | 'retire' | 'return'>(isRetired ? 'return' : 'move');
  const [siteId, setSiteId] = useState(unit.siteId);
  const fact = useFactForm<ChangePlate>(ChangePlate, `/compressors/${unit.id}/plate`, timeZone, onClose);
  const { when } = fact;
  const future = when === null ? null : futureProblem(when, 'changedAt', { now, timeZone });
  const change = () => {
    if (what === 'move') return { siteId };
    return { retiredOn: what === 'retire' && when !== null ? formatDay(localDayAt(when, timeZone)) : null };
  };
  return (
    <FormDialog
      title={`Move or retire ${unit.tag}`}
      submit={what === 'move' ? 'Move it' : what === 'retire' ? 'Retire it' : 'Bring it back'}
      canSubmit={when !== null && !future && (what !== 'move' || siteId !== unit.siteId)}
      isSending={fact.isSending}
      problem={fact.generalProblem ?? fact.problemOf('retiredOn') ?? null}
      onClose={onClose}
      onSubmit={() => when !== null && fact.send({ changedAt: new Date(when).toISOString(), ...change() })}
    >
      <RadioGroup
        value={what}
        onChange={(_event, value) => setWhat(value as typeof what)}
        aria-label="What happens to it"
      >
        <FormControlLabel
          value="move"
          control={<Radio />}
          label="It goes to another site"
          disabled={isRetired}
        />
        {isRetired ? (
          <FormControlLabel value="return" control={<Radio />} label="It comes back into service" />
        ) : (
          <FormControlLabel value="retire" control={<Radio />} label="It goes out of service" />
        )}
      </RadioGroup>
      {what === 'move' && (
        <TextField
          select
          label="Site"
          value={siteId}
          onChange={(event) => setSiteId(event.target.value)}
          error={fact.problemOf('siteId') !== undefined}
          helperText={fact.problemOf('siteId') ?? ' '}
        >
          {sites.map((site) => (
            <MenuItem key={site.id} value={site.id}>
              {site.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      {what === 'retire' && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing more comes due on it. Its record stays.
        </Typography>
      )}
      <WhenField
        label="Since"
        text={fact.whenText}
        onText={fact.setWhenText}
        problem={when === null ? 'Say since when.' : (future?.sentence ?? fact.problemOf('changedAt'))}
      />
    </FormDialog>
  );
}
