import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  MenuItem,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import type { CompressorView, PlanPreviewView } from '@entretien/contracts';
import {
  isolationStates,
  formatHours,
  type ServicePlan,
  type ServiceTask,
  type SeverityKind,
  type SeverityOverride,
} from '@entretien/core/plan';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { Caution } from '../../components/Caution.js';
import { formatDate } from '../../components/describe-due.js';
import { ComingRuler } from './ComingRuler.js';
import { IntervalSources } from './IntervalSources.js';
import { TriggerList } from './TriggerEditor.js';

interface TaskEditorProps {
  readonly task: ServiceTask;
  readonly plan: ServicePlan;
  readonly unit: CompressorView;
  readonly preview: PlanPreviewView | undefined;
  readonly timeZone: string;
  /** Null while something typed is not understood. */
  readonly onTask: (task: ServiceTask | null) => void;
  readonly onOverride: (kind: SeverityKind, override: SeverityOverride | null) => void;
  readonly onRemove: () => void;
}

/** One task of a plan: when it is due, with its next three points; how it is counted; what bears on it. */
export function TaskEditor({
  task,
  plan,
  unit,
  preview,
  timeZone,
  onTask,
  onOverride,
  onRemove,
}: TaskEditorProps) {
  const [swaps, setSwaps] = useState(0);
  const points = preview?.coming[task.code] ?? [];
  const at = preview ? Date.parse(preview.standing.at) : 0;
  return (
    <Box sx={{ py: 1.5, pl: { sm: 1 } }}>
      <TriggerList
        key={swaps}
        triggers={task.triggers}
        plate={unit}
        onChange={(triggers) => onTask(triggers && { ...task, triggers })}
      />
      <IntervalSources task={task} plate={unit} onTask={onTask} onSwapped={() => setSwaps(swaps + 1)} />
      {preview && points.length > 0 && (
        <Box sx={{ my: 1 }}>
          <Typography variant="body2" role="status" sx={{ color: 'text.secondary' }}>
            Next: {points.map((point) => describePoint(point, at, timeZone)).join(', then ')}
          </Typography>
          <ComingRuler points={points} standing={preview.standing} timeZone={timeZone} />
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: 'repeat(2, minmax(0, 1fr))' },
          gap: 1,
          mt: 1.5,
        }}
      >
        <Choice
          label="Counted"
          value={task.counting}
          options={[
            ['last-done', 'from last done'],
            ['grid', 'on fixed multiples'],
          ]}
          onChange={(counting) => onTask({ ...task, counting: counting as ServiceTask['counting'] })}
        />
        <Choice
          label="The machine is"
          value={task.isolation}
          options={isolationStates.map((one) => [one, one.replaceAll('-', ' ')])}
          onChange={(isolation) => onTask({ ...task, isolation: isolation as ServiceTask['isolation'] })}
        />
      </Box>
      {task.severity && (
        <Severity task={task} overrides={plan.overrides?.[task.code]} onOverride={onOverride} />
      )}
      {task.caution && (
        <Box sx={{ mt: 1 }}>
          <Caution text={task.caution} />
        </Box>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {[
          task.how,
          task.kit &&
            `Takes along: ${task.kit.map(({ part, count }) => (count === 1 ? part : `${count} × ${part}`)).join(', ')}.`,
          task.tools && `Tools: ${task.tools.join(', ')}.`,
          `${task.minutes} min.`,
        ]
          .filter(Boolean)
          .join(' ')}
      </Typography>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', mt: 0.5 }}>
        <FormControlLabel
          control={
            <Checkbox
              checked={task.safety ?? false}
              onChange={(event) => onTask({ ...task, safety: event.target.checked || undefined })}
            />
          }
          label="Safety task: no grace period"
        />
        <Button color="error" onClick={onRemove}>
          Take it out of the plan
        </Button>
      </Stack>
    </Box>
  );
}

function describePoint(
  { hours, on }: PlanPreviewView['coming'][string][number],
  now: number,
  timeZone: string,
): string {
  const parts = [
    on === null ? '' : formatDate(on, now, timeZone),
    hours === null ? '' : formatHours(Math.round(hours)),
  ];
  return parts.filter(Boolean).join(' at ');
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {options.map(([code, name]) => (
        <MenuItem key={code} value={code}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface SeverityProps {
  readonly task: ServiceTask;
  readonly overrides: NonNullable<ServicePlan['overrides']>[string] | undefined;
  readonly onOverride: TaskEditorProps['onOverride'];
}

const severityNames: Record<SeverityKind, string> = {
  dust: 'In dust',
  heat: 'When the discharge is hot',
  damp: 'In damp',
  'light-use': 'With little use',
};

function Severity({ task, overrides, onOverride }: SeverityProps) {
  return (
    <Box sx={{ mt: 1.5 }}>
      <Typography variant="h3" component="h4">
        What shortens it
      </Typography>
      {task.severity!.map((rule) => (
        <SeverityRow
          key={rule.kind}
          name={severityNames[rule.kind]}
          rule={
            rule.times === undefined
              ? rule.because
              : `× ${Math.round(rule.times * 100) / 100}: ${rule.because}`
          }
          override={overrides?.[rule.kind]}
          onOverride={(override) => onOverride(rule.kind, override)}
        />
      ))}
    </Box>
  );
}

interface SeverityRowProps {
  readonly name: string;
  readonly rule: string;
  readonly override: SeverityOverride | undefined;
  readonly onOverride: (override: SeverityOverride | null) => void;
}

/** A factor as its rule has it, or decided by hand with a reason. */
function SeverityRow({ name, rule, override, onOverride }: SeverityRowProps) {
  const [isOpen, setIsOpen] = useState(override !== undefined);
  const [texts, setTexts] = useState({
    times: override ? String(override.times) : '1',
    reason: override?.reason ?? '',
  });
  const change = (next: typeof texts) => {
    setTexts(next);
    const times = readNumber(next.times);
    const isStated = times.ok && times.value >= 0.05 && times.value <= 20 && next.reason.trim() !== '';
    onOverride(isStated ? { times: times.value, reason: next.reason.trim() } : null);
  };
  const times = readNumber(texts.times);
  const wrong = times.ok
    ? times.value < 0.05 || times.value > 20
      ? 'From 0.05 to 20.'
      : null
    : times.problem.sentence;
  return (
    <Box sx={{ borderBottom: 1, borderColor: 'divider', py: 0.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" sx={{ flex: 1 }}>
          <b>{name}</b> {rule}
        </Typography>
        <Button
          size="small"
          onClick={() => {
            setIsOpen(!isOpen);
            if (isOpen) onOverride(null);
          }}
        >
          {isOpen ? 'Use the rule' : 'Override'}
        </Button>
      </Stack>
      {isOpen && (
        <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 1, mt: 0.75 }}>
          <TextField
            size="small"
            label="Factor"
            value={texts.times}
            onChange={(event) => change({ ...texts, times: event.target.value })}
            error={wrong !== null}
            helperText={wrong ?? 'On its intervals.'}
            slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 10 } }}
            sx={{ width: { sm: 130 } }}
          />
          <TextField
            size="small"
            label="Why"
            required
            value={texts.reason}
            onChange={(event) => change({ ...texts, reason: event.target.value })}
            helperText={texts.reason.trim() === '' ? 'Without a reason the rule stays.' : ' '}
            slotProps={{ htmlInput: { maxLength: 300 } }}
            sx={{ flex: 1 }}
          />
        </Stack>
      )}
    </Box>
  );
}
