import { Autocomplete, Box, MenuItem, TextField } from '@mui/material';
import { formatMoment } from '@entretien/core/basics';
import { readImportRow } from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import type { ChosenList, ImportOptions } from './import-options.js';

interface FormProps {
  readonly list: ChosenList;
  readonly options: ImportOptions;
  readonly onChange: (options: ImportOptions) => void;
}

const columnFields = [
  ['unitColumn', 'Unit (tag)', true],
  ['dateColumn', 'Date', true],
  ['timeColumn', 'Time', false],
  ['hoursColumn', 'Hours', true],
  ['countsColumn', 'Counter', false],
  ['noteColumn', 'Note', false],
] as const;

const zones = Intl.supportedValuesOf('timeZone');

/** Which column is what, and how figures and dates are written: guessed, stated, and open to change. */
export function ImportOptionsForm({ list, options, onChange }: FormProps) {
  const set = (change: Partial<ImportOptions>) => onChange({ ...options, ...change });
  return (
    <Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'repeat(2, minmax(0, 1fr))', md: 'repeat(3, minmax(0, 1fr))' },
          gap: 1.5,
          pt: 1,
        }}
      >
        {columnFields.map(([name, label, isNeeded]) => (
          <TextField
            key={name}
            select
            label={label}
            value={options[name]}
            onChange={(event) => set({ [name]: event.target.value })}
            error={isNeeded && options[name] === ''}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">{isNeeded ? 'choose a column' : 'none'}</MenuItem>
            {list.columns.map((title, index) => (
              <MenuItem key={index} value={title}>
                {title || `column ${index + 1}`}
              </MenuItem>
            ))}
          </TextField>
        ))}
        <TextField
          select
          label="Decimal sign"
          value={options.decimal}
          onChange={(event) => set({ decimal: event.target.value as ImportOptions['decimal'] })}
        >
          <MenuItem value="point">point: 1234.5</MenuItem>
          <MenuItem value="comma">comma: 1234,5</MenuItem>
        </TextField>
        <TextField
          select
          label="Dates are written"
          value={options.dateOrder}
          onChange={(event) => set({ dateOrder: event.target.value as ImportOptions['dateOrder'] })}
        >
          <MenuItem value="ymd">year first: 2026-11-24</MenuItem>
          <MenuItem value="dmy">day first: 24.11.2026</MenuItem>
          <MenuItem value="mdy">month first: 11/24/2026</MenuItem>
        </TextField>
        <Autocomplete
          options={zones}
          value={options.timeZone}
          disableClearable
          onChange={(_event, timeZone) => set({ timeZone })}
          renderInput={(params) => <TextField {...params} label="Time zone of the list" />}
        />
      </Box>
      <FirstRow list={list} options={options} />
    </Box>
  );
}

/** The first row as it is understood: the surest way to see that the options are right. */
function FirstRow({ list, options }: Omit<FormProps, 'onChange'>) {
  const [row] = list.sample;
  if (!row) return null;
  const index = (title: string) => (title === '' ? null : list.columns.indexOf(title));
  const [unit, date, hours] = [options.unitColumn, options.dateColumn, options.hoursColumn].map(index);
  if (unit === null || date === null || hours === null) return null;
  const read = readImportRow(row, {
    unit: unit!,
    date: date!,
    hours: hours!,
    time: index(options.timeColumn),
    counts: index(options.countsColumn),
    note: index(options.noteColumn),
    decimal: options.decimal,
    dateOrder: options.dateOrder,
    timeZone: options.timeZone,
  });
  return (
    <Box role="status" sx={{ typography: 'body2', color: read.ok ? 'slate' : 'oxide', mt: 1 }}>
      {read.ok
        ? `The first row reads: ${read.value.unit}, ${formatFigure(read.value.hours, { figures: 7, maxDecimals: 1 })} h on ${formatMoment(read.value.takenAt, options.timeZone)}.`
        : `The first row cannot be read: ${read.problem.sentence}`}
    </Box>
  );
}
