import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { DataPlate } from '@entretien/core/machine';
import {
  intervalOrigins,
  originNames,
  describeTriggers,
  taskLimits,
  type IntervalOrigin,
  type OtherInterval,
  type ServiceTask,
} from '@entretien/core/plan';
import { useState } from 'react';
import { usePreferences } from '../../data/preferences.js';
import { usePeople } from '../../data/queries.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { TriggerList } from './TriggerEditor.js';

interface SourcesProps {
  readonly task: ServiceTask;
  readonly plate: DataPlate;
  readonly onTask: (task: ServiceTask) => void;
  /** Raised when the chosen figure is another one: its fields begin anew. */
  readonly onSwapped: () => void;
}

/** Where the interval comes from; what other sources say of it, side by side; and why this one was chosen. */
export function IntervalSources({ task, plate, onTask, onSwapped }: SourcesProps) {
  const personId = usePreferences((preferences) => preferences.personId);
  const people = usePeople();
  const me = people.data?.find(({ id }) => id === personId)?.name ?? '';
  const [because, setBecause] = useState(task.choice?.because ?? '');
  const [by, setBy] = useState(task.choice?.by);
  const others = task.others ?? [];
  /** A decision is one with its reason and its name. */
  const decide = (why: string, who: string) => {
    setBecause(why);
    setBy(who);
    const { choice: _choice, ...rest } = task;
    const isStated = why.trim() !== '' && who.trim() !== '';
    onTask(isStated ? { ...rest, choice: { because: why.trim(), by: who.trim() } } : rest);
  };
  const taken = new Set([task.origin, ...others.map(({ origin }) => origin)]);
  const free = intervalOrigins.filter((origin) => !taken.has(origin));
  const withOthers = (next: readonly OtherInterval[]): ServiceTask => {
    const { others: _others, choice, ...rest } = task;
    return next.length === 0 ? rest : { ...rest, others: next, ...(choice ? { choice } : {}) };
  };
  const choose = (other: OtherInterval) => {
    const kept = { origin: task.origin, triggers: task.triggers };
    onTask({
      ...withOthers(others.map((one) => (one === other ? kept : one))),
      origin: other.origin,
      triggers: other.triggers,
    });
    onSwapped();
  };
  return (
    <Box component="section" aria-label="Where the interval comes from" sx={{ mt: 1.5 }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          select
          size="small"
          label="The interval comes from"
          value={task.origin}
          onChange={(event) => onTask({ ...task, origin: event.target.value as IntervalOrigin })}
          sx={{ minWidth: 200 }}
        >
          {[task.origin, ...free].map((origin) => (
            <MenuItem key={origin} value={origin}>
              {originNames[origin]}
            </MenuItem>
          ))}
        </TextField>
        {free.length > 0 && others.length < taskLimits.others && (
          <Button
            onClick={() => onTask(withOthers([...others, { origin: free[0]!, triggers: task.triggers }]))}
            sx={{ minHeight: 44 }}
          >
            Add what another source says
          </Button>
        )}
      </Stack>
      {others.map((other, index) => (
        <OtherSource
          key={other.origin}
          other={other}
          free={free}
          plate={plate}
          onOther={(next) => onTask(withOthers(replaced(others, index, next)))}
          onUse={() => choose(other)}
          onDelete={() => onTask(withOthers(others.filter((one) => one !== other)))}
        />
      ))}
      {others.length > 0 && (
        <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 1, mt: 1.25 }}>
          <TextField
            size="small"
            required
            label={`Why ${originNames[task.origin]}`}
            value={because}
            onChange={(event) => decide(event.target.value, by ?? me)}
            slotProps={{ htmlInput: { maxLength: taskLimits.reason } }}
            sx={{ flex: 2 }}
          />
          <TextField
            size="small"
            required
            label="Decided by"
            value={by ?? me}
            onChange={(event) => decide(because, event.target.value)}
            slotProps={{ htmlInput: { maxLength: taskLimits.name } }}
            sx={{ flex: 1 }}
          />
        </Stack>
      )}
    </Box>
  );
}

interface OtherSourceProps {
  readonly other: OtherInterval;
  /** Sources that nothing is said of yet. */
  readonly free: readonly IntervalOrigin[];
  readonly plate: DataPlate;
  readonly onOther: (other: OtherInterval) => void;
  readonly onUse: () => void;
  readonly onDelete: () => void;
}

/** What another source says of the same task. */
function OtherSource({ other, free, plate, onOther, onUse, onDelete }: OtherSourceProps) {
  const format = useFormatQuantity();
  return (
    <Box component="fieldset" sx={{ border: 1, borderColor: 'divider', borderRadius: 1, mt: 1, mx: 0, p: 1 }}>
      <Typography component="legend" variant="body2" sx={{ px: 0.5, fontWeight: 600 }}>
        {originNames[other.origin]}: {describeTriggers(other.triggers, format)}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
        <TextField
          select
          size="small"
          label="Source"
          value={other.origin}
          onChange={(event) => onOther({ ...other, origin: event.target.value as IntervalOrigin })}
          sx={{ minWidth: 160 }}
        >
          {[other.origin, ...free].map((origin) => (
            <MenuItem key={origin} value={origin}>
              {originNames[origin]}
            </MenuItem>
          ))}
        </TextField>
        <Button onClick={onUse} sx={{ minHeight: 44 }}>
          Use this one
        </Button>
        <Button color="inherit" onClick={onDelete} sx={{ minHeight: 44 }}>
          Delete
        </Button>
      </Stack>
      <TriggerList
        triggers={other.triggers}
        plate={plate}
        onChange={(triggers) => triggers && onOther({ ...other, triggers })}
      />
    </Box>
  );
}

function replaced(
  others: readonly OtherInterval[],
  index: number,
  other: OtherInterval,
): readonly OtherInterval[] {
  return others.map((one, at) => (at === index ? other : one));
}
