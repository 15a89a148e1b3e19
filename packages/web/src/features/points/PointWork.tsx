import { Alert, Box, Button, Stack, Typography } from '@mui/material';
import { RecordPointWork, type PointView } from '@entretien/contracts';
import { formatDay, localDayAt } from '@entretien/core/basics';
import { checkByCode, judgeCheck, type CheckDefinition } from '@entretien/core/checks';
import {
  describeMissing,
  isolationOf,
  missingFor,
  pointRestartSteps,
  type IsolateBody,
} from '@entretien/core/isolation';
import {
  openedMoments,
  pointChecks,
  pointEvents,
  pointGuarded,
  pointTasks,
  POINT_SESSION,
  type PointTask,
} from '@entretien/core/points';
import { useState } from 'react';
import { sentenceOf } from '../../data/api.js';
import { currentInstant } from '../../data/clock.js';
import { usePreferences } from '../../data/preferences.js';
import { usePostOrKeep, useSettings } from '../../data/queries.js';
import { Caution } from '../../components/Caution.js';
import { IsolationGuide } from '../../components/isolation/IsolationGuide.js';
import { JudgedFields } from '../../components/checks/JudgedFields.js';
import type { CheckTexts } from '../../components/checks/check-entries.js';
import { useJudged } from '../../components/checks/use-judged.js';
import { Tick } from '../../components/Tick.js';
import { TickRow } from '../../components/TickRow.js';
import { VerdictMark } from '../../components/VerdictMark.js';
import { useNow } from '../../components/use-now.js';
import type { PointDraft } from './use-point-draft.js';

interface WorkProps {
  readonly point: PointView;
  readonly draft: PointDraft;
  readonly put: (changes: Partial<PointDraft>) => void;
  readonly onDone: () => void;
}

/** Work at a point of use: shut off and proved where it opens, done, looked at, its air back. */
export function PointWork({ point, draft, put, onDone }: WorkProps) {
  const { data: settings } = useSettings();
  const minute = useNow();
  const tasks = pointTasks(point).filter(({ code }) => draft.chosen.includes(code));
  const looks = draft.looks.map(({ check, at }) => ({ code: check, at }));
  const telling = { by: draft.by, tasks: draft.tasks, looks, steps: draft.steps };
  const events = pointEvents(telling);
  const guarded = pointGuarded(point.timeZone, settings?.isolationMinutes);
  const fold = isolationOf(guarded, events);
  const last = Math.max(0, ...events.map(({ doneAt }) => doneAt));
  const now = Math.max(minute, last);
  const asking = { at: now, by: draft.by, session: POINT_SESSION };
  const missing = missingFor(guarded, fold, ['point'], asking);
  const isOpening = tasks.some(({ opens }) => opens);
  const opened = openedMoments(point, telling);
  const back = draft.steps.findLast(({ body }) => body.kind === 'restart');
  const isShut = isOpening && draft.steps.length > 0;
  const isBack = back !== undefined && opened.every(({ at }) => at <= back.at);
  const post = usePostOrKeep<RecordPointWork, unknown>(RecordPointWork, `/points/${point.id}/work`, {
    tag: point.tag,
    timeZone: point.timeZone,
    text: `Work at point of use ${point.tag}`,
    page: `/points/${point.id}`,
  });
  // Two things told in one millisecond have no order of their own.
  const moment = () => Math.max(currentInstant(), last + 1);
  const record = (body: IsolateBody) => {
    put({ steps: [...draft.steps, { at: moment(), body }] });
    return Promise.resolve();
  };
  const save = () => void post.mutateAsync(tellingOf(draft, last)).then(onDone, () => undefined);
  const mayOpen = missing.length === 0 && !isBack;
  const isDone = draft.tasks.length + draft.looks.length > 0 || draft.note !== undefined;
  return (
    <Box component="section" aria-label="Work at it" sx={{ maxWidth: 640 }}>
      {isOpening && !isBack && (
        <Part title="Shut it off" hint="The compressor runs on: only this point is shut.">
          <Caution text={`When the air goes: ${point.whenAirGoes}.`} />
          <IsolationGuide
            here={{
              guarded,
              fold,
              by: draft.by,
              session: POINT_SESSION,
              opens: ['point'],
              now,
              record,
              onFound: (found) => put({ note: [draft.note, found].filter(Boolean).join('; ') }),
            }}
          />
        </Part>
      )}
      {tasks.length > 0 && (
        <Part title="Do it">
          {tasks.map((task) => (
            <TaskCard
              key={task.code}
              task={task}
              isDone={draft.tasks.some(({ code }) => code === task.code)}
              against={task.opens && !mayOpen ? describeAgainst(guarded.plate, missing, isBack) : null}
              onDone={() => put({ tasks: [...draft.tasks, { code: task.code, at: moment() }] })}
              onUndo={() => put({ tasks: draft.tasks.filter(({ code }) => code !== task.code) })}
            />
          ))}
        </Part>
      )}
      <Looks
        point={point}
        draft={draft}
        mayOpen={mayOpen}
        onLook={(look) => put({ looks: [...draft.looks, { ...look, at: moment() }] })}
      />
      {isShut && (
        <AirBack
          isBack={isBack}
          onBack={(steps) =>
            put({
              steps: [...draft.steps, { at: moment(), body: { kind: 'restart', scope: 'point', steps } }],
            })
          }
        />
      )}
      {draft.note !== undefined && (
        <Typography role="status" sx={{ fontWeight: 600, mb: 1 }}>
          Goes on record with it: {draft.note}
        </Typography>
      )}
      {post.error && (
        <Alert severity="error" variant="outlined" sx={{ mb: 1 }}>
          {sentenceOf(post.error)}
        </Alert>
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 1.5 }}>
        <Button
          variant="contained"
          size="large"
          disabled={!isDone || (isShut && !isBack) || post.isPending}
          onClick={save}
          sx={{ minHeight: 52, flex: { xs: 1, sm: 'none' }, px: 4 }}
        >
          Put it on record
        </Button>
        {(!isShut || (isBack && !isDone)) && (
          <Button onClick={onDone} sx={{ minHeight: 52 }}>
            Give it up
          </Button>
        )}
      </Stack>
      {isShut && !isBack && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
          Its air first: then it goes on record.
        </Typography>
      )}
    </Box>
  );
}

/** What is sent of a draft. */
function tellingOf({ id, tasks, looks, steps, note }: PointDraft, doneAt: number): RecordPointWork {
  const iso = (at: number) => new Date(at).toISOString();
  return {
    id,
    doneAt: iso(doneAt),
    ...(note === undefined ? {} : { note }),
    tasks: tasks.map(({ code, at }) => ({ code, at: iso(at) })),
    looks: looks.map(({ at, ...look }) => ({ ...look, at: iso(at) })),
    steps: steps.map(({ at, body }) => ({ at: iso(at), ...body })),
  } as RecordPointWork;
}

function describeAgainst(
  plate: Parameters<typeof describeMissing>[0],
  missing: Parameters<typeof describeMissing>[1],
  isBack: boolean,
): string {
  return isBack ? 'Its air is back: this would open it under pressure.' : describeMissing(plate, missing);
}

interface PartProps {
  readonly title: string;
  readonly hint?: string;
  readonly children: React.ReactNode;
}

function Part({ title, hint, children }: PartProps) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 2.5 }}>
      <Typography variant="h3" component="h2">
        {title}
      </Typography>
      {hint && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.75 }}>
          {hint}
        </Typography>
      )}
      {children}
    </Box>
  );
}

interface TaskCardProps {
  readonly task: PointTask;
  readonly isDone: boolean;
  /** Why it cannot be done yet. */
  readonly against: string | null;
  readonly onDone: () => void;
  readonly onUndo: () => void;
}

function TaskCard({ task, isDone, against, onDone, onUndo }: TaskCardProps) {
  return (
    <Box component="section" aria-label={task.name} sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.25, minHeight: 44 }}>
        {isDone && <Tick on size={24} />}
        <Typography sx={{ fontWeight: 650, flex: 1 }}>{task.name}</Typography>
        {isDone && (
          <Button onClick={onUndo} sx={{ minHeight: 44, color: 'text.secondary' }}>
            Undo
          </Button>
        )}
      </Stack>
      {!isDone && (
        <>
          <Box component="ol" sx={{ pl: 2.5, my: 0.5 }}>
            {task.how.map((step) => (
              <Typography component="li" key={step} variant="body2" sx={{ mb: 0.25 }}>
                {step}
              </Typography>
            ))}
          </Box>
          {task.caution && <Caution text={task.caution} />}
          <Button
            variant="contained"
            disabled={against !== null}
            onClick={onDone}
            sx={{ minHeight: 52, minWidth: 160 }}
          >
            Done
          </Button>
          {against !== null && (
            <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
              {against}
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}

interface LooksProps {
  readonly point: PointView;
  readonly draft: PointDraft;
  readonly mayOpen: boolean;
  readonly onLook: (look: { check: string; values: PointDraft['looks'][number]['values'] }) => void;
}

/** What was looked at so far, and what else can be. */
function Looks({ point, draft, mayOpen, onLook }: LooksProps) {
  const [open, setOpen] = useState<string | null>(null);
  const check = open === null ? undefined : checkByCode(open);
  return (
    <Part title="Look, or measure">
      {draft.looks.map((look) => (
        <Looked key={look.at} look={look} timeZone={point.timeZone} />
      ))}
      {check ? (
        <LookForm
          key={check.code}
          check={check}
          point={point}
          onSave={(values) => {
            onLook({ check: check.code, values });
            setOpen(null);
          }}
          onCancel={() => setOpen(null)}
        />
      ) : (
        <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
          {pointChecks(point)
            // An element is looked at in the hand: that needs it open.
            .filter((code) => code !== 'line-element' || mayOpen)
            .map((code) => (
              <Button key={code} variant="outlined" onClick={() => setOpen(code)} sx={{ minHeight: 48 }}>
                {checkByCode(code)?.name ?? code}
              </Button>
            ))}
        </Stack>
      )}
    </Part>
  );
}

interface LookedProps {
  readonly look: PointDraft['looks'][number];
  readonly timeZone: string;
}

/** What it came to, in the units that the person reads in. */
function Looked({ look, timeZone }: LookedProps) {
  const units = usePreferences((preferences) => preferences.units);
  const judged = judgeCheck(look.check, look.values, { on: formatDay(localDayAt(look.at, timeZone)), units });
  if (!judged.ok) return null;
  return (
    <Stack direction="row" sx={{ gap: 1.25, py: 0.5, alignItems: 'start' }}>
      <VerdictMark {...judged.value} />
      <Typography variant="body2" sx={{ flex: 1 }}>
        {judged.value.reason}
      </Typography>
    </Stack>
  );
}

interface LookFormProps {
  readonly check: CheckDefinition;
  readonly point: PointView;
  readonly onSave: (values: PointDraft['looks'][number]['values']) => void;
  readonly onCancel: () => void;
}

function LookForm({ check, point, onSave, onCancel }: LookFormProps) {
  const [texts, setTexts] = useState<CheckTexts>({});
  const judged = useJudged(check, texts, { at: currentInstant(), site: { timeZone: point.timeZone } });
  return (
    <Box
      component="form"
      noValidate
      aria-label={check.name}
      onSubmit={(event) => {
        event.preventDefault();
        if (judged.judgement) onSave(judged.values);
      }}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}
    >
      <Typography sx={{ fontWeight: 650 }}>{check.name}</Typography>
      <JudgedFields check={check} judged={judged} texts={texts} onTexts={setTexts} />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!judged.judgement} sx={{ minHeight: 48 }}>
          Save
        </Button>
        <Button onClick={onCancel} sx={{ minHeight: 48 }}>
          Cancel
        </Button>
      </Stack>
    </Box>
  );
}

interface AirBackProps {
  readonly isBack: boolean;
  readonly onBack: (steps: string[]) => void;
}

/** Its air back, everything before it named and ticked. */
function AirBack({ isBack, onBack }: AirBackProps) {
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const toggle = (code: string) =>
    setTicked(ticked.includes(code) ? ticked.filter((one) => one !== code) : [...ticked, code]);
  if (isBack)
    return (
      <Typography role="status" sx={{ fontWeight: 650, mb: 1 }}>
        Its air is back.
      </Typography>
    );
  return (
    <Part title="Its air back">
      {pointRestartSteps.map(({ code, name, hint }) => (
        <TickRow
          key={code}
          isOn={ticked.includes(code)}
          title={name}
          hint={hint}
          onPress={() => toggle(code)}
        />
      ))}
      <Button
        variant="contained"
        disabled={pointRestartSteps.some(({ code }) => !ticked.includes(code))}
        onClick={() => onBack([...ticked])}
        sx={{ minHeight: 52, mt: 1 }}
      >
        Its air is back
      </Button>
    </Part>
  );
}
