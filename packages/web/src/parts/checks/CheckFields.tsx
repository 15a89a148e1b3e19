import { Box } from '@mui/material';
import type { FieldDefinition } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { usePreferences } from '../../app/preferences.js';
import { plateText, type CheckTexts } from './check-entries.js';
import { CheckField } from './CheckField.js';

interface CheckFieldsProps {
  readonly fields: readonly FieldDefinition[];
  readonly texts: CheckTexts;
  readonly onText: (code: string, text: string) => void;
  readonly problems: Readonly<Record<string, string>>;
  readonly plate?: DataPlate | undefined;
}

/** All inputs of a check: figures two in a row, choices across. */
export function CheckFields({ fields, texts, onText, problems, plate }: CheckFieldsProps) {
  const units = usePreferences((preferences) => preferences.units);
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
      {fields.map((field) => (
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
    </Box>
  );
}

/** Choices, and figures whose unit would leave no room for them. */
function isWide(field: FieldDefinition): boolean {
  return field.as === 'choice' || (field.as === 'number' && field.unit.length > 6);
}
