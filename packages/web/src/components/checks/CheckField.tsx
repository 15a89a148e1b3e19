import {
  Box,
  FormHelperText,
  InputAdornment,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import type { FieldDefinition } from '@entretien/core/checks';
import { formatQuantity, parseQuantity, storedUnit, unitByCode, unitsOf } from '@entretien/core/quantities';
import { describeDay } from '@entretien/core/basics';
import { useId } from 'react';
import { usePreferences } from '../../data/preferences.js';
import { DayField } from '../DayField.js';
import { SignToggle } from '../SignToggle.js';
import { figureFont } from '../theme/theme.js';
import { asTyped, withMeantUnit } from './implied-unit.js';

interface CheckFieldProps {
  readonly field: FieldDefinition;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly problem?: string | undefined;
  /** What counts while the field is empty. */
  readonly fallback?: string | undefined;
}

/** The input of one figure or finding of a check. What was typed is never changed or lost. */
export function CheckField(props: CheckFieldProps) {
  switch (props.field.as) {
    case 'choice':
      return <ChoiceField {...props} field={props.field} />;
    case 'date':
      return <DateField {...props} />;
    default:
      return <FigureField {...props} />;
  }
}

function DateField({ field, text, onText, problem, fallback }: CheckFieldProps) {
  const id = useId();
  return (
    <Box>
      <Typography component="label" htmlFor={id} variant="caption" sx={labelLook}>
        {field.name}
      </Typography>
      <DayField
        id={id}
        size="small"
        fullWidth
        day={text}
        onDay={onText}
        problem={problem}
        hint={fallback && text === '' ? 'from the data plate' : field.hint}
        placeholder={fallback === undefined ? (field.optional ? 'if known' : '') : describeDay(fallback)}
      />
    </Box>
  );
}

function FigureField({ field, text: kept, onText, problem, fallback }: CheckFieldProps) {
  const chosen = usePreferences(({ units }) => (field.as === 'quantity' ? units[field.quantity] : undefined));
  const readIn = field.as === 'quantity' ? unitByCode(field.quantity, chosen) : null;
  const text = readIn ? asTyped(kept, readIn) : kept;
  const unit =
    field.as === 'quantity'
      ? unitByCode(field.quantity, chosen).label
      : field.as === 'number'
        ? field.unit
        : '';
  const id = useId();
  const put = (typed: string) => onText(readIn ? withMeantUnit(typed, readIn) : typed);
  const mayBeNegative = (field.as === 'quantity' || field.as === 'number') && field.min < 0;
  const help =
    problem ??
    otherUnit(field, text, chosen) ??
    (fallback && text === '' ? 'from the data plate' : field.hint);
  return (
    <Box>
      <Typography component="label" htmlFor={id} variant="caption" sx={labelLook}>
        {field.name}
      </Typography>
      <TextField
        id={id}
        size="small"
        fullWidth
        value={text}
        onChange={({ target }) => put(target.value)}
        placeholder={fallback ?? (field.optional ? 'if known' : '')}
        error={problem !== undefined}
        helperText={help}
        slotProps={{
          htmlInput: {
            inputMode: field.as === 'text' ? 'text' : 'decimal',
            autoComplete: 'off',
            maxLength: field.as === 'text' ? field.maxLength : 40,
          },
          input: {
            sx: {
              ...figureFont,
              fontSize: '1.1rem',
              fontWeight: 600,
              // Taken from the plate it counts as well as if it were typed: it must be readable.
              '& input::placeholder':
                fallback === undefined ? { fontWeight: 400, fontSize: '0.9rem' } : { opacity: 0.8 },
            },
            startAdornment: mayBeNegative ? <SignToggle of={field.name} text={text} onText={put} /> : null,
            endAdornment:
              unit === '' || (field.as === 'quantity' && /[^\d.,'’\s+-]/.test(text)) ? null : (
                <InputAdornment position="end">{unit}</InputAdornment>
              ),
          },
          formHelperText: {
            role: problem === undefined ? undefined : 'alert',
            sx: { mx: 0, mt: 0.25, lineHeight: 1.25 },
          },
        }}
      />
    </Box>
  );
}

const labelLook = { color: 'text.secondary', display: 'block', mb: 0.25, lineHeight: 1.25 } as const;

/** The figure in another unit than the one it was typed in. */
function otherUnit(field: FieldDefinition, text: string, chosen: string | undefined): string | undefined {
  if (field.as !== 'quantity' || text.trim() === '') return undefined;
  const parsed = parseQuantity(text, field.quantity, { assumed: unitByCode(field.quantity, chosen) });
  if (!parsed.ok) return undefined;
  const stored = storedUnit(field.quantity);
  const other =
    parsed.value.unit === stored && parsed.value.reference === undefined
      ? unitsOf(field.quantity)[1]
      : stored;
  if (!other) return undefined;
  const shown = formatQuantity(parsed.value.value, field.quantity, other);
  const from = parsed.value.reference === undefined ? '' : `, from ${parsed.value.reference}`;
  return `= ${shown.figure} ${shown.unit}${from}`;
}

function ChoiceField({
  field,
  text,
  onText,
  problem,
}: CheckFieldProps & { readonly field: Extract<FieldDefinition, { as: 'choice' }> }) {
  const id = useId();
  return (
    <Box>
      <Typography id={id} variant="caption" sx={labelLook}>
        {field.name}
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={text}
        onChange={(_event, next: string | null) => onText(next ?? '')}
        aria-labelledby={id}
        sx={{
          flexWrap: 'wrap',
          gap: 0.5,
          '& .MuiToggleButton-root': {
            minHeight: 44,
            px: 1.5,
            textTransform: 'none',
            lineHeight: 1.2,
            border: '1px solid var(--mui-palette-strongRule) !important',
            borderRadius: '5px !important',
            ml: '0 !important',
            color: 'text.primary',
          },
          '& .MuiToggleButton-root.Mui-selected, & .MuiToggleButton-root.Mui-selected:hover': {
            bgcolor: 'primary.main',
            color: 'primary.contrastText',
          },
        }}
      >
        {field.options.map((option) => (
          <ToggleButton key={option.code} value={option.code}>
            {option.name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <FormHelperText
        error={problem !== undefined}
        role={problem === undefined ? undefined : 'alert'}
        sx={{ mt: 0.25 }}
      >
        {problem ?? field.hint ?? ''}
      </FormHelperText>
    </Box>
  );
}
