import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, FormHelperText, IconButton, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { DayField } from './DayField.js';

interface ClosuresInputProps {
  readonly label: string;
  /** Each by its first and last day, like `2026-07-20/2026-08-02`. */
  readonly initial: readonly string[] | null | undefined;
  readonly onValue: (closures: string[] | undefined) => void;
  readonly problem?: string | undefined;
  /** So many at most. */
  readonly most?: number;
  /** What the button says that adds one. */
  readonly add?: string;
}

type Closure = readonly [first: string, last: string];

const MOST = 30;

/** When nothing runs: days from and to, as many as there are. */
export function ClosuresInput({
  label,
  initial,
  onValue,
  problem,
  most = MOST,
  add = 'Add a closure',
}: ClosuresInputProps) {
  const [closures, setClosures] = useState<readonly Closure[]>(() =>
    (initial ?? []).map((text) => text.split('/') as [string, string]),
  );
  const put = (next: readonly Closure[]) => {
    setClosures(next);
    // A row that was only begun says nothing yet; one with half of it is not understood, and says so.
    const said = next.filter(([first, last]) => first !== '' || last !== '');
    onValue(said.length === 0 ? undefined : said.map((days) => days.join('/')));
  };
  const change = (index: number, part: 0 | 1, day: string) =>
    put(
      closures.map((days, place) =>
        place === index ? (part === 0 ? [day, days[1]] : [days[0], day]) : days,
      ),
    );
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mb: 0.5 }}>
        {label}
      </Typography>
      {closures.map(([first, last], index) => (
        <Stack key={index} direction="row" sx={{ gap: 1, alignItems: 'start', mb: 1 }}>
          <DayField label="First day" size="small" day={first} onDay={(day) => change(index, 0, day)} />
          <DayField label="Last day" size="small" day={last} onDay={(day) => change(index, 1, day)} />
          <IconButton
            aria-label={`Delete closure ${index + 1}`}
            onClick={() => put(closures.filter((_days, place) => place !== index))}
            sx={{ width: 44, height: 44, flex: 'none' }}
          >
            <DeleteIcon fontSize="small" />
          </IconButton>
        </Stack>
      ))}
      {closures.length < most && (
        <Button
          variant="outlined"
          size="small"
          onClick={() => setClosures([...closures, ['', '']])}
          sx={{ minHeight: 44 }}
        >
          {add}
        </Button>
      )}
      <FormHelperText error={problem !== undefined} role={problem === undefined ? undefined : 'alert'}>
        {problem ?? ' '}
      </FormHelperText>
    </Box>
  );
}
