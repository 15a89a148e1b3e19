import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import { Box, ButtonBase, Stack, Typography } from '@mui/material';
import type { CompressorView, PlanView } from '@entretien/contracts';
import { stationName, stationsOf } from '@entretien/core/machine';
import {
  packagesWithin,
  planParts,
  formatInterval,
  type ServicePlan,
  type ServiceTask,
} from '@entretien/core/plan';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { v7 as newId } from 'uuid';
import { usePlan, useSites, useCompressor } from '../../data/queries.js';
import { Figure } from '../../components/Figure.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { WithSide } from '../../components/WithSide.js';
import { usePlanDrafts, type PlanDraft } from './plan-draft.js';
import { PlanPackages } from './PlanPackages.js';
import { PlanSide } from './PlanSide.js';
import { TaskEditor } from './TaskEditor.js';
import { touchTarget } from './touch-target.js';
import { usePlanPreview } from './use-plan-preview.js';

/** What is to be done to one unit, station by station, and what a change would mean before it is saved. */
export function PlanEditor() {
  const { compressorId = '' } = useParams();
  const unit = useCompressor(compressorId);
  const plan = usePlan(compressorId);
  const sites = useSites();
  const failed = [unit, plan, sites].find((query) => query.isError);
  if (failed) {
    return (
      <Box sx={{ px: { xs: 2, md: 3.5 } }}>
        <ErrorState error={failed.error} onRetry={() => void failed.refetch()} />
      </Box>
    );
  }
  if (!unit.data || !plan.data || !sites.data) {
    return (
      <Box sx={{ px: { xs: 2, md: 3.5 } }}>
        <LoadingSkeleton lines={10} />
      </Box>
    );
  }
  const timeZone = sites.data.find(({ id }) => id === unit.data.siteId)?.timeZone ?? 'UTC';
  return <Editor key={compressorId} unit={unit.data} saved={plan.data} timeZone={timeZone} />;
}

interface EditorProps {
  readonly unit: CompressorView;
  readonly saved: PlanView;
  readonly timeZone: string;
}

function Editor({ unit, saved, timeZone }: EditorProps) {
  const [search, setSearch] = useSearchParams();
  const drafts = usePlanDrafts();
  const kept = drafts.byCompressor[unit.id];
  const draft: PlanDraft = kept ?? { basedOn: saved.latest, plan: planParts(saved), saveId: '' };
  const { plan } = draft;
  const [unread, setUnread] = useState<ReadonlySet<string>>(new Set());
  /** Raised when tasks are taken anew from elsewhere, so that their forms begin anew. */
  const [round, setRound] = useState(0);
  const preview = usePlanPreview(unit.id, plan);
  const open = search.get('task');
  const change = (next: ServicePlan) =>
    drafts.keep(unit.id, { basedOn: draft.basedOn, plan: next, saveId: newId() });
  const takeAnew = (next: ServicePlan) => {
    change(next);
    setUnread(new Set());
    setRound(round + 1);
  };
  const setTask = (code: string, task: ServiceTask | null) => {
    const next = new Set(unread);
    if (task === null) next.add(code);
    else next.delete(code);
    setUnread(next);
    if (task) change({ ...plan, tasks: plan.tasks.map((one) => (one.code === code ? task : one)) });
  };
  const { path, beside } = stationsOf(unit);
  const groups = [...path, ...beside]
    .map(({ code }) => ({ code, tasks: plan.tasks.filter(({ station }) => station === code) }))
    .filter(({ tasks }) => tasks.length > 0);
  return (
    <WithSide
      width={380}
      side={
        <PlanSide
          unit={unit}
          saved={saved}
          timeZone={timeZone}
          draft={draft}
          isChanged={kept !== undefined}
          unread={unread.size}
          preview={preview}
          onTakeAnew={takeAnew}
          onRebase={() => drafts.keep(unit.id, { ...draft, basedOn: saved.latest })}
          onDrop={() => {
            drafts.drop(unit.id);
            setUnread(new Set());
            setRound(round + 1);
          }}
        />
      }
    >
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, minWidth: 0, ...touchTarget }}>
        <Typography variant="h1">
          Plan of{' '}
          <Box component={Link} to={`/units/${unit.id}`} sx={{ color: 'primary.main' }}>
            {unit.tag}
          </Box>
        </Typography>
        <Typography sx={{ color: 'text.secondary', mb: 1.5 }}>
          The maker’s manual beats common practice. What was due before stays as it was.
        </Typography>
        {groups.map(({ code, tasks }) => (
          <Box component="section" key={code} sx={{ mb: 1.75 }}>
            <Typography variant="body2" component="h2" sx={{ color: 'text.secondary' }}>
              {stationName(unit, code)}
            </Typography>
            {tasks.map((task) => (
              <TaskRow
                key={`${task.code} ${round}`}
                task={task}
                isOpen={open === task.code}
                onToggle={() => setSearch(open === task.code ? {} : { task: task.code }, { replace: true })}
              >
                <TaskEditor
                  task={task}
                  plan={plan}
                  unit={unit}
                  preview={preview.data}
                  timeZone={timeZone}
                  onTask={(next) => setTask(task.code, next)}
                  onOverride={(kind, override) => {
                    const own = { ...plan.overrides?.[task.code], [kind]: override ?? undefined };
                    const isEmpty = Object.values(own).every((one) => one === undefined);
                    const { [task.code]: _own, ...others } = plan.overrides ?? {};
                    change({ ...plan, overrides: isEmpty ? others : { ...others, [task.code]: own } });
                  }}
                  onRemove={() => change(withoutTask(plan, task.code))}
                />
              </TaskRow>
            ))}
          </Box>
        ))}
        <PlanPackages key={round} plan={plan} unit={unit} onPlan={change} />
      </Box>
    </WithSide>
  );
}

/** The plan without a task, and without what speaks of it. */
function withoutTask(plan: ServicePlan, code: string): ServicePlan {
  const { [code]: _own, ...overrides } = plan.overrides ?? {};
  const known = new Set(plan.tasks.flatMap((task) => (task.code === code ? [] : [task.code])));
  return {
    ...plan,
    ...(plan.packages ? { packages: packagesWithin(plan.packages, known) } : {}),
    overrides,
    tasks: plan.tasks
      .filter((task) => task.code !== code)
      .map((task) =>
        task.covers?.includes(code)
          ? { ...task, covers: task.covers.filter((other) => other !== code) }
          : task,
      ),
  };
}

interface TaskRowProps {
  readonly task: ServiceTask;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
  readonly children: React.ReactNode;
}

function TaskRow({ task, isOpen, onToggle, children }: TaskRowProps) {
  const format = useFormatQuantity();
  const row = useRef<HTMLDivElement>(null);
  const [wasOpen] = useState(isOpen);
  useEffect(() => {
    // Sent here about this task: it is what is to be seen.
    if (wasOpen) row.current?.scrollIntoView({ block: 'start' });
  }, [wasOpen]);
  const when = formatInterval(task, format);
  return (
    <Box ref={row} sx={{ borderBottom: 1, borderColor: 'divider', scrollMarginTop: '64px' }}>
      <ButtonBase
        onClick={onToggle}
        aria-expanded={isOpen}
        sx={{ width: '100%', minHeight: 46, gap: 1.5, textAlign: 'left', justifyContent: 'space-between' }}
      >
        <Typography sx={{ fontWeight: 600 }}>
          {task.name}
          {task.safety && (
            <Box component="span" sx={{ color: 'oxide', typography: 'caption', pl: 1 }}>
              safety
            </Box>
          )}
        </Typography>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1, minWidth: 0 }}>
          <Figure value={when} sx={{ fontSize: '0.92rem', whiteSpace: 'normal', textAlign: 'right' }} />
          <ExpandMoreIcon
            sx={{ transform: isOpen ? 'rotate(180deg)' : undefined, color: 'text.secondary' }}
          />
        </Stack>
      </ButtonBase>
      {isOpen && children}
    </Box>
  );
}
