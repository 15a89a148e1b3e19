import { Box, Button } from '@mui/material';
import {
  dayOrders,
  decimalSigns,
  type DayOrder,
  type DecimalSign,
  type Formats,
} from '@entretien/core/basics';
import { unitsOf, type QuantityKind } from '@entretien/core/quantities';

const measures: readonly (readonly [QuantityKind, string])[] = [
  ['pressure', 'Pressure'],
  ['flow', 'Flow'],
  ['volume', 'Volume'],
  ['temperature', 'Temperature'],
  ['length', 'Length'],
];

const dayExamples: Readonly<Record<DayOrder, string>> = {
  'day-month': '5 Dec',
  'month-day': 'Dec 5',
  'year-first': '2026-12-05',
};
const figureExamples: Readonly<Record<DecimalSign, string>> = { point: '1,234.5', comma: '1 234,5' };

interface ChoiceProps {
  readonly name: string;
  readonly options: readonly (readonly [string, string])[];
  readonly value: string;
  readonly onChoose: (code: string) => void;
}

/** One of a few, all in sight. */
export function Choice({ name, options, value, onChoose }: ChoiceProps) {
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 0.5, py: 0.25 }}
    >
      <Box sx={{ width: 98, color: 'text.secondary', typography: 'body2' }}>{name}</Box>
      {options.map(([code, label]) => (
        <Button
          key={code}
          size="small"
          variant={code === value ? 'contained' : 'text'}
          aria-pressed={code === value}
          onClick={() => onChoose(code)}
          sx={{ minWidth: { xs: 40, md: 32 }, px: 1, minHeight: { xs: 44, md: 30 } }}
        >
          {label}
        </Button>
      ))}
    </Box>
  );
}

interface UnitChoicesProps {
  readonly units: Readonly<Partial<Record<QuantityKind, string>>>;
  readonly onUnit: (kind: QuantityKind, code: string) => void;
}

/** What quantities are read and written in. */
export function UnitChoices({ units, onUnit }: UnitChoicesProps) {
  return measures.map(([kind, name]) => (
    <Choice
      key={kind}
      name={name}
      options={unitsOf(kind).map((unit) => [unit.code, unit.label] as const)}
      value={units[kind] ?? unitsOf(kind)[0].code}
      onChoose={(code) => onUnit(kind, code)}
    />
  ));
}

interface FormatChoicesProps {
  readonly formats: Formats;
  readonly onFormats: (chosen: Partial<Formats>) => void;
}

/** How days and figures are written. */
export function FormatChoices({ formats, onFormats }: FormatChoicesProps) {
  return (
    <>
      <Choice
        name="Days"
        options={dayOrders.map((order) => [order, dayExamples[order]] as const)}
        value={formats.dayOrder}
        onChoose={(code) => onFormats({ dayOrder: code as DayOrder })}
      />
      <Choice
        name="Figures"
        options={decimalSigns.map((sign) => [sign, figureExamples[sign]] as const)}
        value={formats.decimal}
        onChoose={(code) => onFormats({ decimal: code as DecimalSign })}
      />
    </>
  );
}
