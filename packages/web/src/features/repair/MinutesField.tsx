import { TextField, type TextFieldProps } from '@mui/material';
import { readNumber } from '@entretien/core/quantities';

const MOST = 10_000;

/** Minutes as they were typed: the figure, none where none was, or that it is no such figure. */
export function readMinutes(text: string): { readonly isReadable: boolean; readonly minutes?: number } {
  if (text.trim() === '') return { isReadable: true };
  const read = readNumber(text);
  return read.ok && read.value >= 0 && read.value <= MOST
    ? { isReadable: true, minutes: read.value }
    : { isReadable: false };
}

interface MinutesFieldProps extends Pick<TextFieldProps, 'size' | 'sx'> {
  readonly text: string;
  readonly onText: (text: string) => void;
}

/** How long the work took. */
export function MinutesField({ text, onText, ...field }: MinutesFieldProps) {
  const { isReadable } = readMinutes(text);
  return (
    <TextField
      {...field}
      label="Minutes"
      value={text}
      onChange={(event) => onText(event.target.value)}
      error={!isReadable}
      helperText={isReadable ? undefined : '0 to 10,000'}
      slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 8 } }}
    />
  );
}
