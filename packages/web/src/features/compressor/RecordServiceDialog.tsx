import { Box, Checkbox, FormControlLabel, FormHelperText, Stack, Typography } from '@mui/material';
import {
  type CompressorView,
  type PlanView,
  RecordService,
  type StandingView,
  type TaskStandingView,
} from '@entretien/contracts';
import { HOUR_MS } from '@entretien/core/basics';
import { futureProblem, readingProblem } from '@entretien/core/hours';
import { resultsOf } from '@entretien/core/visit';
import { useState } from 'react';
import type { CompressorFacts } from '../../data/queries.js';
import { Caution } from '../../components/Caution.js';
import { DropMark, stateColour } from '../../components/DropMark.js';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { MeterFigure } from '../../components/meter/MeterFigure.js';
import { emptyEntry } from '../../components/QuantityField.js';
import { describeDue } from '../../components/describe-due.js';
import { WhenField } from '../../components/WhenField.js';
import { hourLogOf, typedReading } from '../../components/meter/hour-log.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { useNow } from '../../components/use-now.js';

interface RecordServiceProps {
  readonly unit: CompressorView;
  readonly compressorId: string;
  readonly tag: string;
  readonly facts: CompressorFacts;
  readonly standing: StandingView;
  readonly plan: PlanView;
  readonly timeZone: string;
  /** Tasks ticked to begin with. */
  readonly chosen: readonly string[];
  readonly onClose: () => void;
}

/** Records work that was done; the hazard of each chosen task stands beside it. */
export function RecordServiceDialog({
  unit,
  compressorId,
  tag,
  facts,
  standing,
  plan,
  timeZone,
  chosen,
  onClose,
}: RecordServiceProps) {
  const [tasks, setTasks] = useState<readonly string[]>(chosen);
  const [entry, setEntry] = useState(emptyEntry);
  const form = useFactForm<RecordService>(
    RecordService,
    `/compressors/${compressorId}/services`,
    timeZone,
    onClose,
  );
  const now = useNow();
  const at = form.when ?? now;
  const future = futureProblem(at, 'doneAt', { now, timeZone });
  const judged =
    entry.value === null || future
      ? null
      : readingProblem(hourLogOf(facts), typedReading(entry.value, at, now), { now, timeZone });
  const cautions = cautionsOf(plan, standing, tasks);
  const untested = untestedOf(unit, plan, facts, tasks, at);
  const toggle = (code: string) =>
    setTasks(tasks.includes(code) ? tasks.filter((other) => other !== code) : [...tasks, code]);
  return (
    <FormDialog
      title={`Record service of ${tag}`}
      submit={tasks.length > 1 ? `Save ${tasks.length} tasks` : 'Save service'}
      canSubmit={
        tasks.length > 0 && entry.problem === null && judged === null && !future && form.when !== null
      }
      isSending={form.isSending}
      problem={form.generalProblem}
      onClose={onClose}
      onSubmit={() =>
        form.send({
          doneAt: new Date(at).toISOString(),
          tasks: [...tasks],
          ...(entry.value === null ? {} : { hours: entry.value }),
        })
      }
      wide
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 260px' },
          columnGap: 3,
          rowGap: 1.5,
        }}
      >
        <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
          <Typography component="legend" variant="h3" sx={{ mb: 0.5 }}>
            What was done
          </Typography>
          {form.problemOf('tasks') && <FormHelperText error>{form.problemOf('tasks')}</FormHelperText>}
          {standing.tasks.filter(isRecordedHere).map((task) => (
            <TaskChoice
              key={task.code}
              task={task}
              isChosen={tasks.includes(task.code)}
              onToggle={() => toggle(task.code)}
              due={describeDue(task, now, timeZone, standing.meter).short}
              caution={cautions.get(task.code)}
              isUntested={untested.has(task.code)}
            />
          ))}
          {cautions.size > 0 && (
            <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mt: 1 }}>
              The maker’s manual, local law and licensed trades come first.
            </Typography>
          )}
        </Box>
        <Stack spacing={1}>
          <WhenField
            label="Done at"
            text={form.whenText}
            onText={form.setWhenText}
            problem={
              form.when === null ? 'Say when it was done.' : (future?.sentence ?? form.problemOf('doneAt'))
            }
          />
          <MeterFigure
            entry={entry}
            onEntry={setEntry}
            problem={judged?.sentence ?? form.problemOf('hours')}
            hint="Counts as a reading. Leave it empty where there is no meter."
          />
          <NoteField form={form} rows={2} />
        </Stack>
      </Box>
    </FormDialog>
  );
}

interface TaskChoiceProps {
  readonly task: TaskStandingView;
  readonly isChosen: boolean;
  readonly onToggle: () => void;
  /** When it is due, in short. */
  readonly due: string;
  readonly caution: string | undefined;
  /** It is a test, and there is no result of it. */
  readonly isUntested: boolean;
}

function TaskChoice({ task, isChosen, onToggle, due, caution, isUntested }: TaskChoiceProps) {
  return (
    <Box sx={{ borderBottom: 1, borderColor: 'divider' }}>
      <Stack direction="row" sx={{ alignItems: 'center', minHeight: 44 }}>
        <FormControlLabel
          sx={{ flex: 1, mr: 1 }}
          control={<Checkbox checked={isChosen} onChange={onToggle} />}
          label={task.name}
        />
        <Box
          sx={{
            typography: 'caption',
            color: task.state === 'fresh' ? 'text.secondary' : stateColour(task.state),
            pr: 1,
            whiteSpace: 'nowrap',
          }}
        >
          {due}
        </Box>
        <DropMark state={task.state} used={task.usedFraction} size={24} />
      </Stack>
      {caution !== undefined && <Caution text={caution} />}
      {isUntested && (
        <FormHelperText sx={{ color: 'brass', fontWeight: 600 }}>
          A test is done with its result: measure it first, or it was only looked at and stays due.
        </FormHelperText>
      )}
    </Box>
  );
}

/** The dates of vessels are recorded with the vessel, not with the machine. */
function isRecordedHere({ vessel }: TaskStandingView): boolean {
  return vessel === null;
}

/** A result belongs to a test that was done about the same day, as the server has it. */
const ABOUT_THAT_DAY = 36 * HOUR_MS;

/** Tests among what is chosen that have no result about that day. */
function untestedOf(
  unit: CompressorView,
  plan: PlanView,
  { measurements }: CompressorFacts,
  chosen: readonly string[],
  at: number,
): ReadonlySet<string> {
  const tests = plan.tasks.filter(({ code }) => chosen.includes(code));
  const isMeasured = (checks: readonly string[]) =>
    measurements.some(
      ({ check, takenAt }) => checks.includes(check) && Math.abs(Date.parse(takenAt) - at) <= ABOUT_THAT_DAY,
    );
  return new Set(
    tests.flatMap((task) => {
      const checks = resultsOf(task, unit);
      return checks.length > 0 && !isMeasured(checks) ? [task.code] : [];
    }),
  );
}

/** The caution of each chosen task; the same words stand only at the first of them. */
function cautionsOf(
  plan: PlanView,
  standing: StandingView,
  chosen: readonly string[],
): ReadonlyMap<string, string> {
  const byCode = new Map(plan.tasks.map((task) => [task.code, task.caution]));
  const named = new Set<string>();
  const cautions = new Map<string, string>();
  for (const { code } of standing.tasks) {
    const caution = byCode.get(code);
    if (!chosen.includes(code) || caution === undefined || named.has(caution)) continue;
    named.add(caution);
    cautions.set(code, caution);
  }
  return cautions;
}
