import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import {
  RecordMeasurement,
  RecordReading,
  RegisterCompressor,
  type CompressorView,
  type PlanView,
  type ReadingView,
} from '@entretien/contracts';
import { plateProblems, type DataPlate, type Family } from '@entretien/core/machine';
import { defaultPlan } from '@entretien/core/plan';
import { useEffect, useState } from 'react';
import { useForm, useWatch, type Path, type UseFormReturn, type UseFormSetError } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { formatDay, localDayAt } from '@entretien/core/basics';
import { currentInstant, currentInstantText, deviceZone } from '../../data/clock.js';
import { ApiProblem, putJson } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { emptyEntry, type QuantityEntry } from '../../components/QuantityField.js';
import {
  allPlateGroups,
  fieldsFor,
  fitFields,
  hourFields,
  placeFields,
  plateGroups,
} from '../../components/plate-fields.js';
import { useNewCompressorDraft, type NewCompressorDraft } from './draft.js';
import { describeCommissioned } from './siting.js';

/** In the order of the work; at the fifth the machine goes into the register. */
export const steps = ['Machine', 'Plate', 'Place', 'First run', 'Hours', 'Baseline'] as const;
export const HOURS_STEP = 4;
const FIRST_RUN = 3;

/** Steps that a machine goes through: one that is taken over had its first run long ago. */
export function stepsFor(history: string): readonly number[] {
  const all = steps.map((_name, index) => index);
  return history === 'unknown' ? all.filter((step) => step !== FIRST_RUN) : all;
}

/** The fields of each step, to be checked before the next. */
function fieldsOfStep(step: number, family: Family): Path<RegisterCompressor>[] {
  if (step === 0) return ['siteId', 'tag', 'family', 'commissionedOn', 'history'];
  if (step === 1)
    return plateGroups.flatMap((group) => fieldsFor(group.fields, family).map((field) => field.name));
  if (step === 2) return [...placeFields, ...fitFields].map((field) => field.name);
  if (step === FIRST_RUN) return [];
  return hourFields.map((field) => field.name);
}

/** Commissioning as it goes on: what is typed, kept over a reload, and put into the register at the fifth step. */
export function useCommissioning() {
  const draft = useNewCompressorDraft();
  const navigate = useNavigate();
  const [reading, setReading] = useState<QuantityEntry>(emptyEntry);
  const form = useForm<RegisterCompressor>({
    defaultValues: { family: 'piston', history: 'new', ...draft.values, id: draft.id },
    resolver: classValidatorResolver(RegisterCompressor),
    mode: 'onTouched',
  });
  const { keep } = draft;
  const values = useWatch({ control: form.control }) as RegisterCompressor;
  useEffect(() => {
    // What is not understood stays in its field; only what is understood is kept for after a reload.
    keep({ values: understood(values) });
  }, [values, keep]);
  useRecordFromToday(form, values);
  const register = usePost<object, CompressorView>(RegisterCompressor, '/compressors');
  const firstReading = usePost<object, ReadingView>(RecordReading, `/compressors/${draft.id}/readings`);
  const { family } = values;
  const { step } = draft;

  const plate = plateOf(values);
  const firstRun = useFirstRun(draft, plate);

  const go = async (asked: number) => {
    const order = stepsFor(plate.history);
    const to = order.includes(asked) ? asked : asked > step ? asked + 1 : asked - 1;
    // What is in the register already is changed on its own page.
    if (draft.isRegistered || to > HOURS_STEP) return;
    const isSound = step !== 1 || plateProblems(plate).length === 0;
    if (to <= step || ((await form.trigger(fieldsOfStep(step, family))) && isSound)) keep({ step: to });
  };
  const leave = () => {
    const { id } = draft;
    draft.clear();
    void navigate(`/units/${id}`);
  };
  const finish = form.handleSubmit(async (checked) => {
    // One moment for all that was found, made once: sent again it is the same fact.
    const startedAt = draft.startedAt || currentInstantText();
    keep({ startedAt });
    try {
      if (!draft.isRegistered) {
        const note = describeCommissioned(plate, draft.seenTo);
        const body = { ...understood(ofFamily(checked)), id: draft.id, ...(note ? { note } : {}) };
        await register.mutateAsync(body);
        keep({ isRegistered: true });
      }
      await firstRun.record(startedAt);
      if (reading.value !== null)
        await firstReading.mutateAsync(readingOf(draft.readingId, startedAt, reading.value));
    } catch (error) {
      if (error instanceof ApiProblem)
        showProblems(error, form.setError, family, (first) => keep({ step: first }));
      return;
    }
    keep({ step: HOURS_STEP + 1 });
  });
  const discard = () => {
    draft.clear();
    void navigate('/units');
  };
  return {
    form,
    draft,
    plate,
    reading,
    setReading,
    problem: register.error ?? firstRun.problem ?? firstReading.error ?? null,
    isSending: register.isPending || firstRun.isSending || firstReading.isPending,
    go,
    finish,
    leave,
    discard,
  };
}

function readingOf(id: string, takenAt: string, hours: number) {
  return { id, takenAt, hours, counts: 'total', source: 'typed' };
}

/** Nobody knows when a machine that is taken over was commissioned: its record begins today. */
function useRecordFromToday(
  { setValue }: UseFormReturn<RegisterCompressor>,
  { history, commissionedOn }: RegisterCompressor,
): void {
  useEffect(() => {
    if (history === 'unknown' && !commissionedOn)
      setValue('commissionedOn', formatDay(localDayAt(currentInstant(), deviceZone())));
  }, [history, commissionedOn, setValue]);
}

/** What was found at the first run; sent again after a refusal it is recorded once. */
function useFirstRun(draft: NewCompressorDraft, plate: DataPlate) {
  const rotation = usePost<object, unknown>(RecordMeasurement, `/compressors/${draft.id}/measurements`);
  const [planProblem, setPlanProblem] = useState<unknown>(null);
  const record = async (takenAt: string) => {
    if (plate.history === 'unknown') return;
    const isThreePhase = plate.motor === undefined || plate.motor === 'three-phase';
    if (isThreePhase && draft.turns !== '') {
      await rotation.mutateAsync({
        id: draft.rotationId,
        check: 'rotation',
        takenAt,
        values: { turns: draft.turns },
      });
    }
    if (draft.breakIn === '') return;
    setPlanProblem(null);
    try {
      const plan = defaultPlan(plate, { 'break-in': draft.breakIn });
      await putJson<PlanView>(`/compressors/${draft.id}/plan`, { id: draft.planId, ...plan }, 1);
    } catch (error) {
      setPlanProblem(error);
      throw error;
    }
  };
  return { record, problem: rotation.error ?? planProblem, isSending: rotation.isPending };
}

/** Puts what the server said beside its field, and turns to the step of the first. */
function showProblems(
  error: ApiProblem,
  setError: UseFormSetError<RegisterCompressor>,
  family: Family,
  onStep: (step: number) => void,
): void {
  const errors = error.problem.errors ?? [];
  for (const { field, message } of errors) setError(field as Path<RegisterCompressor>, { message });
  const first = [0, 1, 2, 3, HOURS_STEP].find((one) =>
    errors.some(({ field }) => fieldsOfStep(one, family).includes(field as Path<RegisterCompressor>)),
  );
  if (first !== undefined) onStep(first);
}

/** The plate as far as it is typed, for reckoning with. */
function plateOf(values: RegisterCompressor): DataPlate {
  return { commissionedOn: '', tag: '', siteId: '', ...understood(ofFamily(values)) } as unknown as DataPlate;
}

/** Leaves out what is empty or not understood. */
function understood(values: object): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(values).filter(
      ([, value]) => value !== undefined && value !== null && value !== '' && !Number.isNaN(value),
    ),
  );
}

const plateFields = allPlateGroups.flatMap((group) => group.fields);

/** Leaves out what was typed for another family before this one was chosen. */
function ofFamily(values: RegisterCompressor): object {
  const belongs = new Set<string>(fieldsFor(plateFields, values.family).map((field) => field.name));
  const isPlateField = new Set<string>(plateFields.map((field) => field.name));
  return Object.fromEntries(
    Object.entries(values).filter(([name]) => !isPlateField.has(name) || belongs.has(name)),
  );
}
