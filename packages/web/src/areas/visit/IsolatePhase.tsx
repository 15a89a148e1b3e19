import { Box, Button, ButtonBase, Stack, Typography } from '@mui/material';
import { isConfirming, isolationSteps, sayInterruption, type IsolationStep } from '@entretien/core/visit';
import { useState } from 'react';
import { usePeople } from '../../data/queries.js';
import { Caution } from '../../parts/Caution.js';
import { emptyEntry, QuantityField } from '../../parts/QuantityField.js';
import { plannedTasks } from './phases.js';
import { Tick } from '../../parts/Tick.js';
import { Foot, type PhaseProps } from './Visit.js';

/** The steps that make this machine safe to open, each confirmed; asked again after an interruption. */
export function IsolatePhase({ atWork, onGo }: PhaseProps) {
  const { unit, isolation, tell } = atWork;
  const steps = isolationSteps(unit.plate);
  const open = steps.filter(({ code }) => !isolation.confirmed.has(code));
  const opens = plannedTasks(atWork).filter((task) => task.isolation === 'isolated-and-vented');
  return (
    <>
      <Interrupted atWork={atWork} />
      <Box component="ul" aria-label="Isolation" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {steps.map((step) => (
          <StepRow
            key={step.code}
            step={step}
            atWork={atWork}
            isConfirmed={isolation.confirmed.has(step.code)}
            onTell={(confirmed, more) => void tell({ kind: 'isolate', step: step.code, confirmed, ...more })}
          />
        ))}
      </Box>
      <Typography variant="caption" sx={{ color: 'text.secondary', my: 1 }}>
        The maker’s manual, your local rules for lock-out and licensed trades come first. A pressure that is
        still there after this is a reason to stop.
      </Typography>
      <Foot
        about={
          opens.length === 0 ? undefined : `Opens: ${opens.map(({ name }) => name.toLowerCase()).join(' · ')}`
        }
      >
        <Button variant="contained" disabled={open.length > 0} onClick={() => onGo('work')}>
          {open.length === 0
            ? 'Isolated: to the work'
            : `${countWords[open.length] ?? open.length} ${open.length === 1 ? 'step' : 'steps'} to go`}
        </Button>
        {open.length > 0 && (
          <Button variant="outlined" onClick={() => onGo('work')}>
            Other work first
          </Button>
        )}
      </Foot>
    </>
  );
}

const countWords = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];

/** Why the isolation is asked again, where it was confirmed before. */
export function Interrupted({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const { data: people } = usePeople();
  const { interrupted } = atWork.isolation;
  if (interrupted === null) return null;
  const nameOf = (person: string) => people?.find(({ id }) => id === person)?.name ?? 'Somebody else';
  const [question, ...rest] = sayInterruption(interrupted, nameOf).split('. ');
  return (
    <Box
      role="alert"
      sx={{
        bgcolor: 'notebook.oxideGround',
        borderLeft: 4,
        borderColor: 'notebook.oxide',
        px: 1.75,
        py: 1.25,
        mb: 1.5,
      }}
    >
      <Typography sx={{ fontWeight: 700, color: 'notebook.oxide' }}>{question}.</Typography>
      <Typography>{rest.join('. ')} Go through the steps again before you open anything.</Typography>
    </Box>
  );
}

interface StepRowProps extends Pick<PhaseProps, 'atWork'> {
  readonly step: IsolationStep;
  readonly isConfirmed: boolean;
  readonly onTell: (confirmed: boolean, more?: { pressureBar?: number; provedBy?: string }) => void;
}

function StepRow({ step, atWork, isConfirmed, onTell }: StepRowProps) {
  const row = {
    borderBottom: 1,
    borderColor: 'divider',
    py: 1.25,
    gap: 1.75,
    alignItems: 'center',
    minHeight: 60,
  } as const;
  if (step.reads === 'pressure') return <GaugeRow row={row} {...{ step, atWork, isConfirmed, onTell }} />;
  return (
    <li>
      <ButtonBase
        onClick={() => onTell(!isConfirmed)}
        role="checkbox"
        aria-checked={isConfirmed}
        aria-label={step.name}
        sx={{ ...row, display: 'flex', width: '100%', textAlign: 'left', justifyContent: 'start' }}
      >
        <Tick on={isConfirmed} />
        <Words step={step} />
      </ButtonBase>
    </li>
  );
}

function Words({ step: { name, hint } }: { readonly step: Pick<IsolationStep, 'name' | 'hint'> }) {
  return (
    <Box sx={{ flex: 1, minWidth: 0 }}>
      <Typography sx={{ fontWeight: 650, lineHeight: 1.3 }}>{name}</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.3 }}>
        {hint}
      </Typography>
    </Box>
  );
}

/** The figure on the gauge: zero confirms; anything else is pressure, or a gauge that lies. */
function GaugeRow({ step, atWork, isConfirmed, onTell, row }: StepRowProps & { readonly row: object }) {
  const [entry, setEntry] = useState(emptyEntry);
  const last = atWork.steps.findLast(({ body }) => body.kind === 'isolate' && body.step === step.code)?.body;
  const shows =
    last?.kind === 'isolate' && !isConfirming(last) && last.confirmed ? last.pressureBar : undefined;
  const say = () => {
    if (entry.value === null) return;
    onTell(true, { pressureBar: entry.value });
    setEntry(emptyEntry);
  };
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider' }}>
      <Stack
        direction="row"
        component="form"
        noValidate
        sx={{ ...row, borderBottom: 0, flexWrap: 'wrap' }}
        onSubmit={(event) => {
          event.preventDefault();
          say();
        }}
      >
        <Tick on={isConfirmed} />
        <Words step={step} />
        {isConfirmed ? (
          <Button onClick={() => onTell(false)} sx={{ minHeight: 44 }}>
            Look again
          </Button>
        ) : (
          <Stack
            direction="row"
            sx={{ gap: 1, alignItems: 'start', pl: { xs: 5.5, sm: 0 }, width: { xs: '100%', sm: 'auto' } }}
          >
            <QuantityField
              kind="pressure"
              label="It shows"
              entry={entry}
              onEntry={setEntry}
              onBlur={say}
              min={0}
              max={1000}
              size="small"
              sx={{ width: 130 }}
            />
            <Button type="submit" variant="outlined" disabled={entry.value === null} sx={{ minHeight: 44 }}>
              Note
            </Button>
          </Stack>
        )}
      </Stack>
      {shows !== undefined && shows > 0 && (
        <Box sx={{ pb: 1.5 }}>
          <Caution
            words={`It shows ${shows} bar. There is pressure, or the gauge lies: do not open anything. Vent on, and type what it shows then.`}
          />
          <Button
            variant="outlined"
            color="error"
            sx={{ minHeight: 48 }}
            onClick={() => {
              onTell(true, { pressureBar: shows, provedBy: 'Drain open to the air, nothing comes' });
              void atWork.tell({ kind: 'fault', found: `A gauge rests at ${shows} bar with the drain open` });
            }}
          >
            The drain is open and nothing comes: the gauge is wrong
          </Button>
        </Box>
      )}
    </Box>
  );
}
