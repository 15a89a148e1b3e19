import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Typography } from '@mui/material';
import { PlateDetails, ChangePlate, type CompressorView } from '@entretien/contracts';
import { useForm, type FieldError } from 'react-hook-form';
import { FormDialog } from '../../components/FormDialog.js';
import { PlateInput } from '../../components/PlateInputs.js';
import { WhenField } from '../../components/WhenField.js';
import { allPlateGroups, fieldsFor } from '../../components/plate-fields.js';
import { useFactForm } from '../../components/use-fact-form.js';

interface EditPlateProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  readonly onClose: () => void;
}

const allFields = allPlateGroups.flatMap((group) => group.fields);

/** Says what has changed on the data plate, and since when: what held before stays true for before. */
export function EditPlateDialog({ unit, timeZone, onClose }: EditPlateProps) {
  const before = Object.fromEntries(allFields.map(({ name }) => [name, unit[name]])) as PlateDetails;
  const form = useForm<PlateDetails>({
    defaultValues: before,
    resolver: classValidatorResolver(PlateDetails),
    mode: 'onTouched',
  });
  const fact = useFactForm<ChangePlate>(ChangePlate, `/compressors/${unit.id}/plate`, timeZone, onClose);
  const send = form.handleSubmit((values) => {
    const changes = allFields
      .filter(({ name }) => JSON.stringify(values[name] ?? null) !== JSON.stringify(before[name] ?? null))
      .map(({ name }) => [name, values[name] ?? null]);
    if (changes.length === 0) onClose();
    else if (fact.when !== null)
      fact.send({ changedAt: new Date(fact.when).toISOString(), ...Object.fromEntries(changes) });
  });
  const refused = allFields.flatMap(({ name, label }) => {
    const problem = fact.problemOf(name);
    return problem === undefined ? [] : [`${label}: ${problem}`];
  });
  const firstWrong = Object.values(form.formState.errors)[0] as FieldError | undefined;
  return (
    <FormDialog
      title={`Data plate of ${unit.tag}`}
      submit="Save changes"
      wide
      canSubmit={fact.when !== null}
      isSending={fact.isSending}
      problem={fact.generalProblem ?? refused[0] ?? firstWrong?.message ?? null}
      onClose={onClose}
      onSubmit={() => void send()}
    >
      <WhenField
        label="True since"
        text={fact.whenText}
        onText={fact.setWhenText}
        problem={fact.when === null ? 'Say since when.' : fact.problemOf('changedAt')}
        sx={{ maxWidth: 280 }}
      />
      {allPlateGroups.map(({ title, fields }) => (
        <Box key={title}>
          <Typography variant="h3" sx={{ mb: 1 }}>
            {title}
          </Typography>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', md: '1fr 1fr 1fr' },
              columnGap: 2,
              rowGap: 0.5,
            }}
          >
            {fieldsFor(fields, unit.family).map((field) => (
              <PlateInput key={field.name} field={field} control={form.control} />
            ))}
          </Box>
        </Box>
      ))}
    </FormDialog>
  );
}
