import { Button, Typography } from '@mui/material';
import { readLaboratoryList, type CheckDefinition } from '@entretien/core/checks';
import { useState } from 'react';
import { textOf, type CheckTexts } from '../../../components/checks/check-entries.js';

/** No laboratory writes more about a sample. */
const MOST_BYTES = 1_000_000;

interface FromListProps {
  readonly check: CheckDefinition;
  /** What was understood, as it would be typed. */
  readonly onTexts: (texts: CheckTexts) => void;
}

/** Figures of a sample out of the laboratory’s own list. */
export function FromList({ check, onTexts }: FromListProps) {
  const [said, setSaid] = useState<{ readonly text: string; readonly isProblem: boolean } | null>(null);
  const refuse = (text: string) => setSaid({ text, isProblem: true });
  const read = async (file: File) => {
    if (file.size > MOST_BYTES)
      return refuse('No list of a sample is larger than 1 MB: is it the right file?');
    const { default: Papa } = await import('papaparse');
    const { data } = Papa.parse<string[]>(await file.text(), { skipEmptyLines: true });
    const list = readLaboratoryList(check.code, data);
    if (!list.ok) return refuse(list.problem.sentence);
    const { values, left } = list.value;
    const texts = check.fields.flatMap((field) =>
      values[field.code] === undefined ? [] : [[field.code, textOf(field, values[field.code]!, {})] as const],
    );
    onTexts(Object.fromEntries(texts));
    const rest = left.length === 0 ? '' : ` Not asked for here: ${left.slice(0, 12).join(', ')}.`;
    setSaid({ text: `${texts.length} figures read: compare them with the paper.${rest}`, isProblem: false });
  };
  return (
    <div>
      <Button component="label" variant="outlined" sx={{ minHeight: 44 }}>
        From the laboratory’s list (CSV)
        <input
          type="file"
          accept=".csv,.txt,text/csv"
          hidden
          aria-label="The laboratory’s list"
          onChange={({ target }) => {
            const file = target.files?.[0];
            // The same file may be chosen again after it was put right.
            target.value = '';
            if (file) void read(file);
          }}
        />
      </Button>
      {said && (
        <Typography
          role={said.isProblem ? 'alert' : 'status'}
          variant="body2"
          sx={{ color: said.isProblem ? 'error.main' : 'text.secondary', mt: 0.5 }}
        >
          {said.text}
        </Typography>
      )}
    </div>
  );
}
