import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import { checkByCode } from '@entretien/core/checks';
import { isLockedBy, isOfPointOfUse, pointRestartSteps, restartSteps } from '@entretien/core/isolation';
import { worthMeasuring, type VisitTask } from '@entretien/core/visit';
import { useState } from 'react';
import { ActionAlert } from '../../components/ActionAlert.js';
import { MeasureCard } from './MeasureCard.js';
import { ReasonDialog } from './ReasonDialog.js';
import { TickRow } from '../../components/TickRow.js';
import { plannedTasks } from './phases.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';

/** Back to power and air, and the proof that the work helped. */
export function ProvePhase({ atWork, onGo }: PhaseProps) {
  const { progress } = atWork;
  const [closing, setClosing] = useState<VisitTask | null>(null);
  const done = progress.tasks.filter(({ outcome }) => outcome === 'done');
  const verifications = done.flatMap((task) => task.verifications);
  const needsLeakCheck = verifications.some(({ verification }) => verification.kind === 'tight');
  const checks = [
    ...new Set(
      verifications.flatMap(({ verification }) =>
        verification.kind === 'tight' ? [] : [verification.anyOf[0]!],
      ),
    ),
  ];
  // What was taken before for comparison is offered after, too.
  const taken = worthMeasuring(plannedTasks(atWork), atWork.unit.plate).filter((check) =>
    progress.measured.some((one) => one.check === check && one.phase === 'before'),
  );
  const waiting = done.filter(({ verification }) => verification === 'missing' || verification === 'failed');
  const needsRestart =
    isLockedBy(atWork.isolation, atWork.by) ||
    progress.obstacles.some(({ code }) => code === 'not-restarted');
  const isPointShut = [...atWork.isolation.held.keys()].some((key) => isOfPointOfUse(key));
  const isProved = waiting.length === 0 && !needsRestart;
  return (
    <>
      {isPointShut && <Restart atWork={atWork} scope="point" />}
      {needsRestart && <Restart atWork={atWork} />}
      {!needsRestart && needsLeakCheck && <LeakCheck atWork={atWork} />}
      {!needsRestart &&
        checks.map((check) => (
          <MeasureCard key={check} atWork={atWork} check={check} phase="proof" isOpen={isOpen(done, check)} />
        ))}
      {!needsRestart &&
        taken.map((check) => <MeasureCard key={check} atWork={atWork} check={check} phase="proof" />)}
      {verifications.length === 0 && (
        <Typography sx={{ mb: 1 }}>
          {done.length === 0
            ? 'Nothing is done yet that wants proving.'
            : 'Nothing of this work shows in a reading. Listen to it run.'}
        </Typography>
      )}
      {!needsRestart &&
        waiting.map((task) => (
          <ActionAlert
            key={task.code}
            severity={task.verification === 'failed' ? 'error' : 'info'}
            way="Close with a reason"
            onGo={() => setClosing(task)}
          >
            <strong>{atWork.nameOf(task.code)}:</strong>{' '}
            {task.verification === 'failed'
              ? 'the proof failed. The service stays open: fix it and check it again, or close it with a reason.'
              : `not proved yet. ${missingText(task)}`}
          </ActionAlert>
        ))}
      {progress.tasks
        .filter(({ verification }) => verification === 'closed')
        .map(({ code, closedBecause }) => (
          <Typography key={code} variant="body2" sx={{ mt: 1, color: 'brass' }}>
            {atWork.nameOf(code)}: closed without its proof. {closedBecause}
          </Typography>
        ))}
      <Box sx={{ height: 16 }} />
      <PhaseFooter about={isProved ? 'Everything that was done is proved.' : undefined}>
        <Button variant={isProved ? 'contained' : 'outlined'} onClick={() => onGo('sign')}>
          To the signature
        </Button>
      </PhaseFooter>
      {closing && (
        <ReasonDialog
          title={`Close without proof: ${atWork.nameOf(closing.code)}`}
          usual={['It cannot run today', 'No instrument at hand', 'Proved by the customer’s own reading']}
          submit="Close it"
          onReason={(reason) => atWork.record({ kind: 'close', task: closing.code, reason })}
          onClose={() => setClosing(null)}
        />
      )}
    </>
  );
}

function isOpen(done: readonly VisitTask[], check: string): boolean {
  return done.some(({ verifications }) =>
    verifications.some(
      ({ verification, state }) =>
        verification.kind !== 'tight' && verification.anyOf[0] === check && state === 'missing',
    ),
  );
}

function missingText({ verifications }: VisitTask): string {
  const missing = verifications.filter(({ state }) => state === 'missing');
  const text = missing.map(({ verification }) =>
    verification.kind === 'tight'
      ? 'the look at the joints'
      : verification.anyOf.map((code) => checkByCode(code)?.name ?? code).join(' or '),
  );
  return `Missing: ${text.join(', ')}.`;
}

/** Everything that stands between an open machine and a running one. */
function Restart({ atWork, scope }: Pick<PhaseProps, 'atWork'> & { readonly scope?: 'point' }) {
  const steps = scope === 'point' ? pointRestartSteps : restartSteps(atWork.unit.plate);
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set());
  const toggle = (code: string) => {
    const next = new Set(gone);
    if (!next.delete(code)) next.add(code);
    setGone(next);
  };
  const isReady = steps.every(({ code }) => gone.has(code));
  return (
    <Box component="section" aria-label={scope === 'point' ? 'Air back' : 'Restart'} sx={{ mb: 2 }}>
      <Typography variant="h2">
        {scope === 'point' ? 'Before the point of use gets its air back' : 'Before it starts'}
      </Typography>
      {steps.map(({ code, name, hint }) => (
        <TickRow key={code} isOn={gone.has(code)} title={name} hint={hint} onPress={() => toggle(code)} />
      ))}
      <Button
        variant="contained"
        disabled={!isReady}
        onClick={() =>
          void atWork.record({ kind: 'restart', steps: [...gone], ...(scope === undefined ? {} : { scope }) })
        }
        sx={{ mt: 1.5, minHeight: 48 }}
      >
        {scope === 'point' ? 'It has air again' : 'It runs again'}
      </Button>
    </Box>
  );
}

/** The joints at full working pressure: what is tight low can leak at the top. */
function LeakCheck({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const [text, setText] = useState('');
  const [isLeaking, setLeaking] = useState(false);
  const last = atWork.steps.findLast(({ body }) => body.kind === 'tight')?.body;
  const leakCheck = last?.kind === 'tight' ? last : null;
  return (
    <Box component="section" aria-label="Tightness" sx={{ py: 1.25, borderTop: 1, borderColor: 'divider' }}>
      <Typography variant="h3" component="h2">
        Every joint that was opened, at full working pressure
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Soapy water or ultrasonic. Stand aside, and never tighten a joint under pressure.
      </Typography>
      {leakCheck && (
        <Typography sx={{ fontWeight: 650, color: leakCheck.tight ? 'slate' : 'oxide', mb: 0.5 }}>
          {leakCheck.tight ? 'Tight.' : `It leaks. ${leakCheck.text ?? ''}`}
        </Typography>
      )}
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button
          variant={leakCheck?.tight ? 'text' : 'contained'}
          onClick={() => void atWork.record({ kind: 'tight', tight: true })}
          sx={{ minHeight: 48 }}
        >
          {leakCheck?.tight ? 'Looked again: tight' : 'All tight'}
        </Button>
        <Button variant="outlined" color="error" onClick={() => setLeaking(true)} sx={{ minHeight: 48 }}>
          It leaks
        </Button>
      </Stack>
      {isLeaking && (
        <Stack
          component="form"
          direction="row"
          sx={{ gap: 1, mt: 1 }}
          onSubmit={(event) => {
            event.preventDefault();
            const where = text.trim();
            void atWork
              .record({ kind: 'tight', tight: false, ...(where === '' ? {} : { text: where }) })
              .then(() => setLeaking(false));
          }}
        >
          <TextField
            label="Where"
            value={text}
            onChange={(event) => setText(event.target.value)}
            size="small"
            autoFocus
            fullWidth
            slotProps={{ htmlInput: { maxLength: 500 } }}
          />
          <Button type="submit" variant="outlined" color="error" sx={{ minHeight: 44 }}>
            Save
          </Button>
        </Stack>
      )}
    </Box>
  );
}
