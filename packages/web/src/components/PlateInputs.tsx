import { MenuItem, TextField, type TextFieldProps } from '@mui/material';
import { readNumber, type QuantityKind } from '@entretien/core/quantities';
import { useState } from 'react';
import { Controller, type Control, type FieldValues, type Path } from 'react-hook-form';
import { ClosuresInput } from './ClosuresInput.js';
import { choiceText, weekdayNames, type PlateField } from './plate-fields.js';
import { entryOf, QuantityField } from './QuantityField.js';

interface InputProps<Values extends FieldValues> {
  readonly field: PlateField;
  readonly control: Control<Values>;
}

/** The input of one field of the data plate, bound to its form. */
export function PlateInput<Values extends FieldValues>({ field, control }: InputProps<Values>) {
  return (
    <Controller
      control={control}
      name={field.name as Path<Values>}
      render={({ field: bound, fieldState }) => {
        const message = fieldState.error?.message;
        const shared = {
          label: field.label,
          fullWidth: true,
          size: 'small' as const,
          error: message !== undefined,
          helperText: message ?? field.hint ?? ' ',
          inputRef: bound.ref,
        };
        const text = (bound.value as string | number | null | undefined) ?? '';
        switch (field.as) {
          case 'quantity':
            return (
              <FormQuantity
                label={field.label}
                kind={field.kind}
                max={field.max}
                hint={field.hint}
                initial={bound.value as number | null | undefined}
                onValue={bound.onChange}
                problem={message}
              />
            );
          case 'choice':
            return (
              <TextField
                {...shared}
                select
                value={text}
                onChange={(event) => bound.onChange(event.target.value || undefined)}
              >
                <MenuItem value="">not known</MenuItem>
                {field.options.map((option) => (
                  <MenuItem key={option} value={option}>
                    {choiceText(option)}
                  </MenuItem>
                ))}
              </TextField>
            );
          case 'flag':
            return (
              <TextField
                {...shared}
                select
                value={bound.value === undefined || bound.value === null ? '' : String(bound.value)}
                onChange={(event) =>
                  bound.onChange(event.target.value === '' ? undefined : event.target.value === 'true')
                }
              >
                <MenuItem value="">not known</MenuItem>
                <MenuItem value="true">yes</MenuItem>
                <MenuItem value="false">no</MenuItem>
              </TextField>
            );
          case 'weekdays':
            return (
              <WeekdaysInput {...shared} chosen={bound.value as number[] | null} onValue={bound.onChange} />
            );
          case 'closures':
            return (
              <ClosuresInput
                label={field.label}
                initial={bound.value as string[] | null | undefined}
                onValue={bound.onChange}
                problem={message}
              />
            );
          case 'names':
            return (
              <ListInput
                {...shared}
                initial={bound.value as string[] | null | undefined}
                onValue={bound.onChange}
              />
            );
          case 'figure':
            return (
              <FigureInput
                {...shared}
                label={`${field.label}, ${field.unit}`}
                initial={bound.value as number | null | undefined}
                onValue={bound.onChange}
                max={field.max}
                wrong={message}
              />
            );
          case 'whole':
            return (
              <TextField
                {...shared}
                value={text}
                onChange={(event) =>
                  bound.onChange(event.target.value === '' ? undefined : Number(event.target.value))
                }
                slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 2 } }}
              />
            );
          case 'text':
            return (
              <TextField
                {...shared}
                value={text}
                onChange={(event) => bound.onChange(event.target.value || undefined)}
                slotProps={{ htmlInput: { maxLength: 120 } }}
              />
            );
        }
      }}
    />
  );
}

interface WeekdaysInputProps extends Omit<TextFieldProps, 'value' | 'onChange'> {
  readonly chosen: readonly number[] | null | undefined;
  readonly onValue: (weekdays: readonly number[] | undefined) => void;
}

function WeekdaysInput({ chosen, onValue, ...field }: WeekdaysInputProps) {
  return (
    <TextField
      {...field}
      select
      value={chosen ?? []}
      onChange={(event) => {
        const next = event.target.value as unknown as number[];
        onValue(next.length === 0 ? undefined : [...next].sort((a, b) => a - b));
      }}
      slotProps={{ select: { multiple: true } }}
    >
      {weekdayNames.map((name, index) => (
        <MenuItem key={name} value={index + 1}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface FigureInputProps extends Omit<TextFieldProps, 'value' | 'onChange'> {
  readonly initial: number | null | undefined;
  readonly max: number;
  readonly wrong: string | undefined;
  /** NaN while what is typed is not understood, so that the form cannot be sent. */
  readonly onValue: (value: number | undefined) => void;
}

/** A figure whose unit nobody converts, kept as typed. */
function FigureInput({ initial, max, wrong, onValue, ...field }: FigureInputProps) {
  const [text, setText] = useState(() =>
    initial === undefined || initial === null || Number.isNaN(initial) ? '' : String(initial),
  );
  const [problem, setProblem] = useState<string | null>(null);
  const hint = problem ?? wrong ?? null;
  return (
    <TextField
      {...field}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const read = readNumber(event.target.value);
        const isEmpty = event.target.value.trim() === '';
        const sentence = isEmpty
          ? null
          : !read.ok
            ? read.problem.sentence
            : read.value < 0 || read.value > max
              ? `From 0 to ${max}.`
              : null;
        setProblem(sentence);
        onValue(isEmpty ? undefined : sentence === null && read.ok ? read.value : Number.NaN);
      }}
      error={hint !== null}
      helperText={hint ?? ' '}
      slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 12 } }}
    />
  );
}

interface ListInputProps extends Omit<TextFieldProps, 'value' | 'onChange'> {
  readonly initial: readonly string[] | null | undefined;
  readonly onValue: (value: string[] | undefined) => void;
}

/** A list as one text, with commas: kept as typed, given to the form as a list. */
function ListInput({ initial, onValue, ...field }: ListInputProps) {
  const [text, setText] = useState(() => (initial ?? []).join(', '));
  return (
    <TextField
      {...field}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const parts = event.target.value
          .split(',')
          .map((part) => part.trim())
          .filter(Boolean);
        onValue(parts.length === 0 ? undefined : parts);
      }}
      slotProps={{ htmlInput: { maxLength: 800 } }}
    />
  );
}

interface FormQuantityProps {
  readonly label: string;
  readonly kind: QuantityKind;
  readonly max: number;
  readonly hint?: string | undefined;
  readonly initial: number | null | undefined;
  /** NaN while what is typed is not understood, so that the form cannot be sent. */
  readonly onValue: (value: number | undefined) => void;
  readonly problem?: string | undefined;
}

/** A quantity field that keeps the text as typed and gives its form the figure. */
export function FormQuantity({ initial, onValue, max, hint, problem, ...field }: FormQuantityProps) {
  const [entry, setEntry] = useState(() => entryOf(Number.isNaN(initial) ? undefined : initial, field.kind));
  return (
    <QuantityField
      {...field}
      {...(hint === undefined ? {} : { hint })}
      fullWidth
      size="small"
      min={0}
      max={max}
      entry={entry}
      problem={problem ?? null}
      onEntry={(next) => {
        setEntry(next);
        onValue(next.problem === null ? (next.value ?? undefined) : Number.NaN);
      }}
    />
  );
}
