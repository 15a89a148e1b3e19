import { FormControlLabel, MenuItem, Radio, RadioGroup, TextField, Typography } from '@mui/material';
import {
  type CompressorView,
  RecordExamination,
  RegisterVessel,
  type VesselView,
} from '@entretien/contracts';
import { vesselKinds, type VesselExamination, type VesselKind } from '@entretien/core/plan';
import { useState } from 'react';
import { DayField } from '../../components/DayField.js';
import { Caution } from '../../components/Caution.js';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { emptyEntry, QuantityField } from '../../components/QuantityField.js';
import { useFactForm } from '../../components/use-fact-form.js';
import { CylinderInputs, cylinderFields, emptyCylinder } from './CylinderInputs.js';

interface AddVesselProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

const MOST_MONTHS = 600;

/** Takes a receiver, bank or cylinder into the register, filled by this unit. */
export function AddVesselDialog({ unit, timeZone, onClose }: AddVesselProps) {
  const form = useFactForm<RegisterVessel>(RegisterVessel, '/vessels', timeZone, onClose);
  const [kind, setKind] = useState<VesselKind>(unit.family === 'high-pressure' ? 'bank' : 'receiver');
  const [tag, setTag] = useState('');
  const [rated, setRated] = useState(emptyEntry);
  const [volume, setVolume] = useState(emptyEntry);
  const [texts, setTexts] = useState({ testEvery: '', inspectEvery: '', lastTest: '', lastInspection: '' });
  const [cylinder, setCylinder] = useState(emptyCylinder);
  const put = (field: keyof typeof texts) => (value: string) => setTexts({ ...texts, [field]: value });
  const set = (field: keyof typeof texts) => (event: { target: { value: string } }) =>
    setTexts({ ...texts, [field]: event.target.value });
  const months = (text: string) =>
    /^\d{1,3}$/.test(text.trim()) && Number(text) > 0 && Number(text) <= MOST_MONTHS ? Number(text) : null;
  const isWrong = (text: string) => text.trim() !== '' && months(text) === null;
  return (
    <FormDialog
      title={`A vessel that ${unit.tag} fills`}
      submit="Add the vessel"
      canSubmit={
        tag.trim() !== '' &&
        rated.problem === null &&
        volume.problem === null &&
        !isWrong(texts.testEvery) &&
        !isWrong(texts.inspectEvery)
      }
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('siteId') ?? form.problemOf('compressorIds') ?? null}
      onClose={onClose}
      onSubmit={() =>
        form.send({
          siteId: unit.siteId,
          tag: tag.trim(),
          kind,
          compressorIds: [unit.id],
          ...(rated.value === null ? {} : { ratedBar: rated.value }),
          ...(volume.value === null ? {} : { volumeL: volume.value }),
          ...(months(texts.testEvery) === null ? {} : { testEveryMonths: months(texts.testEvery) }),
          ...(months(texts.inspectEvery) === null ? {} : { inspectEveryMonths: months(texts.inspectEvery) }),
          ...(texts.lastTest === '' ? {} : { lastTestOn: texts.lastTest }),
          ...(texts.lastInspection === '' ? {} : { lastInspectionOn: texts.lastInspection }),
          ...(kind === 'cylinder' ? cylinderFields(cylinder) : {}),
        })
      }
    >
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The local law sets the months between its tests. Nothing is assumed: enter them.
      </Typography>
      <TextField
        select
        label="What it is"
        value={kind}
        onChange={(event) => setKind(event.target.value as VesselKind)}
      >
        {vesselKinds.map((one) => (
          <MenuItem key={one} value={one}>
            {one}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="Tag"
        required
        value={tag}
        onChange={(event) => setTag(event.target.value)}
        error={form.problemOf('tag') !== undefined}
        helperText={form.problemOf('tag') ?? 'What is written on it, like R-1.'}
        slotProps={{ htmlInput: { maxLength: 24 } }}
      />
      <QuantityField
        label="Rated for"
        kind="pressure"
        entry={rated}
        onEntry={setRated}
        min={0.1}
        max={1000}
        problem={form.problemOf('ratedBar')}
      />
      <QuantityField
        label="Volume"
        kind="volume"
        entry={volume}
        onEntry={setVolume}
        min={0.1}
        max={200_000}
        problem={form.problemOf('volumeL')}
      />
      {kind === 'cylinder' && <CylinderInputs cylinder={cylinder} onCylinder={setCylinder} />}
      {(
        [
          ['testEvery', 'Months between pressure tests'],
          ['inspectEvery', 'Months between inspections'],
        ] as const
      ).map(([field, label]) => (
        <TextField
          key={field}
          label={label}
          value={texts[field]}
          onChange={set(field)}
          error={isWrong(texts[field])}
          helperText={isWrong(texts[field]) ? 'A whole number of months, 1 to 600.' : ' '}
          slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 3 } }}
        />
      ))}
      <DayField
        label="Last pressure test"
        day={texts.lastTest}
        onDay={put('lastTest')}
        problem={form.problemOf('doneOn')}
        hint=" "
      />
      <DayField label="Last inspection" day={texts.lastInspection} onDay={put('lastInspection')} />
    </FormDialog>
  );
}

interface ExamineProps {
  readonly vessel: VesselView;
  readonly examination: VesselExamination;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** Records a pressure test or an inspection of a vessel. */
export function ExamineVesselDialog({ vessel, examination, timeZone, onClose }: ExamineProps) {
  const form = useFactForm<RecordExamination>(
    RecordExamination,
    `/vessels/${vessel.id}/examinations`,
    timeZone,
    onClose,
  );
  const [kind, setKind] = useState(examination);
  const [doneOn, setDoneOn] = useState(form.whenText.slice(0, 10));
  const [passed, setPassed] = useState(true);
  return (
    <FormDialog
      title={`${vessel.tag}: test or inspection`}
      submit="Record it"
      canSubmit={doneOn !== ''}
      isSending={form.isSending}
      problem={form.generalProblem}
      onClose={onClose}
      onSubmit={() => form.send({ kind, doneOn, passed })}
    >
      {!passed && (
        <Caution text="Out of use from now on: vented, closed off and marked, until it has passed." />
      )}
      <TextField
        select
        label="What was done"
        value={kind}
        onChange={(event) => setKind(event.target.value as VesselExamination)}
      >
        <MenuItem value="test">pressure test</MenuItem>
        <MenuItem value="inspection">inspection</MenuItem>
      </TextField>
      <DayField label="Done on" day={doneOn} onDay={setDoneOn} problem={form.problemOf('doneOn')} hint=" " />
      <RadioGroup
        row
        aria-label="Result"
        value={passed ? 'passed' : 'failed'}
        onChange={(event) => setPassed(event.target.value === 'passed')}
      >
        <FormControlLabel value="passed" control={<Radio />} label="It passed" />
        <FormControlLabel value="failed" control={<Radio />} label="It failed" />
      </RadioGroup>
      <NoteField form={form} />
    </FormDialog>
  );
}
