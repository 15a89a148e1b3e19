import { TextField } from '@mui/material';
import { TakeOutOfService } from '@entretien/contracts';
import { stopLimits, type StopGround, type StopScope } from '@entretien/core/stop';
import { useState } from 'react';
import { currentInstantText } from '../../data/clock.js';
import { Caution } from '../Caution.js';
import { FormDialog } from '../FormDialog.js';
import { useFactForm } from '../use-fact-form.js';

const scopes: Readonly<Record<StopScope, string>> = {
  unit: 'The whole unit',
  breathing: 'Its air for breathing',
  point: 'One point of use',
  side: 'One side of the panel',
};

const grounds: Readonly<Record<StopGround, string>> = {
  finding: 'Something was found',
  relief: 'A relief valve',
  vessel: 'A pressure vessel: weeps, dented, scorched, past its wall',
  'breathing-air': 'The air is not fit to breathe, or nobody can tell',
  other: 'Something else',
};

interface TakeOutProps {
  readonly compressorId: string;
  readonly tag: string;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** Takes a unit, or a part of its use, out of service: why, what must be shown to run again, who was told. */
export function TakeOutDialog({ compressorId, tag, timeZone, onClose }: TakeOutProps) {
  const form = useFactForm<TakeOutOfService>(
    TakeOutOfService,
    `/compressors/${compressorId}/out-of-service`,
    timeZone,
    onClose,
  );
  const [scope, setScope] = useState<StopScope>('unit');
  const [ground, setGround] = useState<StopGround>('finding');
  const [texts, setTexts] = useState({ place: '', why: '', toShow: '', informed: '' });
  const text = (name: keyof typeof texts, label: string, longest: number, hint = ' ') => (
    <TextField
      label={label}
      value={texts[name]}
      onChange={(event) => setTexts({ ...texts, [name]: event.target.value })}
      multiline={name === 'why'}
      error={form.problemOf(name) !== undefined}
      helperText={form.problemOf(name) ?? hint}
      slotProps={{ htmlInput: { maxLength: longest } }}
    />
  );
  const given = Object.fromEntries(
    Object.entries(texts).flatMap(([name, text]) => (text.trim() === '' ? [] : [[name, text.trim()]])),
  );
  return (
    <FormDialog
      title={`Take ${tag} out of service`}
      submit="Out of service"
      canSubmit={texts.why.trim() !== ''}
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('since') ?? null}
      onClose={onClose}
      onSubmit={() => form.send({ since: currentInstantText(), scope, ground, ...given })}
    >
      <Caution text="First: what hangs on it? Brakes, sprinklers, starting air, somebody who breathes from it. They are told before it stops." />
      <TextField
        select
        label="What"
        value={scope}
        onChange={(event) => setScope(event.target.value as StopScope)}
        slotProps={{ select: { native: true } }}
      >
        {Object.entries(scopes).map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </TextField>
      {(scope === 'point' || scope === 'side') && text('place', 'Which', stopLimits.place)}
      <TextField
        select
        label="On what ground"
        value={ground}
        onChange={(event) => setGround(event.target.value as StopGround)}
        slotProps={{ select: { native: true } }}
      >
        {Object.entries(grounds).map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </TextField>
      {text('why', 'Why', stopLimits.why)}
      {text('toShow', 'What must be shown to run again', stopLimits.shown)}
      {text('informed', 'Told to', stopLimits.informed, 'Who runs it, and who hangs on it.')}
    </FormDialog>
  );
}
