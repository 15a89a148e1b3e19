import { PracticeOnly } from '../plan/index.js';
import { Link } from 'react-router';
import {
  Alert,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  Radio,
  RadioGroup,
  Stack,
  Typography,
} from '@mui/material';
import type { RegisterCompressor } from '@entretien/contracts';
import { checksFor, howOf } from '@entretien/core/checks';
import { plateDoubts, plateProblems, type DataPlate } from '@entretien/core/machine';
import { practicesFor } from '@entretien/core/plan';
import { useState } from 'react';
import type { Control } from 'react-hook-form';
import {
  useMeasurements,
  usePlan,
  useSites,
  useStanding,
  useCompressor,
  useCompressorFacts,
} from '../../data/queries.js';
import { Caution } from '../../components/Caution.js';
import { PlateInput } from '../../components/PlateInputs.js';
import { fitFields, placeFields } from '../../components/plate-fields.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { VerdictMark } from '../../components/VerdictMark.js';
import { latestByCheck } from '../compressor/index.js';
import { MeasureDialog } from '../compressor/index.js';
import { StartingPointsDialog } from '../compressor/index.js';
import { useNewCompressorDraft } from './draft.js';
import { sitingPoints } from './siting.js';

const grid = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', md: '1fr 1fr 1fr' },
  columnGap: 2,
  rowGap: 1,
};

/** What is odd about the plate as it is typed: it can be stored all the same, since the plate may really say so. */
export function PlateSanity({ plate }: { readonly plate: DataPlate }) {
  const problems = plateProblems(plate);
  const doubts = plateDoubts(plate);
  if (problems.length + doubts.length === 0) return null;
  return (
    <Stack spacing={1} role="status" aria-label="About these figures">
      {problems.map(({ sentence }) => (
        <Alert key={sentence} severity="error" variant="outlined">
          {sentence}
        </Alert>
      ))}
      {doubts.map(({ code, sentence }) => (
        <Alert
          key={sentence}
          severity={code === 'relief-order' ? 'error' : 'warning'}
          variant={code === 'relief-order' ? 'filled' : 'outlined'}
        >
          {sentence}
        </Alert>
      ))}
    </Stack>
  );
}

interface StepProps {
  readonly control: Control<RegisterCompressor>;
  readonly plate: DataPlate;
}

/** Where it stands and what feeds it, with the hazards of setting it up. */
export function Place({ control, plate }: StepProps) {
  return (
    <Stack spacing={2}>
      <Box sx={grid}>
        {placeFields.map((field) => (
          <PlateInput key={field.name} field={field} control={control} />
        ))}
      </Box>
      {plate.history === 'unknown' ? <TakenOver control={control} /> : <Siting plate={plate} />}
    </Stack>
  );
}

/** What a machine that is set up is looked at for; one that has stood there for years was set up long ago. */
function Siting({ plate }: Pick<StepProps, 'plate'>) {
  const { seenTo, keep } = useNewCompressorDraft();
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0 }}>
      <Typography component="legend" variant="h3">
        Checked
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        The maker’s manual, local law and licensed trades come first. What stays open is noted as open.
      </Typography>
      {sitingPoints(plate).map(({ code, text, caution }) => (
        <Box key={code} sx={{ borderBottom: 1, borderColor: 'divider' }}>
          <FormControlLabel
            sx={{ minHeight: 44 }}
            control={
              <Checkbox
                checked={seenTo.includes(code)}
                onChange={(event) =>
                  keep({
                    seenTo: event.target.checked ? [...seenTo, code] : seenTo.filter((one) => one !== code),
                  })
                }
              />
            }
            label={text}
          />
          {caution && <Caution text={caution} />}
        </Box>
      ))}
    </Box>
  );
}

/** The first touch of the switch, and the first service; a machine that is taken over has had both. */
export function FirstRun({ plate }: Pick<StepProps, 'plate'>) {
  const { turns, breakIn, keep } = useNewCompressorDraft();
  const isThreePhase = plate.motor === undefined || plate.motor === 'three-phase';
  const practice = practicesFor(plate).find(({ code }) => code === 'break-in');
  return (
    <Stack spacing={2.5}>
      {isThreePhase && (
        <Box>
          <Typography variant="h3" id="turns">
            Direction of rotation
          </Typography>
          <Caution text="At the first touch of the switch, against the arrow on the housing: seconds backwards can ruin a pump. Only an electrician swaps two phases." />
          <RadioGroup
            aria-labelledby="turns"
            value={turns}
            onChange={(event) => keep({ turns: event.target.value as typeof turns })}
          >
            <FormControlLabel
              value="right"
              control={<Radio />}
              label="With the arrow"
              sx={{ minHeight: 44 }}
            />
            <FormControlLabel
              value="wrong"
              control={<Radio />}
              label="Against the arrow"
              sx={{ minHeight: 44 }}
            />
            <FormControlLabel value="" control={<Radio />} label="Not tried yet" sx={{ minHeight: 44 }} />
          </RadioGroup>
          {turns === 'wrong' && (
            <Alert severity="error" variant="outlined">
              Stop within seconds. It is recorded as stop: do not run it until an electrician has swapped two
              phases and it was tried again.
            </Alert>
          )}
        </Box>
      )}
      {practice ? (
        <Box>
          <Typography variant="h3" id="break-in">
            {practice.name}
          </Typography>
          <RadioGroup
            aria-labelledby="break-in"
            value={breakIn || practice.usual}
            onChange={(event) => keep({ breakIn: event.target.value })}
          >
            {practice.options.map(({ code, name, sentence }) => (
              <FormControlLabel
                key={code}
                value={code}
                control={<Radio />}
                sx={{ minHeight: 52 }}
                label={
                  <>
                    {name}
                    <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                      {sentence}
                    </Typography>
                  </>
                }
              />
            ))}
          </RadioGroup>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {practice.why}
          </Typography>
        </Box>
      ) : (
        <Typography>It has no oil: there is no first oil change.</Typography>
      )}
    </Stack>
  );
}

function TakenOver({ control }: Pick<StepProps, 'control'>) {
  return (
    <Stack spacing={2}>
      <Typography sx={{ color: 'text.secondary' }}>
        The last step asks what its sticker says was done; the rest stays not known until somebody has looked.
      </Typography>
      <Box sx={grid}>
        {fitFields.map((field) => (
          <PlateInput key={field.name} field={field} control={control} />
        ))}
      </Box>
    </Stack>
  );
}

/** What every later visit is compared with, in the order in which it is taken. */
const baselines = [
  'pump-up',
  'discharge-temperature',
  'stage-pressures',
  'separator-drop',
  'leak-down',
  'vibration-sound',
];

/** The machine is in the register: now what it is like when it is new; or where it counts from when it is not. */
export function Baseline({ compressorId }: { readonly compressorId: string }) {
  const unit = useCompressor(compressorId);
  const facts = useCompressorFacts(compressorId);
  const sites = useSites();
  const measurements = useMeasurements(compressorId);
  const standing = useStanding(compressorId);
  const plan = usePlan(compressorId);
  const [check, setCheck] = useState<string | null>(null);
  const [isSetting, setIsSetting] = useState(false);
  const failed = [unit, facts, sites, measurements, standing, plan].find((query) => query.isError);
  if (failed) return <ErrorState error={failed.error} onRetry={() => void failed.refetch()} />;
  if (!unit.data || !facts.data || !sites.data || !measurements.data || !standing.data || !plan.data)
    return <LoadingSkeleton lines={6} />;
  const latest = latestByCheck(measurements.data);
  const offered = checksFor(unit.data).filter(({ code }) => baselines.includes(code));
  const chosen = offered.find(({ code }) => code === check);
  const site = sites.data.find(({ id }) => id === unit.data.siteId);
  const timeZone = site?.timeZone ?? 'UTC';
  const isKnown = unit.data.history === 'new';
  const open = standing.data.tasks.filter(({ startedBy, vessel }) => startedBy === null && !vessel).length;
  return (
    <Stack spacing={1.5}>
      {!isKnown && (
        <Box>
          <Typography variant="h3">Last done</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
            {open === 0 ? 'Every task has something to count from.' : `${open} tasks are not known.`}
          </Typography>
          <Button variant="contained" onClick={() => setIsSetting(true)} disabled={open === 0}>
            What the sticker says
          </Button>
        </Box>
      )}
      <PracticeOnly plan={plan.data} />
      <Button component={Link} to={`/units/${compressorId}/plan`} sx={{ alignSelf: 'start', minHeight: 44 }}>
        Open its plan
      </Button>
      <Typography variant="h3">Baseline readings</Typography>
      <Typography sx={{ color: 'text.secondary' }}>
        What it does now is what every later visit is compared with. It can be measured later, too.
      </Typography>
      {offered.map((check) => {
        const { code, name } = check;
        const measured = latest.get(code);
        return (
          <Stack
            key={code}
            direction="row"
            sx={{
              alignItems: 'center',
              gap: 1.5,
              borderBottom: 1,
              borderColor: 'divider',
              minHeight: 52,
              py: 0.5,
            }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography sx={{ fontWeight: 600 }}>{name}</Typography>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {measured ? measured.judgement.reason : howOf(check, unit.data)}
              </Typography>
            </Box>
            {measured && <VerdictMark {...measured.judgement} />}
            <Button variant="outlined" onClick={() => setCheck(code)} aria-label={`Measure: ${name}`}>
              {measured ? 'Again' : 'Measure'}
            </Button>
          </Stack>
        );
      })}
      {chosen && (
        <MeasureDialog
          key={chosen.code}
          unit={unit.data}
          site={site}
          facts={facts.data}
          timeZone={timeZone}
          check={chosen}
          asBaseline
          onClose={() => setCheck(null)}
        />
      )}
      {isSetting && (
        <StartingPointsDialog
          compressorId={compressorId}
          tag={unit.data.tag}
          standing={standing.data}
          plan={plan.data}
          timeZone={timeZone}
          firstBasis="sticker"
          onClose={() => setIsSetting(false)}
        />
      )}
    </Stack>
  );
}
