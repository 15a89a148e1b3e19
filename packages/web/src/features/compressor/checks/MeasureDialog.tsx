import { Box, Button, Checkbox, FormControlLabel, TextField, Typography } from '@mui/material';
import {
  type CompressorView,
  type MeasurementView,
  RecordMeasurement,
  type SiteView,
} from '@entretien/contracts';
import { cautionOf, checksFor, checksWithLists, howOf, type CheckDefinition } from '@entretien/core/checks';
import { futureProblem, readingProblem } from '@entretien/core/hours';
import { stationName, stationsOf } from '@entretien/core/machine';
import { useState } from 'react';
import { usePreferences } from '../../../data/preferences.js';
import { useMeasurements, type CompressorFacts } from '../../../data/queries.js';
import { Caution } from '../../../components/Caution.js';
import {
  stayingTexts,
  textOf,
  type CheckTexts,
  type ChosenUnits,
} from '../../../components/checks/check-entries.js';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { JudgementBand } from '../../../components/checks/JudgementBand.js';
import { useJudged } from '../../../components/checks/use-judged.js';
import { FormDialog } from '../../../components/FormDialog.js';
import { NoteField } from '../../../components/NoteField.js';
import { emptyEntry, QuantityField } from '../../../components/QuantityField.js';
import { useFactForm } from '../../../components/use-fact-form.js';
import { useNow } from '../../../components/use-now.js';
import { WhenField } from '../../../components/WhenField.js';
import { hourLogOf, typedReading } from '../../../components/meter/hour-log.js';
import { latestByCheck } from './check-chart.js';
import { FromList } from './FromList.js';

interface MeasureProps {
  readonly unit: CompressorView;
  readonly site: SiteView | undefined;
  readonly facts: CompressorFacts;
  readonly timeZone: string;
  /** The check to begin with; to be chosen where left out. */
  readonly check?: CheckDefinition | undefined;
  /** Whether it is to be a baseline unless somebody says otherwise. */
  readonly asBaseline?: boolean;
  /** A measurement that is put right. */
  readonly corrects?: MeasurementView | undefined;
  readonly onClose: () => void;
}

/** First what is measured, then the figures: judged while they are typed. */
export function MeasureDialog(props: MeasureProps) {
  const [chosen, setChosen] = useState(props.check);
  const { data: measurements } = useMeasurements(props.unit.id);
  if (!chosen) return <ChooseCheck {...props} onChoose={setChosen} />;
  // What stays from last time must be known before the form begins.
  if (!measurements) return null;
  return <MeasureForm key={chosen.code} {...props} check={chosen} measurements={measurements} />;
}

function ChooseCheck({
  unit,
  onChoose,
  onClose,
}: MeasureProps & { readonly onChoose: (check: CheckDefinition) => void }) {
  const [find, setFind] = useState('');
  const groups = byStation(unit, find);
  const hits = [...new Set(groups.flatMap(({ checks }) => checks))];
  const only = hits.length === 1 ? hits[0]! : null;
  return (
    <FormDialog
      title={`Measure ${unit.tag}`}
      submit="Next"
      canSubmit={only !== null}
      onSubmit={() => only && onChoose(only)}
      onClose={onClose}
      wide
    >
      <TextField
        label="Find a check or a station"
        value={find}
        onChange={(event) => setFind(event.target.value)}
        autoFocus
        size="small"
        slotProps={{ htmlInput: { maxLength: 60 } }}
      />
      {groups.length === 0 && (
        <Typography sx={{ color: 'text.secondary' }}>Nothing on this unit is called that.</Typography>
      )}
      <Box sx={{ columns: { sm: 2 }, columnGap: 3 }}>
        {groups.map(({ station, checks }) => (
          <Box key={station} component="section" sx={{ breakInside: 'avoid', mb: 1.5 }}>
            <Typography variant="body2" component="h3" sx={{ color: 'text.secondary' }}>
              {station}
            </Typography>
            {checks.map((check) => (
              <Button
                key={check.code}
                onClick={() => onChoose(check)}
                fullWidth
                sx={{
                  justifyContent: 'start',
                  textAlign: 'left',
                  minHeight: 44,
                  borderBottom: 1,
                  borderColor: 'divider',
                  borderRadius: 0,
                  px: 0.5,
                }}
              >
                {check.name}
              </Button>
            ))}
          </Box>
        ))}
      </Box>
    </FormDialog>
  );
}

/** The checks of a unit by station, as the air goes; those that match what is sought. */
export function byStation(unit: CompressorView, find = '') {
  const { path, beside } = stationsOf(unit);
  const wanted = find.trim().toLowerCase();
  const checks = checksFor(unit);
  return [...path, ...beside].flatMap(({ code }) => {
    const station = stationName(unit, code);
    const here = checks.filter(
      (check) => check.station(unit) === code && `${station} ${check.name}`.toLowerCase().includes(wanted),
    );
    return here.length === 0 ? [] : [{ station, checks: here }];
  });
}

interface FormProps extends MeasureProps {
  readonly check: CheckDefinition;
  readonly measurements: readonly MeasurementView[];
}

function MeasureForm(props: FormProps) {
  const { unit, site, facts, timeZone, check, corrects, measurements, asBaseline = false, onClose } = props;
  const units = usePreferences((preferences) => preferences.units);
  const earlier = measurements.filter((one) => one.check === check.code);
  const [texts, setTexts] = useState<CheckTexts>(() => firstTexts(check, corrects, earlier, units));
  const [isBaseline, setBaseline] = useState(corrects?.baseline ?? asBaseline);
  const [meter, setMeter] = useState(emptyEntry);
  const form = useFactForm<RecordMeasurement>(
    RecordMeasurement,
    `/compressors/${unit.id}/measurements`,
    timeZone,
    onClose,
    { happenedAt: corrects && Date.parse(corrects.takenAt) },
  );
  const now = useNow();
  const at = form.when ?? now;
  const future = futureProblem(at, 'takenAt', { now, timeZone });
  const judged = useJudged(check, texts, {
    unit,
    site,
    at,
    isBaseline,
    earlier: earlier.filter(({ id }) => id !== corrects?.id),
  });
  const meterProblem =
    meter.value === null || future
      ? null
      : readingProblem(hourLogOf(facts), typedReading(meter.value, at, now), { now, timeZone });
  const fromServer = Object.fromEntries(
    judged.fields.flatMap(({ code }) => {
      const message = form.problemOf(`values.${code}`);
      return message === undefined ? [] : [[code, message]];
    }),
  );
  return (
    <FormDialog
      title={`${check.name}, ${unit.tag}`}
      submit={corrects ? 'Correct it' : 'Save measurement'}
      canSubmit={
        judged.judgement !== null &&
        meter.problem === null &&
        meterProblem === null &&
        !future &&
        form.when !== null
      }
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('check') ?? null}
      onClose={onClose}
      onSubmit={() =>
        form.send({
          check: check.code,
          takenAt: new Date(at).toISOString(),
          values: judged.values,
          ...(isBaseline ? { baseline: true } : {}),
          ...(meter.value === null ? {} : { hours: meter.value }),
          ...(corrects ? { corrects: corrects.id } : {}),
        })
      }
      wide
    >
      <HowTo check={check} unit={unit} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: 'minmax(0, 1fr) 300px' },
          columnGap: 3,
          rowGap: 1,
        }}
      >
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25, minWidth: 0 }}>
          {checksWithLists.includes(check.code) && (
            <FromList check={check} onTexts={(read) => setTexts({ ...texts, ...read })} />
          )}
          <CheckFields
            fields={judged.fields}
            texts={texts}
            onText={(code, text) => setTexts({ ...texts, [code]: text })}
            problems={{ ...fromServer, ...judged.problems }}
            asks={judged.asks}
            plate={unit}
          />
        </Box>
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 0.75 }}>
          <Verdict judged={judged} />
          <WhenField
            label="Measured at"
            text={form.whenText}
            onText={form.setWhenText}
            problem={
              form.when === null
                ? 'Say when it was measured.'
                : (future?.sentence ?? form.problemOf('takenAt'))
            }
          />
          {unit.hasHourMeter !== false && !corrects && (
            <QuantityField
              label="Figure on the meter"
              kind="hours"
              entry={meter}
              onEntry={setMeter}
              min={0}
              max={1_000_000}
              problem={meterProblem?.sentence ?? form.problemOf('hours')}
              hint="Counts as a reading."
            />
          )}
          {check.figure && (
            <FormControlLabel
              control={<Checkbox checked={isBaseline} onChange={(_event, on) => setBaseline(on)} />}
              label="The baseline: later ones are compared with it"
            />
          )}
          <NoteField form={form} rows={2} />
        </Box>
      </Box>
    </FormDialog>
  );
}

/** What the fields begin with: the measurement that is put right, or what stays from the last one. */
function firstTexts(
  check: CheckDefinition,
  corrects: MeasurementView | undefined,
  earlier: readonly MeasurementView[],
  units: ChosenUnits,
): CheckTexts {
  return corrects
    ? Object.fromEntries(
        check.fields.flatMap((field) => {
          const value = corrects.values[field.code];
          return value === undefined ? [] : [[field.code, textOf(field, value, units)]];
        }),
      )
    : stayingTexts(check.fields, latestByCheck(earlier).get(check.code)?.values, units);
}

function HowTo({ check, unit }: { readonly check: CheckDefinition; readonly unit: CompressorView }) {
  const caution = cautionOf(check, unit);
  return (
    <>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {howOf(check, unit)}
      </Typography>
      {caution && (
        <Box>
          <Caution text={caution} />
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            The maker’s manual, local law and licensed trades come first.
          </Typography>
        </Box>
      )}
    </>
  );
}

/** What it comes to so far, or what is missing to tell. */
function Verdict({ judged }: { readonly judged: ReturnType<typeof useJudged> }) {
  return judged.judgement ? (
    <Box sx={{ mb: 1 }}>
      <JudgementBand judgement={judged.judgement} />
    </Box>
  ) : (
    <Typography role="status" sx={{ color: 'text.secondary', minHeight: 24, mb: 1 }}>
      {judged.missing ??
        (Object.keys(judged.problems).length > 0 ? 'Correct what is marked, and it is judged.' : '')}
    </Typography>
  );
}
