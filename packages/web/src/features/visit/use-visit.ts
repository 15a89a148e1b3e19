import type { StepOutcome, VisitStepView, VisitCompressorView, VisitView } from '@entretien/contracts';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import {
  guardedOf,
  isolationAt,
  missingIsolation,
  progressOf,
  namesOn,
  stepText,
  type StepBody,
  type CompressorProgress,
  type VisitStep,
  type VisitCompressor,
} from '@entretien/core/visit';
import { packagesOf, packagesToOffer, type ServicePackage } from '@entretien/core/plan';
import type { Guarded, IsolationFold, Missing } from '@entretien/core/isolation';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { v7 as newId } from 'uuid';
import { create } from 'zustand';
import { usePreferences } from '../../data/preferences.js';
import { currentInstant } from '../../data/clock.js';
import { getJson } from '../../data/api.js';
import { onStepTaken, putOrHold, useOutbox } from '../../data/outbox/outbox.js';
import type { OutboxItem } from '../../data/outbox/outbox-item.js';
import { forgetTaken, takenOf } from '../../data/outbox/outbox-store.js';
import { useNow } from '../../components/use-now.js';
import { mergeSteps } from './visit-steps.js';
import { SESSION } from '../../data/session.js';

/** Steps that the server took since it last told of the visit. */
const useTaken = create<{ readonly steps: readonly VisitStepView[] }>()(() => ({ steps: [] }));

function addTaken(steps: readonly VisitStepView[]): void {
  useTaken.setState((before) => {
    const known = new Set(before.steps.map(({ id }) => id));
    return { steps: [...before.steps, ...steps.filter(({ id }) => !known.has(id))] };
  });
}

const visitKey = (id: string) => ['visit', id];

/** A visit with everything needed to go through it; what was kept on this device when nobody answers. */
export function useVisit(visitId: string) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: visitKey(visitId),
    queryFn: async () => {
      const visit = await getJson<VisitView>(`/visits/${visitId}`);
      const answered = new Set(visit.units.flatMap(({ steps }) => steps.map(({ id }) => id)));
      // An answer that was kept may be older than what the server took since.
      const taken = await takenOf(visitId).catch(() => []);
      await forgetTaken(taken.filter(({ id }) => answered.has(id)).map(({ id }) => id)).catch(
        () => undefined,
      );
      addTaken(taken.filter(({ id }) => !answered.has(id)));
      return visit;
    },
    retry: false,
    staleTime: 60_000,
  });
  useEffect(
    () =>
      onStepTaken((step) => {
        if (step.visitId !== visitId) return;
        addTaken([step]);
        // A signature moves the schedule: what comes next is asked for anew.
        if (step.kind === 'sign') void client.invalidateQueries({ queryKey: visitKey(visitId) });
      }),
    [visitId, client],
  );
  return query;
}

/** One unit of a visit as it stands on this device, and the way to tell of more. */
export interface CompressorAtWork {
  readonly visit: VisitView;
  readonly view: VisitCompressorView;
  readonly unit: VisitCompressor;
  /** What is done together on this machine. */
  readonly packages: readonly ServicePackage[];
  readonly steps: readonly VisitStep[];
  readonly progress: CompressorProgress;
  readonly guarded: Guarded;
  readonly isolation: IsolationFold;
  readonly by: string;
  readonly session: string;
  readonly now: number;
  /** What the server would not take; it waits in the tray. */
  readonly refused: readonly OutboxItem[];
  readonly nameOf: (code: string) => string;
  /** Which isolation steps something needs, and that do not hold now. */
  readonly missingFor: (body: StepBody) => readonly Missing[];
  readonly record: (
    body: StepBody,
    more?: { readonly outcome?: StepOutcome; readonly text?: string },
  ) => Promise<void>;
  readonly sendPhoto: (photo: Blob, station: string | undefined, caption: string) => Promise<void>;
}

export function useCompressorAtWork(visit: VisitView, view: VisitCompressorView): CompressorAtWork {
  const { items } = useOutbox();
  const taken = useTaken(({ steps }) => steps);
  const personId = usePreferences((preferences) => preferences.personId);
  // The minute of the page's clock is too coarse for a step told a second ago.
  const now = Math.max(useNow(), ...view.steps.slice(-1).map(({ doneAt }) => Date.parse(doneAt)));
  const { compressorId, plate, plan, planned, elsewhere, pauseMinutes, stops } = view;
  const { timeZone } = visit;
  const unit = useMemo(
    () => ({ plate, plan, planned, elsewhere, pauseMinutes, timeZone, stops: stops.map(({ why }) => why) }),
    [plate, plan, planned, elsewhere, pauseMinutes, timeZone, stops],
  );
  const steps = useMemo(
    () => mergeSteps(compressorId, view.steps, taken, items),
    [compressorId, view.steps, taken, items],
  );
  const progress = useMemo(() => progressOf(unit, steps), [unit, steps]);
  const by = personId ?? DEFAULT_PERSON_ID;
  const at = Math.max(now, steps.at(-1)?.doneAt ?? 0);
  const isolation = useMemo(() => isolationAt(unit, steps, at), [unit, steps, at]);
  const shared = {
    compressorId,
    tag: view.tag,
    siteId: visit.siteId,
    timeZone: visit.timeZone,
    personId,
    visitId: visit.id,
    problem: null,
  };
  const record: CompressorAtWork['record'] = async (body, { outcome, text } = {}) => {
    const id = newId();
    const happened = Math.max(currentInstant(), (steps.at(-1)?.doneAt ?? 0) + 1);
    const { kind, ...all } = body;
    const { verdict: _verdict, noComparison: _none, reason, ...rest } = all as Record<string, unknown>;
    const details = kind === 'measure' || reason === undefined ? rest : { ...rest, reason };
    await putOrHold({
      ...shared,
      id,
      kind: 'visit-step',
      text: text ?? stepText(body, namesOn(plate, plan)),
      queuedAt: happened,
      ...(outcome ? { outcome } : {}),
      body: { id, compressorId, kind, doneAt: new Date(happened).toISOString(), session: SESSION, details },
    });
  };
  return {
    visit,
    view,
    unit,
    packages: packagesToOffer(view.packages ?? packagesOf({ tasks: plan }, plate), plan, view.standing.tasks),
    steps,
    progress,
    guarded: guardedOf(unit),
    isolation,
    by,
    session: SESSION,
    now: Math.max(now, at),
    refused: items.filter(
      (item) => item.visitId === visit.id && item.compressorId === compressorId && item.problem !== null,
    ),
    nameOf: (code) => plan.find((task) => task.code === code)?.name ?? code,
    missingFor: (body) =>
      missingIsolation(unit, steps, { body, doneAt: Math.max(currentInstant(), at), by, session: SESSION }),
    record,
    sendPhoto: async (photo, station, caption) => {
      const id = newId();
      await putOrHold({
        ...shared,
        id,
        kind: 'photo',
        text: 'A photo',
        photo,
        queuedAt: currentInstant(),
        body: {},
      });
      await record(photoTaken(id, station, caption));
    },
  };
}

function photoTaken(photo: string, station: string | undefined, caption: string): StepBody {
  const of = station === undefined ? {} : { station };
  return { kind: 'photo', photo, ...(caption === '' ? {} : { caption }), ...of };
}
