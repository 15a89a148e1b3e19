import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { inNamesOfToday, type CompressorView, type PlanView, type StandingView } from '@entretien/contracts';
import {
  fitPlan,
  planFileOf,
  planParts,
  practicesFor,
  withPractice,
  type PlanFile,
  type ServicePlan,
} from '@entretien/core/plan';
import { families } from '@entretien/core/machine';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, putJson, sentenceOf } from '../../data/api.js';
import { refresh, useStanding } from '../../data/queries.js';
import { PickFile } from '../../components/PickFile.js';
import { describeDue } from '../../components/describe-due.js';
import { familyName } from '../../components/plate-fields.js';
import { CopyPlanDialog } from './CopyPlanDialog.js';
import { Differences } from './Differences.js';
import type { PlanDraft } from './plan-draft.js';
import { PracticeOnly } from './PracticeOnly.js';
import { Practices } from './Practices.js';
import { touchTarget } from './touch-target.js';
import type { usePlanPreview } from './use-plan-preview.js';

interface SideProps {
  readonly unit: CompressorView;
  readonly saved: PlanView;
  readonly timeZone: string;
  readonly draft: PlanDraft;
  readonly isChanged: boolean;
  /** Tasks with something typed that is not understood. */
  readonly unread: number;
  readonly preview: ReturnType<typeof usePlanPreview>;
  readonly onTakeAnew: (plan: ServicePlan) => void;
  readonly onRebase: () => void;
  readonly onDrop: () => void;
}

/** What changes, saving it, and the ways to choose from. */
export function PlanSide({
  unit,
  saved,
  timeZone,
  draft,
  isChanged,
  unread,
  preview,
  onTakeAnew,
  onRebase,
  onDrop,
}: SideProps) {
  const [note, setNote] = useState('');
  const { problem, setProblem, isSending, save } = useSavePlan(unit.id, draft, onDrop);
  const [isCopying, setIsCopying] = useState(false);
  const standing = useStanding(unit.id);
  const moves = movesOf(standing.data, preview.data?.standing, timeZone);
  const isStale = draft.basedOn !== saved.latest;
  const problems = preview.data?.problems ?? [];
  const differences = preview.data?.differences ?? [];
  return (
    <Box
      sx={{
        px: { xs: 2, md: 2.75 },
        py: 2,
        // What changes and its button stay in sight however long the plan is.
        position: { md: 'sticky' },
        top: 52,
        maxHeight: { md: 'calc(100vh - 52px)' },
        overflowY: { md: 'auto' },
        ...touchTarget,
      }}
    >
      <Typography variant="h2">{isChanged ? 'What changes' : `Version ${saved.version}`}</Typography>
      {isChanged ? (
        <Stack spacing={1.25} sx={{ mt: 0.5 }}>
          {preview.isError ? (
            <Alert severity="error" variant="outlined">
              {sentenceOf(preview.error)}
            </Alert>
          ) : (
            <Differences
              differences={differences}
              moves={moves}
              none="Nothing yet: it says the same as before."
            />
          )}
          <Doubts
            problems={problems}
            isUnread={unread > 0}
            newer={isStale ? saved.latest : null}
            begunOn={draft.basedOn}
            problem={problem}
            onRebase={onRebase}
          />
          <TextField
            size="small"
            label="Note"
            value={note}
            onChange={(event) => setNote(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <Stack direction="row" spacing={1}>
            <Button
              variant="contained"
              disabled={isSending || unread > 0 || problems.length > 0 || preview.isError || isStale}
              onClick={() => void save(note)}
            >
              Save as version {saved.latest + 1}
            </Button>
            <Button onClick={onDrop}>Discard</Button>
          </Stack>
        </Stack>
      ) : (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          In force since {saved.effectiveAt.slice(0, 10)}.{saved.note ? ` ${saved.note}` : ''} Change an
          interval, or choose another way below.
        </Typography>
      )}
      {!isChanged && <PracticeOnly plan={saved} />}
      <Stack direction="row" spacing={0.5} sx={{ my: 1.5, flexWrap: 'wrap' }}>
        <Button size="small" onClick={() => setIsCopying(true)}>
          Copy to others
        </Button>
        <Button size="small" onClick={() => download(unit, draft.plan)}>
          Export
        </Button>
        <ImportButton unit={unit} onPlan={onTakeAnew} onProblem={setProblem} />
      </Stack>
      {!isChanged && problem && (
        <Alert severity="error" variant="outlined" sx={{ mb: 1.5 }}>
          {problem}
        </Alert>
      )}
      <Practices
        practices={practicesFor(unit, draft.plan.choices)}
        onChoose={(practice, option) => onTakeAnew(withPractice(draft.plan, unit, practice, option))}
      />
      {isCopying && <CopyPlanDialog unit={unit} plan={draft.plan} onClose={() => setIsCopying(false)} />}
    </Box>
  );
}

/** Saves what was changed against the version that it was begun on. */
function useSavePlan(compressorId: string, draft: PlanDraft, onSaved: () => void) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const [isSending, setIsSending] = useState(false);
  const save = async (note: string) => {
    setIsSending(true);
    setProblem(null);
    try {
      const body = {
        id: draft.saveId,
        ...planParts(draft.plan),
        ...(note.trim() ? { note: note.trim() } : {}),
      };
      await putJson(`/compressors/${compressorId}/plan`, body, draft.basedOn);
      onSaved();
      await refresh(client);
      void navigate(`/units/${compressorId}`);
    } catch (error) {
      if (error instanceof ApiProblem && error.problem.status === 412) await refresh(client);
      setProblem(sentenceOf(error));
    } finally {
      setIsSending(false);
    }
  };
  return { problem, setProblem, isSending, save };
}

interface DoubtsProps {
  readonly problems: readonly { readonly sentence: string }[];
  readonly isUnread: boolean;
  /** A version that was saved since this one was begun. */
  readonly newer: number | null;
  readonly begunOn: number;
  readonly problem: string | null;
  readonly onRebase: () => void;
}

/** What stands in the way of saving. */
function Doubts({ problems, isUnread, newer, begunOn, problem, onRebase }: DoubtsProps) {
  return (
    <>
      {problems.map(({ sentence }) => (
        <Alert key={sentence} severity="error" variant="outlined">
          {sentence}
        </Alert>
      ))}
      {isUnread && (
        <Alert severity="warning" variant="outlined">
          Something typed is not understood yet; see the fields marked red.
        </Alert>
      )}
      {newer !== null && (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button color="inherit" onClick={onRebase}>
              Keep mine
            </Button>
          }
        >
          Version {newer} was saved meanwhile; you changed version {begunOn}. What changes is told against the
          one in force.
        </Alert>
      )}
      {problem && (
        <Alert severity="error" variant="outlined">
          {problem}
        </Alert>
      )}
    </>
  );
}

/** How the next date of each task moves from one standing to another. */
function movesOf(
  before: StandingView | undefined,
  after: StandingView | undefined,
  timeZone: string,
): ReadonlyMap<string, string> {
  if (!before || !after) return new Map();
  const old = new Map(before.tasks.map((task) => [task.code, task]));
  return new Map(
    after.tasks.flatMap((task) => {
      const was = old.get(task.code);
      if (!was || (was.likelyOn === task.likelyOn && was.dueAtHours === task.dueAtHours)) return [];
      const at = Date.parse(after.at);
      const { meter } = after;
      const format = (one: typeof task) => {
        const { exact, short } = describeDue(one, at, timeZone, meter);
        return exact || short;
      };
      return [[task.code, `${format(was)} → ${format(task)}`] as const];
    }),
  );
}

function download(unit: CompressorView, plan: ServicePlan): void {
  const text = JSON.stringify(
    planFileOf(plan, unit.family, `${unit.tag} ${unit.model ?? ''}`.trim()),
    null,
    2,
  );
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `plan-${unit.tag}.json`;
  link.click();
  URL.revokeObjectURL(url);
}

interface ImportButtonProps {
  readonly unit: CompressorView;
  readonly onPlan: (plan: ServicePlan) => void;
  readonly onProblem: (sentence: string | null) => void;
}

const LARGEST_FILE = 1_000_000;

/** What a file holds, in the names of today; undefined when it is no JSON. */
async function readJson(file: File): Promise<Partial<PlanFile> | null | undefined> {
  try {
    return inNamesOfToday(JSON.parse(await file.text())) as Partial<PlanFile> | null;
  } catch {
    return undefined;
  }
}

/** Enough of a task to show it; the rest is the server's to judge. */
function isTask(task: unknown): boolean {
  const { code, station, triggers } = (task ?? {}) as Record<string, unknown>;
  return typeof code === 'string' && typeof station === 'string' && Array.isArray(triggers);
}

/** Takes a plan out of a file into the draft; what is wrong with it is told before it is saved. */
function ImportButton({ unit, onPlan, onProblem }: ImportButtonProps) {
  const read = async (file: File) => {
    onProblem(null);
    if (file.size > LARGEST_FILE) return onProblem('That file is too large for a plan.');
    const parsed = await readJson(file);
    if (parsed === undefined) return onProblem('That file cannot be read as a plan: it is no JSON.');
    if (parsed?.format !== 'entretien-plan' || !parsed.tasks?.every?.(isTask)) {
      return onProblem('That is no plan: it does not say "format": "entretien-plan" with a list of tasks.');
    }
    if (parsed.version !== 1) return onProblem('That plan is of a later version than this one can read.');
    if (parsed.family !== unit.family) {
      const theirs = families.find((family) => family === parsed.family);
      return onProblem(
        theirs === undefined
          ? 'That plan does not say what family of machines it is for.'
          : `That is a plan for the family “${familyName(theirs)}”; ${unit.tag} is of “${familyName(unit.family)}”.`,
      );
    }
    onPlan(fitPlan(planParts(parsed as PlanFile), unit).plan);
  };
  return (
    <PickFile
      size="small"
      label="A plan as a file"
      accept="application/json,.json"
      onFile={(file) => void read(file)}
    >
      Import
    </PickFile>
  );
}
