import { Alert, Box, Button, Stack, Step, StepButton, Stepper, Typography } from '@mui/material';
import type { DataPlate } from '@entretien/core/machine';
import { defaultPlan } from '@entretien/core/plan';
import { sentenceOf } from '../../data/api.js';
import { PlanTasks } from '../compressor/index.js';
import { Hours, Plate, WhichMachine } from './AddCompressorSteps.js';
import { Baseline, FirstRun, Place, PlateSanity } from './CommissionSteps.js';
import { WithSide } from '../../components/WithSide.js';
import { HOURS_STEP, steps, stepsFor, useCommissioning } from './use-commissioning.js';

/** Commissions a unit step by step; only the first step asks for anything that must be known. */
export function AddCompressor() {
  const { form, draft, plate, reading, setReading, problem, isSending, go, finish, leave, discard } =
    useCommissioning();
  const { step } = draft;
  const { family } = plate;
  const order = stepsFor(plate.history);
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
          Add a unit
        </Typography>
        <Stepper
          nonLinear
          activeStep={order.indexOf(step)}
          alternativeLabel
          sx={{
            mb: 3,
            maxWidth: 760,

            '& .MuiStepLabel-label': { fontSize: { xs: '0.68rem', sm: '0.875rem' } },
          }}
        >
          {order.map((index) => (
            <Step key={steps[index]} completed={index < step}>
              <StepButton onClick={() => void go(index)}>
                {index > HOURS_STEP && plate.history === 'unknown' ? 'Last done' : steps[index]}
              </StepButton>
            </Step>
          ))}
        </Stepper>
        {step === 0 && (
          <WhichMachine
            control={form.control}
            isTakenOver={plate.history === 'unknown'}
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
        {step === 3 && <FirstRun plate={plate} />}
        {step === HOURS_STEP && (
          <Hours control={form.control} family={family} reading={reading} onReading={setReading} />
        )}
        {step > HOURS_STEP && <Baseline compressorId={draft.id} />}
        {problem !== null && (
          <Alert severity="error" variant="outlined" sx={{ my: 2 }}>
            {draft.isRegistered ? `${form.getValues('tag')} is in the register, but not all of this: ` : ''}
            {sentenceOf(problem)}
          </Alert>
        )}
        <Stack direction="row" spacing={1} sx={{ mt: 2 }}>
          {step > 0 && !draft.isRegistered && <Button onClick={() => void go(step - 1)}>Back</Button>}
          <Button type="submit" variant="contained" disabled={isSending || reading.problem !== null}>
            {step > HOURS_STEP ? 'Open its page' : step === HOURS_STEP ? 'Add to the register' : 'Next'}
          </Button>
          {!draft.isRegistered && (
            <Button onClick={discard} sx={{ color: 'text.secondary' }}>
              Discard
            </Button>
          )}
        </Stack>
      </Box>
    </WithSide>
  );
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
        Common practice for this family. The maker’s manual always beats it.
      </Typography>
      <PlanTasks tasks={tasks} plate={plate} />
    </Box>
  );
}
