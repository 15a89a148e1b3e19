import { Box, Button } from '@mui/material';
import { lower } from '@entretien/core/basics';
import type { FieldDefinition } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { useState } from 'react';
import { usePreferences } from '../../data/preferences.js';
import { plateText, type CheckTexts } from './check-entries.js';
import { CheckField } from './CheckField.js';

interface CheckFieldsProps {
  readonly fields: readonly FieldDefinition[];
  readonly texts: CheckTexts;
  readonly onText: (code: string, text: string) => void;
  readonly problems: Readonly<Record<string, string>>;
  readonly plate?: DataPlate | undefined;
  /** The field that is asked for, by its code. */
  readonly asks?: string | undefined;
}

/** All inputs of a check: figures two in a row, choices across; what is seldom needed behind one press. */
export function CheckFields({ fields, texts, onText, problems, plate, asks }: CheckFieldsProps) {
  const units = usePreferences((preferences) => preferences.units);
  const [isMoreOpen, setMoreOpen] = useState(false);
  const isTouched = ({ code }: FieldDefinition) =>
    (texts[code] ?? '') !== '' || problems[code] !== undefined || asks === code;
  const isShown = (field: FieldDefinition) =>
    field.onAsking ? isTouched(field) : !field.more || isMoreOpen || isTouched(field);
  const hidden = fields.filter((field) => field.more && !isShown(field));
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(2, minmax(0, 1fr))',
        columnGap: 1.25,
        rowGap: 0.75,
        alignItems: 'start',
      }}
    >
      {fields.filter(isShown).map((field) => (
        <Box key={field.code} sx={{ gridColumn: isWide(field) ? '1 / -1' : 'auto', minWidth: 0 }}>
          <CheckField
            field={field}
            text={texts[field.code] ?? ''}
            onText={(text) => onText(field.code, text)}
            problem={problems[field.code]}
            fallback={plateText(field, plate, units)}
          />
        </Box>
      ))}
      {hidden.length > 0 && (
        <Box sx={{ gridColumn: '1 / -1' }}>
          <Button onClick={() => setMoreOpen(true)} sx={{ minHeight: 44, px: 0.5 }}>
            More figures: {describeHidden(hidden)}
          </Button>
        </Box>
      )}
    </Box>
  );
}

/** The first names of what is hidden, so that one knows whether to look. */
function describeHidden(hidden: readonly FieldDefinition[]): string {
  const names = hidden.slice(0, 2).map(({ name }) => lower(name));
  return `${names.join(', ')}${hidden.length > names.length ? ' …' : ''}`;
}

/** Choices, and figures whose unit would leave no room for them. */
function isWide(field: FieldDefinition): boolean {
  return field.as === 'choice' || (field.as === 'number' && field.unit.length > 6);
}
