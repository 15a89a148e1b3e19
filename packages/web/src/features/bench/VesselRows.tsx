import AddIcon from '@mui/icons-material/Add';
import { DayField } from '../../components/DayField.js';
import CloseIcon from '@mui/icons-material/Close';
import { Box, Button, IconButton, Stack, TextField, Typography } from '@mui/material';
import type { Problem } from '@entretien/core/basics';
import type { TypedCylinder, TypedVessel } from '@entretien/core/bench';

interface RowsProps<Row> {
  readonly rows: readonly Row[];
  readonly problem: Problem | null;
  readonly onRows: (rows: readonly Row[]) => void;
  readonly onAdd: () => void;
}

const cellStyle = { '& .MuiInputBase-input': { px: 1, py: 1 } } as const;

function Cell({
  label,
  text,
  onText,
  problem,
  grow = 1,
}: {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly problem: string | undefined;
  readonly grow?: number;
}) {
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      onChange={(event) => onText(event.target.value)}
      error={problem !== undefined}
      helperText={problem}
      sx={{ ...cellStyle, flex: `${grow} 1 0` }}
      slotProps={{
        htmlInput: { inputMode: 'decimal', maxLength: 12, autoComplete: 'off' },
        inputLabel: { shrink: true },
        formHelperText: { role: problem === undefined ? undefined : 'alert' },
      }}
    />
  );
}

/** What belongs beside one cell; what is merely missing is not wrong yet. */
function problemAt(problem: Problem | null, field: string): string | undefined {
  return problem?.field === field && problem.code !== 'missing' ? problem.sentence : undefined;
}

/** Banks, row by row. */
export function VesselRows({
  title,
  kind,
  rows,
  problem,
  onRows,
  onAdd,
}: RowsProps<TypedVessel> & { readonly title: string; readonly kind: string }) {
  const change = (index: number, part: Partial<TypedVessel>) =>
    onRows(rows.map((row, at) => (at === index ? { ...row, ...part } : row)));
  return (
    <Box component="fieldset" sx={fieldset}>
      <Typography component="legend" variant="h3" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {rows.map((row, index) => (
        <Stack key={index} direction="row" sx={{ gap: 0.75, alignItems: 'start' }}>
          <Cell
            label={`Bank ${index + 1} size, L`}
            text={row.volumeL}
            onText={(volumeL) => change(index, { volumeL })}
            problem={problemAt(problem, `${kind}.${index}.volumeL`)}
          />
          <Cell
            label="bar"
            text={row.bar}
            onText={(bar) => change(index, { bar })}
            problem={problemAt(problem, `${kind}.${index}.bar`)}
          />
          <IconButton
            aria-label={`Remove bank ${index + 1}`}
            onClick={() => onRows(rows.filter((_, at) => at !== index))}
          >
            <CloseIcon fontSize="small" />
          </IconButton>
        </Stack>
      ))}
      <Button size="small" startIcon={<AddIcon />} onClick={onAdd} sx={{ alignSelf: 'start' }}>
        Add a bank
      </Button>
    </Box>
  );
}

/** Cylinders with their stamps, row by row. */
export function CylinderRows({ rows, problem, onRows, onAdd }: RowsProps<TypedCylinder>) {
  const change = (index: number, part: Partial<TypedCylinder>) =>
    onRows(rows.map((row, at) => (at === index ? { ...row, ...part } : row)));
  const at = (index: number, field: string) => problemAt(problem, `cylinders.${index}.${field}`);
  return (
    <Box component="fieldset" sx={fieldset}>
      <Typography component="legend" variant="h3" sx={{ mb: 1 }}>
        Cylinders
      </Typography>
      {rows.map((row, index) => (
        <Box key={index} sx={{ borderBottom: 1, borderColor: 'divider', pb: 1 }}>
          <Stack direction="row" sx={{ gap: 0.75, alignItems: 'start' }}>
            <Cell
              label={`Cylinder ${index + 1} size, L`}
              text={row.volumeL}
              onText={(volumeL) => change(index, { volumeL })}
              problem={at(index, 'volumeL')}
            />
            <Cell
              label="Now in it, bar"
              text={row.bar}
              onText={(bar) => change(index, { bar })}
              problem={at(index, 'bar')}
            />
            <IconButton
              aria-label={`Remove cylinder ${index + 1}`}
              onClick={() => onRows(rows.filter((_, one) => one !== index))}
            >
              <CloseIcon fontSize="small" />
            </IconButton>
          </Stack>
          <Stack direction="row" sx={{ gap: 0.75, alignItems: 'start', mt: 1 }}>
            <Cell
              label="Working pressure, bar"
              text={row.ratedBar}
              onText={(ratedBar) => change(index, { ratedBar })}
              problem={at(index, 'ratedBar')}
            />
            <DayField
              label="tested until"
              size="small"
              day={row.testedUntil}
              onDay={(testedUntil) => change(index, { testedUntil })}
              problem={at(index, 'testedUntil')}
              sx={{ flex: 1.2 }}
            />
          </Stack>
        </Box>
      ))}
      <Button size="small" startIcon={<AddIcon />} onClick={onAdd} sx={{ alignSelf: 'start' }}>
        Add a cylinder
      </Button>
    </Box>
  );
}

const fieldset = {
  border: 0,
  p: 0,
  m: 0,
  display: 'flex',
  flexDirection: 'column',
  gap: 1,
  minWidth: 0,
} as const;
