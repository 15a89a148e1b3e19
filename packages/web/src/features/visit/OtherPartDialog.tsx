import { MenuItem, TextField } from '@mui/material';
import type { PartView } from '@entretien/contracts';
import { judgeSubstitute, needsReason } from '@entretien/core/parts';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { ComparedParts } from '../../components/ComparedParts.js';
import { FormDialog } from '../../components/FormDialog.js';
import type { CompressorAtWork } from './use-visit.js';

interface OtherPartProps {
  readonly atWork: CompressorAtWork;
  readonly parts: readonly PartView[];
  /** The part to begin with, which wants a reason on this unit. */
  readonly inPlaceOf?: PartView | undefined;
  readonly onClose: () => void;
}

/** Any part of the catalogue; in the place of another it is compared, and asked why where that is needed. */
export function OtherPartDialog({ atWork, parts, inPlaceOf: first, onClose }: OtherPartProps) {
  const [partId, setPart] = useState(first?.id ?? '');
  const [originalId, setOriginal] = useState('');
  const [count, setCount] = useState('1');
  const [reason, setReason] = useState('');
  const { plate } = atWork.unit;
  const offered = parts.filter(({ isRetired, id }) => !isRetired || id === first?.id);
  const part = parts.find(({ id }) => id === partId);
  const original = parts.find(({ id }) => id === originalId);
  const judged = part && original && part !== original ? judgeSubstitute(original, part, plate) : null;
  const wantsReason =
    part !== undefined &&
    (needsReason(part, plate, atWork.view.compressorId) ||
      judged?.verdict === 'reason' ||
      judged?.verdict === 'does-not-fit');
  const read = readNumber(count);
  const isCount = read.ok && read.value > 0 && read.value <= 1000;
  const use = () =>
    void atWork
      .record({
        kind: 'part',
        part: part!.id,
        name: part!.name,
        count: read.ok ? read.value : 1,
        ...(reason.trim() === '' ? {} : { reason: reason.trim() }),
      })
      .then(onClose);
  const choose = (label: string, value: string, onValue: (value: string) => void, none?: string) => (
    <TextField select label={label} value={value} onChange={(event) => onValue(event.target.value)}>
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {offered.map(({ id, name, number, inVan }) => (
        <MenuItem key={id} value={id}>
          {name} · {number} · {inVan} in the van
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <FormDialog
      title="Another part"
      submit="Used"
      canSubmit={part !== undefined && isCount && (!wantsReason || reason.trim() !== '')}
      onSubmit={use}
      onClose={onClose}
    >
      {choose('The part', partId, setPart)}
      {choose('In place of', originalId, setOriginal, 'Nothing: used besides')}
      <TextField
        label="How many"
        value={count}
        onChange={(event) => setCount(event.target.value)}
        error={!isCount}
        helperText={isCount ? undefined : 'A number above 0, up to 1,000.'}
        slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 8 } }}
      />
      {judged && <ComparedParts judged={judged} />}
      {part && (
        <TextField
          label={wantsReason ? 'The reason' : 'A reason, if there is one'}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          helperText={
            wantsReason
              ? 'For breathing air, or where a figure is too low, another part needs a reason.'
              : undefined
          }
          multiline
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
      )}
    </FormDialog>
  );
}
