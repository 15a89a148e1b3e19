import { formatHoursSeen, type MeterScale } from '@entretien/core/hours';
import { Box, Button, Stack, Typography } from '@mui/material';
import type {
  CompressorView,
  PlanView,
  ServiceView,
  TaskStandingView,
  VesselView,
} from '@entretien/contracts';
import { verdictInShort, type CheckDefinition } from '@entretien/core/checks';
import { describeTrigger, type VesselExamination } from '@entretien/core/plan';
import type { ReactNode } from 'react';
import { usePreferences } from '../../../data/preferences.js';
import { shownFigure } from '../../../components/checks/format-figure.js';
import { DropMark, stateColour } from '../../../components/DropMark.js';
import { Figure } from '../../../components/Figure.js';
import { formatAgo, formatDate, describeDue } from '../../../components/describe-due.js';
import { KnownFigures } from '../../../components/KnownFigures.js';
import { useFormatQuantity } from '../../../components/use-format-quantity.js';
import { Vial, verdictColour } from '../../../components/VerdictMark.js';
import type { StationFacts } from '../air-path/station-facts.js';

export interface StationActions {
  readonly onRecord: (tasks: readonly string[]) => void;
  readonly onWhy: (task: TaskStandingView) => void;
  readonly onMeasure: (check: CheckDefinition) => void;
  readonly onCheck: (code: string) => void;
  readonly onAddVessel: () => void;
  readonly onExamine: (vessel: VesselView, examination: VesselExamination) => void;
}

interface StationPanelProps extends StationActions {
  /** Left out where the station's name stands over it already. */
  readonly hasHeading: boolean;
  readonly unit: CompressorView;
  readonly station: StationFacts;
  /** How many stations the air goes through. */
  readonly pathLength: number;
  readonly plan: PlanView;
  readonly services: readonly ServiceView[];
  /** Those of this station; left out where there are none to be. */
  readonly vessels: readonly VesselView[] | null;
  readonly taskNames: ReadonlyMap<string, string>;
  readonly now: number;
  readonly timeZone: string;
  /** Scale that its figures of hours are said on. */
  readonly meter: MeterScale;
}

const SERVICES_SHOWN = 4;

/** One station: its tasks, what belongs to every run, its checks with their limits, and what was done there. */
export function StationPanel(props: StationPanelProps) {
  const { station, pathLength, plan, vessels, hasHeading } = props;
  const planned = new Map(plan.tasks.map((task) => [task.code, task]));
  const caution = station.tasks
    .map(({ code }) => planned.get(code)?.caution)
    .find((text) => text !== undefined);
  return (
    <Box>
      <Typography variant="caption" sx={{ color: 'text.secondary' }}>
        {station.place === null ? 'Beside the air path' : `Station ${station.place} of ${pathLength}`}
      </Typography>
      {hasHeading && (
        <Typography variant="h2" sx={{ lineHeight: 1.2 }}>
          {station.name}
        </Typography>
      )}
      {caution && (
        <Typography variant="body2" role="note" sx={{ color: 'brass', mt: 0.5 }}>
          {caution}
        </Typography>
      )}
      {station.tasks.length > 0 && (
        <Box component="ul" aria-label={`Tasks at ${station.name}`} sx={{ ...plainList, mt: 1 }}>
          {station.tasks.map((task) => (
            <TaskRow key={task.code} {...props} task={task} how={planned.get(task.code)?.how} />
          ))}
        </Box>
      )}
      {station.routine.length > 0 && <Routine {...props} />}
      {vessels && <Vessels {...props} vessels={vessels} />}
      {station.checks.length > 0 && <Checks {...props} />}
      <History {...props} />
    </Box>
  );
}

const plainList = { listStyle: 'none', p: 0, m: 0 } as const;

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" sx={{ mt: 1.75 }}>
      <Typography variant="h3" sx={{ mb: 0.25 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

type RowProps = StationPanelProps & { readonly task: TaskStandingView; readonly how: string | undefined };

function TaskRow({
  unit,
  task,
  how,
  now,
  timeZone,
  meter,
  vessels,
  taskNames,
  onRecord,
  onWhy,
  onExamine,
}: RowProps) {
  const due = describeDue(task, now, timeZone, meter);
  const { vessel } = task;
  const record = () => {
    const known = vessel && vessels?.find(({ id }) => id === vessel.id);
    if (vessel && known) onExamine(known, vessel.examination);
    else onRecord([task.code]);
  };
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider', py: 0.75 }}>
      <Stack direction="row" sx={{ gap: 1.25, alignItems: 'center' }}>
        <DropMark state={task.state} used={task.usedFraction} size={30} />
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography sx={{ fontWeight: 600, fontSize: '0.95rem', lineHeight: 1.2 }}>{task.name}</Typography>
          <Typography variant="body2" sx={{ lineHeight: 1.25 }}>
            <Box
              component="span"
              sx={{
                color: task.state === 'fresh' ? 'text.secondary' : stateColour(task.state),
                fontWeight: 600,
              }}
            >
              {due.short}
            </Box>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {due.exact ? ` · ${due.exact}` : ''}
            </Box>
          </Typography>
          {task.coveredBy !== null && (
            <Typography variant="caption" sx={{ color: 'text.secondary' }}>
              done with {taskNames.get(task.coveredBy) ?? task.coveredBy}
            </Typography>
          )}
        </Box>
        <Button
          size="small"
          onClick={() => onWhy(task)}
          aria-label={`Why: ${task.name}`}
          sx={{ minWidth: 44, minHeight: 44 }}
        >
          Why?
        </Button>
        <Button
          size="small"
          variant="outlined"
          onClick={record}
          aria-label={`Record: ${task.name}`}
          sx={{ minWidth: 52, minHeight: 44 }}
        >
          Done
        </Button>
      </Stack>
      <KnownFigures task={task.code} plate={unit} />
      {how && (
        <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mt: 0.25 }}>
          {how}
        </Typography>
      )}
    </Box>
  );
}

function Routine({ station, plan }: StationPanelProps) {
  const planned = new Map(plan.tasks.map((task) => [task.code, task]));
  return (
    <Part title="Every run">
      {station.routine.map(({ code, name, triggers, factors }) => (
        <Box key={code} sx={{ py: 0.4 }}>
          <Typography variant="body2">
            <b>{name}</b> {triggers.map((trigger) => describeTrigger(trigger)).join(' and ')}
          </Typography>
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            {[planned.get(code)?.how, ...factors.map(({ because }) => because)].filter(Boolean).join(' ')}
          </Typography>
        </Box>
      ))}
    </Part>
  );
}

function Vessels({
  vessels,
  onAddVessel,
  onExamine,
}: StationPanelProps & { readonly vessels: readonly VesselView[] }) {
  const format = useFormatQuantity();
  return (
    <Part title="Vessels it fills">
      {vessels.map((vessel) => (
        <Box key={vessel.id} sx={{ py: 0.5, borderBottom: 1, borderColor: 'divider' }}>
          <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography variant="body2">
                <b>{vessel.tag}</b>{' '}
                {[
                  vessel.kind,
                  vessel.volumeL === undefined ? '' : format(vessel.volumeL, 'volume'),
                  vessel.ratedBar === undefined ? 'rating not known' : format(vessel.ratedBar, 'pressure'),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Typography>
              {vessel.compressorIds.length > 1 && (
                <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                  shared by {vessel.compressorIds.length} units
                </Typography>
              )}
            </Box>
            <Button size="small" onClick={() => onExamine(vessel, 'test')} sx={{ minHeight: 44 }}>
              Tested
            </Button>
          </Stack>
          {vessel.doubts.map(({ sentence }) => (
            <Typography key={sentence} variant="body2" sx={{ color: 'oxide' }}>
              {sentence}
            </Typography>
          ))}
        </Box>
      ))}
      <Button size="small" onClick={onAddVessel} sx={{ mt: 0.5, minHeight: 44 }}>
        {vessels.length === 0 ? 'Add its vessel' : 'Add another'}
      </Button>
    </Part>
  );
}

function Checks({ station, now, timeZone, onMeasure, onCheck }: StationPanelProps) {
  const units = usePreferences((preferences) => preferences.units);
  return (
    <Part title="Checks">
      {station.checks.map(({ check, latest }) => {
        const figure = latest?.judgement.figure;
        const shown = figure && check.figure ? shownFigure(figure.value, check.figure, units) : null;
        const limit = latest?.judgement.limit;
        return (
          <Stack
            key={check.code}
            direction="row"
            sx={{ alignItems: 'center', gap: 1, borderBottom: 1, borderColor: 'divider', minHeight: 44 }}
          >
            <Button
              onClick={() => onCheck(check.code)}
              sx={{
                flex: 1,
                minWidth: 0,
                justifyContent: 'start',
                textAlign: 'left',
                color: 'text.primary',
                px: 0.5,
              }}
            >
              <Box sx={{ minWidth: 0 }}>
                <Typography variant="body2" sx={{ fontWeight: 600, lineHeight: 1.2 }}>
                  {check.name}
                </Typography>
                <Typography
                  variant="caption"
                  sx={{ color: 'text.secondary', lineHeight: 1.2, display: 'block' }}
                >
                  {latest ? formatAgo(Date.parse(latest.takenAt), now, timeZone) : 'not measured yet'}
                  {limit ? ` · limit ${limit.text} (${limit.origin})` : ''}
                </Typography>
              </Box>
            </Button>
            {shown && <Figure value={shown.figure} unit={shown.unit.split(' ')[0]!} />}
            {latest && (
              <Box
                sx={{
                  color: verdictColour(latest.judgement.verdict),
                  display: 'grid',
                  justifyItems: 'center',
                }}
              >
                <Vial {...latest.judgement} />
                <Typography variant="caption" sx={{ fontWeight: 700, lineHeight: 1.1 }}>
                  {verdictInShort(latest.judgement.verdict)}
                </Typography>
              </Box>
            )}
            <Button
              size="small"
              onClick={() => onMeasure(check)}
              aria-label={`Measure: ${check.name}`}
              sx={{ minWidth: 44, minHeight: 44 }}
            >
              Measure
            </Button>
          </Stack>
        );
      })}
    </Part>
  );
}

function History({ station, services, taskNames, now, timeZone, meter }: StationPanelProps) {
  const codes = new Set(station.tasks.map(({ code }) => code));
  const done = services
    .flatMap((service) => {
      const tasks = service.tasks.filter((code) => codes.has(code));
      return tasks.length === 0 ? [] : [{ service, tasks }];
    })
    .slice(0, SERVICES_SHOWN);
  if (done.length === 0) return null;
  return (
    <Part title="Done here">
      {done.map(({ service, tasks }) => (
        <Box
          key={service.id}
          sx={{
            display: 'grid',
            gridTemplateColumns: '76px 92px 1fr',
            columnGap: 1,
            py: 0.35,
            typography: 'body2',
          }}
        >
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {formatDate(service.doneAt.slice(0, 10), now, timeZone)}
          </Box>
          <Figure
            value={service.runHours === null ? '' : formatHoursSeen(meter, Math.round(service.runHours))}
            sx={{ fontSize: '0.86rem' }}
          />
          <span>{tasks.map((code) => taskNames.get(code) ?? code).join(', ')}</span>
        </Box>
      ))}
    </Part>
  );
}
