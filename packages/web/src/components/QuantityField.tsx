import { InputAdornment, TextField, type TextFieldProps } from '@mui/material';
import {
  formatQuantity,
  parseQuantity,
  storedUnit,
  typedFigure,
  unitByCode,
  unitsOf,
  type QuantityKind,
} from '@entretien/core/quantities';
import { usePreferences } from '../data/preferences.js';
import { SignToggle } from './SignToggle.js';
import { figureFont } from './theme/theme.js';

/** What stands in a quantity field: the text as typed, and what it means in the stored unit. */
export interface QuantityEntry {
  readonly text: string;
  /** Null while empty or not understood. */
  readonly value: number | null;
  /** The sentence that says what is wrong with the text; null when it is fine or empty. */
  readonly problem: string | null;
}

export const emptyEntry: QuantityEntry = { text: '', value: null, problem: null };

/** An entry for a figure that is known already, written in the unit that the person reads in. */
export function entryOf(stored: number | undefined | null, kind: QuantityKind): QuantityEntry {
  if (stored === undefined || stored === null) return emptyEntry;
  const unit = unitByCode(kind, usePreferences.getState().units[kind]);
  const { figure } = formatQuantity(stored, kind, unit, { figures: 6 });
  return { text: typedFigure(figure), value: stored, problem: null };
}

interface QuantityFieldProps extends Omit<TextFieldProps, 'value' | 'onChange' | 'error'> {
  readonly kind: QuantityKind;
  readonly entry: QuantityEntry;
  readonly onEntry: (entry: QuantityEntry) => void;
  readonly min?: number;
  readonly max?: number;
  /** A sentence from elsewhere that belongs beside this field. */
  readonly problem?: string | null | undefined;
  /** What to say while there is nothing to say of the figure itself. */
  readonly hint?: string;
}

/**
 * Understands "145 psi", "10 bar" or just "10", shows the other unit under the field, and refuses nonsense
 * with a sentence. What was typed is never changed or lost.
 */
export function QuantityField({
  kind,
  entry,
  onEntry,
  min,
  max,
  problem,
  hint,
  ...field
}: QuantityFieldProps) {
  const chosen = usePreferences((preferences) => preferences.units[kind]);
  const assumed = unitByCode(kind, chosen);
  const read = (text: string): QuantityEntry => {
    if (text.trim() === '') return { text, value: null, problem: null };
    const bounds = { ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
    const outcome = parseQuantity(text, kind, { assumed, ...bounds });
    return outcome.ok
      ? { text, value: outcome.value.value, problem: null }
      : { text, value: null, problem: outcome.problem.sentence };
  };
  const mayBeNegative = min === undefined ? kind === 'temperature' : min < 0;
  const wrong = entry.problem ?? problem ?? null;
  return (
    <TextField
      {...field}
      value={entry.text}
      onChange={(event) => onEntry(read(event.target.value))}
      error={wrong !== null}
      helperText={wrong ?? otherUnit(entry, kind, assumed.code) ?? hint ?? ' '}
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', maxLength: 40 },
        input: {
          sx: { ...figureFont, fontSize: '1.15rem', fontWeight: 600 },
          startAdornment: mayBeNegative ? (
            <SignToggle
              of={typeof field.label === 'string' ? field.label : 'the figure'}
              text={entry.text}
              onText={(text) => onEntry(read(text))}
            />
          ) : null,
          // Once a unit is typed, the assumed one would contradict it.
          endAdornment: /[^\d.,'’\s+-]/.test(entry.text) ? null : (
            <InputAdornment position="end">{assumed.label}</InputAdornment>
          ),
        },
        formHelperText: { role: wrong === null ? undefined : 'alert' },
      }}
    />
  );
}

/** The figure in another unit than the one it was typed in; null where there is no other. */
function otherUnit({ value, text }: QuantityEntry, kind: QuantityKind, assumedCode: string): string | null {
  if (value === null || kind === 'hours') return null;
  const parsed = parseQuantity(text, kind, { assumed: unitByCode(kind, assumedCode) });
  const typed = parsed.ok ? parsed.value.unit : storedUnit(kind);
  const isStated = parsed.ok && parsed.value.reference !== undefined;
  const other = typed === storedUnit(kind) && !isStated ? unitsOf(kind)[1] : storedUnit(kind);
  if (!other) return null;
  const { figure, unit } = formatQuantity(value, kind, other);
  const from = parsed.ok && parsed.value.reference ? `, from ${parsed.value.reference}` : '';
  return `= ${figure} ${unit}${from}`;
}
