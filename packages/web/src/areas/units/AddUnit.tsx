import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Alert, Box, Button, Stack, Step, StepButton, Stepper, Typography } from '@mui/material';
import {
  RegisterCompressor,
  type CompressorView,
  type PlanView,
  type ReadingView,
} from '@entretien/contracts';
import { plateProblems, type DataPlate, type Family } from '@entretien/core/machine';
import { defaultPlan } from '@entretien/core/plan';
import { useEffect, useState } from 'react';
import { useForm, useWatch, type Path } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { currentInstantText } from '../../data/clock.js';
import { ApiProblem, putJson, sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { PlanTasks } from '../unit/PlanPanel.js';
import { emptyEntry, type QuantityEntry } from '../../parts/QuantityField.js';
import {
  allPlateGroups,
  fieldsFor,
  fitFields,
  hourFields,
  placeFields,
  plateGroups,
} from '../../parts/plate-fields.js';
import { useNewCompressorDraft } from './draft.js';
import { Hours, Plate, WhichMachine } from './AddUnitSteps.js';
import { Baseline, FirstRun, Place, PlateSanity } from './CommissionSteps.js';
import { describeCommissioned } from './siting.js';
import { WithSide } from '../../parts/WithSide.js';

/** In the order of the work; at the fifth the machine goes into the register. */
const steps = ['Machine', 'Plate', 'Place', 'First run', 'Hours', 'Baseline'] as const;
const HOURS_STEP = 4;

/** The fields of each step, to be checked before the next. */
function fieldsOfStep(step: number, family: Family): Path<RegisterCompressor>[] {
  if (step === 0) return ['siteId', 'tag', 'family', 'commissionedOn', 'history'];
  if (step === 1)
    return plateGroups.flatMap((group) => fieldsFor(group.fields, family).map((field) => field.name));
  if (step === 2) return placeFields.map((field) => field.name);
  if (step === 3) return fitFields.map((field) => field.name);
  return hourFields.map((field) => field.name);
}

/** Commissions a unit step by step; only the first step asks for anything that must be known. */
export function AddCompressor() {
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
  const register = usePost<object, CompressorView>('/compressors');
  const firstReading = usePost<object, ReadingView>(`/compressors/${draft.id}/readings`);
  const { family } = values;
  const { step } = draft;

  const plate = plateOf(values);
  const rotation = usePost<object, unknown>(`/compressors/${draft.id}/measurements`);
  const [planProblem, setPlanProblem] = useState<unknown>(null);

  const go = async (to: number) => {
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
      await recordFirstRun(startedAt);
      if (reading.value !== null) {
        await firstReading.mutateAsync({
          id: draft.readingId,
          takenAt: startedAt,
          hours: reading.value,
          counts: 'total',
          source: 'typed',
        });
      }
    } catch (error) {
      if (error instanceof ApiProblem) showProblems(error);
      return;
    }
    keep({ step: HOURS_STEP + 1 });
  });
  /** What was found at the first run; sent again after a refusal it is recorded once. */
  const recordFirstRun = async (takenAt: string) => {
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
  const showProblems = (error: ApiProblem) => {
    const errors = error.problem.errors ?? [];
    for (const { field, message } of errors) form.setError(field as Path<RegisterCompressor>, { message });
    const first = [0, 1, 2, 3, HOURS_STEP].find((one) =>
      errors.some(({ field }) => fieldsOfStep(one, family).includes(field as Path<RegisterCompressor>)),
    );
    if (first !== undefined) keep({ step: first });
  };
  const problem = register.error ?? rotation.error ?? planProblem ?? firstReading.error;
  return (
    <WithSide side={<PlanAhead plate={plate} breakIn={draft.breakIn} />}>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (step > HOURS_STEP) leave();
          else if (step === HOURS_STEP) void finish();
          else void go(step + 1);
        }}
        sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 980 }}
      >
        <Typography variant="h1" sx={{ mb: 2 }}>
          Commission a unit
        </Typography>
        <Stepper
          nonLinear
          activeStep={step}
          alternativeLabel
          sx={{
            mb: 3,
            maxWidth: 760,

            '& .MuiStepLabel-label': { fontSize: { xs: '0.68rem', sm: '0.875rem' } },
          }}
        >
          {steps.map((label, index) => (
            <Step key={label} completed={index < step}>
              <StepButton onClick={() => void go(index)}>{label}</StepButton>
            </Step>
          ))}
        </Stepper>
        {step === 0 && (
          <WhichMachine
            control={form.control}
            onSite={(id) => form.setValue('siteId', id, { shouldValidate: true })}
          />
        )}
        {step === 1 && (
          <>
            <Plate control={form.control} family={family} />
            <PlateSanity plate={plate} />
          </>
        )}
        {step === 2 && <Place control={form.control} plate={plate} />}
        {step === 3 && <FirstRun control={form.control} plate={plate} />}
        {step === HOURS_STEP && (
          <Hours control={form.control} family={family} reading={reading} onReading={setReading} />
        )}
        {step > HOURS_STEP && <Baseline compressorId={draft.id} />}
        {problem !== null && problem !== undefined && (
          <Alert severity="error" variant="outlined" sx={{ my: 2 }}>
            {draft.isRegistered ? `${form.getValues('tag')} is in the register, but not all of this: ` : ''}
            {sentenceOf(problem)}
          </Alert>
        )}
        <Stack direction="row" spacing={1} sx={{ mt: 2 }}>
          {step > 0 && !draft.isRegistered && <Button onClick={() => void go(step - 1)}>Back</Button>}
          <Button
            type="submit"
            variant="contained"
            disabled={
              register.isPending || rotation.isPending || firstReading.isPending || reading.problem !== null
            }
          >
            {step > HOURS_STEP ? 'Open its page' : step === HOURS_STEP ? 'Add to the register' : 'Go on'}
          </Button>
          {!draft.isRegistered && (
            <Button
              onClick={() => {
                draft.clear();
                void navigate('/units');
              }}
              sx={{ color: 'text.secondary' }}
            >
              Discard
            </Button>
          )}
        </Stack>
      </Box>
    </WithSide>
  );
}

/** The plate as far as it is typed, for reckoning with. */
function plateOf(values: RegisterCompressor): DataPlate {
  return { commissionedOn: '', tag: '', siteId: '', ...understood(ofFamily(values)) } as unknown as DataPlate;
}

/** What the machine will be asked for, as the plate is filled in. */
function PlanAhead({ plate, breakIn }: { readonly plate: DataPlate; readonly breakIn: string }) {
  const { tasks } = defaultPlan(plate, breakIn === '' ? {} : { 'break-in': breakIn });
  return (
    <Box sx={{ px: { xs: 2, md: 2.75 }, py: 2 }}>
      <Typography variant="h3" component="h2">
        Its plan will begin with
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Common practice for this family. The maker’s book always beats it.
      </Typography>
      <PlanTasks tasks={tasks} plate={plate} />
    </Box>
  );
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
