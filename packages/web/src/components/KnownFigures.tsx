import { Box } from '@mui/material';
import type { DataPlate } from '@entretien/core/machine';
import { knownFigures, knownForCheck } from '@entretien/core/plan';
import { useFormatQuantity } from './use-format-quantity.js';

interface KnownFiguresProps {
  /** Code of the task that they are wanted for. */
  readonly task: string;
  readonly plate: DataPlate;
}

/** What is known of this machine for a task, where the task is read. */
export function KnownFigures({ task, plate }: KnownFiguresProps) {
  const format = useFormatQuantity();
  return <Lines known={knownFigures(task, plate, format)} />;
}

/** What is known of this machine for a check, where its figures are typed. */
export function KnownForCheck({ check, plate }: { readonly check: string; readonly plate: DataPlate }) {
  const format = useFormatQuantity();
  return <Lines known={knownForCheck(check, plate, format)} />;
}

function Lines({ known }: { readonly known: readonly string[] }) {
  if (known.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Known of this machine"
      sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.25, typography: 'body2', fontWeight: 600 }}
    >
      {known.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Box>
  );
}
