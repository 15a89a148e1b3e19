import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { RegisterCompressor } from '@entretien/contracts';
import { families, historyKinds, stageBounds, type Family } from '@entretien/core/machine';
import { useState } from 'react';
import { Controller, type Control, type Path } from 'react-hook-form';
import { useSites } from '../../data/queries.js';
import { DayField } from '../../components/DayField.js';
import { PlateInput } from '../../components/PlateInputs.js';
import { QuantityField, type QuantityEntry } from '../../components/QuantityField.js';
import { SiteDialog } from './SiteDialog.js';
import { familyName, fieldsFor, hourFields, plateGroups } from '../../components/plate-fields.js';

const grid = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
  columnGap: 2,
  rowGap: 1.25,
};

const historyText = { new: 'known from new', unknown: 'not known: it is taken over' } as const;

interface StepProps {
  readonly control: Control<RegisterCompressor>;
}

interface WhichMachineProps extends StepProps {
  /** Nobody knows when such a machine was commissioned. */
  readonly isTakenOver: boolean;
  readonly onSite: (siteId: string) => void;
}

export function WhichMachine({ control, isTakenOver, onSite }: WhichMachineProps) {
  const { data: sites = [] } = useSites();
  const [siteShown, setSiteShown] = useState(false);
  return (
    <Box sx={grid}>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'start' }}>
        <Field
          control={control}
          name="siteId"
          label="Site"
          options={sites.map((site) => [site.id, site.name])}
          message="Choose the site it stands at."
        />
        <Button onClick={() => setSiteShown(true)} sx={{ flex: 'none' }}>
          New site
        </Button>
      </Stack>
      <Field
        control={control}
        name="tag"
        label="Tag"
        hint="What is written on it, like CJ-1."
        message="Give it a tag of at most 24 characters."
      />
      <Field
        control={control}
        name="family"
        label="Family"
        options={families.map((family) => [family, familyName(family)])}
      />
      <Field
        control={control}
        name="history"
        label="Its service history is"
        options={historyKinds.map((kind) => [kind, historyText[kind]])}
        hint="Not known: the last step asks what its sticker says."
      />
      {!isTakenOver && (
        <Field
          control={control}
          name="commissionedOn"
          label="Commissioned on"
          type="date"
          message="Say the day it was commissioned."
        />
      )}
      {siteShown && <SiteDialog onClose={() => setSiteShown(false)} onSaved={(site) => onSite(site.id)} />}
    </Box>
  );
}

interface FieldProps extends StepProps {
  readonly name: Path<RegisterCompressor>;
  readonly label: string;
  readonly type?: 'date';
  readonly options?: readonly (readonly [string, string])[];
  readonly hint?: string;
  /** Said instead of the contract's own words where those are for programs. */
  readonly message?: string;
}

function Field({ control, name, label, type, options, hint, message }: FieldProps) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) =>
        type === 'date' ? (
          <DayField
            label={label}
            fullWidth
            size="small"
            day={typeof field.value === 'string' ? field.value : ''}
            onDay={field.onChange}
            onBlur={field.onBlur}
            inputRef={field.ref}
            problem={fieldState.error ? (message ?? fieldState.error.message) : null}
            hint={hint ?? ' '}
          />
        ) : (
          <TextField
            label={label}
            fullWidth
            size="small"
            select={options !== undefined}
            value={options && !options.some(([value]) => value === field.value) ? '' : (field.value ?? '')}
            inputRef={field.ref}
            onBlur={field.onBlur}
            onChange={(event) => field.onChange(event.target.value)}
            error={fieldState.error !== undefined}
            helperText={
              fieldState.error
                ? fieldState.error.type === undefined || field.value
                  ? (fieldState.error.message ?? message)
                  : (message ?? fieldState.error.message)
                : (hint ?? ' ')
            }
            slotProps={{ htmlInput: { maxLength: 120 } }}
          >
            {options?.map(([value, text]) => (
              <MenuItem key={value} value={value}>
                {text}
              </MenuItem>
            ))}
          </TextField>
        )
      }
    />
  );
}

export function Plate({ control, family }: StepProps & { readonly family: Family }) {
  const { usual } = stageBounds[family];
  return (
    <Stack spacing={2}>
      <Typography sx={{ color: 'text.secondary' }}>
        Fill in what the plate says; leave the rest. While the stages are not known it is taken to have{' '}
        {usual}.
      </Typography>
      {plateGroups.map(({ title, fields }) => (
        <Box key={title}>
          <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
            {title}
          </Typography>
          <Box sx={{ ...grid, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', md: '1fr 1fr 1fr' } }}>
            {fieldsFor(fields, family).map((field) => (
              <PlateInput key={field.name} field={field} control={control} />
            ))}
          </Box>
        </Box>
      ))}
    </Stack>
  );
}

interface HoursProps extends StepProps {
  readonly family: Family;
  readonly reading: QuantityEntry;
  readonly onReading: (entry: QuantityEntry) => void;
}

export function Hours({ control, family, reading, onReading }: HoursProps) {
  return (
    <Box sx={grid}>
      {fieldsFor(hourFields, family).map((field) => (
        <PlateInput key={field.name} field={field} control={control} />
      ))}
      <QuantityField
        label="Figure on the meter now"
        size="small"
        kind="hours"
        entry={reading}
        onEntry={onReading}
        min={0}
        max={1_000_000}
        hint="Its hours are counted from this figure. It can be read later, too."
      />
    </Box>
  );
}
