import { TextField } from '@mui/material';

interface NoteFieldProps {
  readonly form: { readonly note: string; readonly setNote: (text: string) => void };
  readonly rows?: number;
  readonly longest?: number;
}

/** Whatever else is to be kept with a fact. */
export function NoteField({ form, rows = 1, longest = 2000 }: NoteFieldProps) {
  return (
    <TextField
      label="Note"
      value={form.note}
      onChange={(event) => form.setNote(event.target.value)}
      multiline
      minRows={rows}
      slotProps={{ htmlInput: { maxLength: longest } }}
    />
  );
}
