import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Alert, Box, Button, Stack, Step, StepButton, Stepper, Typography } from '@mui/material';
import { RegisterCompressor, type CompressorView, type ReadingView } from '@entretien/contracts';
import { type DataPlate, type Family } from '@entretien/core/machine';
import { defaultPlan } from '@entretien/core/plan';
import { useEffect, useState } from 'react';
import { useForm, useWatch, type Path } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { ApiProblem, sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { PlanTasks } from '../unit/PlanPanel.js';
import { emptyEntry, type QuantityEntry } from '../../parts/QuantityField.js';
import { fieldsFor, hourFields, plateGroups } from '../../parts/plate-fields.js';
import { useNewUnitDraft } from './draft.js';
import { Hours, Plate, WhichMachine } from './AddUnitSteps.js';
import { WithSide } from '../../parts/WithSide.js';

const steps = ['Which machine', 'Data plate', 'Hours'] as const;

/** The fields of each step, to be checked before the next. */
function fieldsOfStep(step: number, family: Family): Path<RegisterCompressor>[] {
  if (step === 0) return ['siteId', 'tag', 'family', 'commissionedOn', 'history'];
  if (step === 1)
    return plateGroups.flatMap((group) => fieldsFor(group.fields, family).map((field) => field.name));
  return hourFields.map((field) => field.name);
}

/** Adds a unit step by step; only the first step asks for anything that must be known. */
export function AddUnit() {
  const draft = useNewUnitDraft();
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

  const go = async (to: number) => {
    if (to <= step || (await form.trigger(fieldsOfStep(step, family)))) keep({ step: to });
  };
  const finish = form.handleSubmit(async (checked) => {
    try {
      if (!draft.isRegistered) {
        await register.mutateAsync({ ...understood(ofFamily(checked)), id: draft.id });
        keep({ isRegistered: true });
      }
      if (reading.value !== null) {
        const takenAt = new Date().toISOString();
        await firstReading.mutateAsync({
          id: draft.readingId,
          takenAt,
          hours: reading.value,
          counts: 'total',
          source: 'typed',
        });
      }
    } catch (error) {
      if (error instanceof ApiProblem) showProblems(error);
      return;
    }
    const { id } = draft;
    draft.clear();
    void navigate(`/units/${id}`);
  });
  const showProblems = (error: ApiProblem) => {
    const errors = error.problem.errors ?? [];
    for (const { field, message } of errors) form.setError(field as Path<RegisterCompressor>, { message });
    const first = [0, 1, 2].find((one) =>
      errors.some(({ field }) => fieldsOfStep(one, family).includes(field as Path<RegisterCompressor>)),
    );
    if (first !== undefined) keep({ step: first });
  };
  const problem = register.error ?? firstReading.error;
  return (
    <WithSide side={<PlanAhead plate={plateOf(values)} />}>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (step === steps.length - 1) void finish();
          else void go(step + 1);
        }}
        sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 980 }}
      >
        <Typography variant="h1" sx={{ mb: 2 }}>
          Add a unit
        </Typography>
        <Stepper
          nonLinear
          activeStep={step}
          sx={{ mb: 3, maxWidth: 620, '& .MuiStep-root': { px: { xs: 0.25, sm: 1 } } }}
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
        {step === 1 && <Plate control={form.control} family={family} />}
        {step === 2 && (
          <Hours control={form.control} family={family} reading={reading} onReading={setReading} />
        )}
        {problem && (
          <Alert severity="error" variant="outlined" sx={{ my: 2 }}>
            {draft.isRegistered ? `${form.getValues('tag')} is in the register, but not its reading: ` : ''}
            {sentenceOf(problem)}
          </Alert>
        )}
        <Stack direction="row" spacing={1} sx={{ mt: 2 }}>
          {step > 0 && <Button onClick={() => void go(step - 1)}>Back</Button>}
          <Button
            type="submit"
            variant="contained"
            disabled={register.isPending || firstReading.isPending || reading.problem !== null}
          >
            {step === steps.length - 1 ? 'Add to the register' : 'Go on'}
          </Button>
          <Button
            onClick={() => {
              draft.clear();
              void navigate('/units');
            }}
            sx={{ color: 'text.secondary' }}
          >
            Discard
          </Button>
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
function PlanAhead({ plate }: { readonly plate: DataPlate }) {
  return (
    <Box sx={{ px: { xs: 2, md: 2.75 }, py: 2 }}>
      <Typography variant="h3" component="h2">
        Its plan will begin with
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Common practice for this family. The maker’s book always beats it.
      </Typography>
      <PlanTasks tasks={defaultPlan(plate).tasks} plate={plate} />
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

/** Leaves out what was typed for another family before this one was chosen. */
function ofFamily(values: RegisterCompressor): object {
  const belongs = new Set<string>(
    fieldsFor([...plateGroups.flatMap((group) => group.fields), ...hourFields], values.family).map(
      (field) => field.name,
    ),
  );
  const isPlateField = new Set<string>(
    [...plateGroups.flatMap((group) => group.fields), ...hourFields].map((field) => field.name),
  );
  return Object.fromEntries(
    Object.entries(values).filter(([name]) => !isPlateField.has(name) || belongs.has(name)),
  );
}
