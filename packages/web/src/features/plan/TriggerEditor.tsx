import { Box, Button, IconButton, MenuItem, Stack, TextField, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import type { DataPlate } from '@entretien/core/machine';
import { triggerKinds, triggerModuleOf, type Trigger } from '@entretien/core/plan';
import { useState } from 'react';
import {
  fieldsOfTrigger,
  formOf,
  heldFirst,
  newTrigger,
  readTrigger,
  type TriggerForm,
} from './trigger-form.js';

interface TriggerListProps {
  readonly triggers: readonly Trigger[];
  readonly plate: DataPlate;
  /** Null while something typed is not understood. */
  readonly onChange: (triggers: readonly Trigger[] | null) => void;
}

/** The triggers of a task, each with its fields; the first to come rules. */
export function TriggerList({ triggers, plate, onChange }: TriggerListProps) {
  const [forms, setForms] = useState(() =>
    triggers.map((trigger, index) => ({
      key: index,
      form: formOf(trigger, plate),
      before: trigger as Trigger | undefined,
    })),
  );
  const change = (next: typeof forms) => {
    setForms(next);
    const read = next.map(({ form, before }) => readTrigger(form, plate, before));
    onChange(read.every((one) => one.ok) ? read.map((one) => one.trigger) : null);
  };
  const set = (key: number, form: TriggerForm) =>
    change(forms.map((one) => (one.key === key ? { ...one, form } : one)));
  return (
    <Box>
      {forms.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
          No interval: it is done on failure.
        </Typography>
      )}
      {forms.map(({ key, form, before }, index) => (
        <Box key={key}>
          {index > 0 && (
            <Typography variant="body2" sx={{ color: 'text.secondary', my: 0.5 }}>
              or, whichever comes first
            </Typography>
          )}
          <Stack direction="row" sx={{ alignItems: 'start', gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <TriggerFields form={form} before={before} plate={plate} onForm={(next) => set(key, next)} />
            </Box>
            <IconButton
              aria-label={`Remove: ${triggerModuleOf(form).name}`}
              onClick={() => change(forms.filter((one) => one.key !== key))}
            >
              <DeleteOutlineIcon />
            </IconButton>
          </Stack>
        </Box>
      ))}
      <TextField
        select
        size="small"
        label="Add a trigger"
        value=""
        onChange={(event) => {
          const kind = event.target.value as Trigger['kind'];
          const key = Math.max(-1, ...forms.map((one) => one.key)) + 1;
          change([...forms, { key, form: newTrigger(kind, plate), before: undefined }]);
        }}
        sx={{ mt: 1, minWidth: 200 }}
      >
        {triggerKinds.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {triggerModuleOf({ kind }).name}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  );
}

interface TriggerFieldsProps {
  readonly form: TriggerForm;
  readonly before: Trigger | undefined;
  readonly plate: DataPlate;
  readonly onForm: (form: TriggerForm) => void;
}

function TriggerFields({ form, before, plate, onForm }: TriggerFieldsProps) {
  const read = readTrigger(form, plate, before);
  const problems = read.ok ? {} : read.problems;
  const kept = before?.kind === form.kind ? (before as unknown as Record<string, Trigger>) : {};
  /** What it cannot do without stands above its fields, what may be added below them. */
  const held = (isOptional: boolean) =>
    triggerModuleOf(form).fields.map(
      (field) =>
        field.as === 'trigger' &&
        (field.isOptional ?? false) === isOptional && (
          <Box key={field.name} sx={{ mb: 1 }}>
            {field.label && (
              <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
                {field.label}
              </Typography>
            )}
            {form.inner?.[field.name] && (
              <HeldTrigger
                kinds={field.kinds as Trigger['kind'][]}
                form={form.inner[field.name]!}
                before={kept[field.name]}
                plate={plate}
                onForm={(next) => onForm({ ...form, inner: { ...form.inner, [field.name]: next } })}
              />
            )}
            {field.isOptional && (
              <Button
                size="small"
                onClick={() => onForm({ ...form, inner: toggled(form.inner, field, plate) })}
              >
                {form.inner?.[field.name] ? 'Remove it' : 'Add an interval'}
              </Button>
            )}
          </Box>
        ),
    );
  return (
    <Box>
      {held(false)}
      <Box
        role="group"
        aria-label={triggerModuleOf(form).name}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(auto-fill, minmax(150px, 1fr))' },
          gap: 1,
          alignItems: 'start',
        }}
      >
        {fieldsOfTrigger(form, plate).map((field) => (
          <TextField
            key={field.name}
            size="small"
            select={field.options !== undefined}
            label={field.unit ? `${field.label}, ${field.unit}` : field.label}
            value={form.texts[field.name] ?? ''}
            onChange={(event) =>
              onForm({ ...form, texts: { ...form.texts, [field.name]: event.target.value } })
            }
            error={problems[field.name] !== undefined}
            helperText={problems[field.name] ?? field.hint ?? (field.isOptional ? 'may stay empty' : ' ')}
            slotProps={{
              htmlInput: field.options ? {} : { inputMode: 'decimal', autoComplete: 'off', maxLength: 200 },
              formHelperText: { role: problems[field.name] === undefined ? undefined : 'alert' },
            }}
          >
            {field.options?.map(([value, name]) => (
              <MenuItem key={value} value={value}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Box>
      {held(true)}
    </Box>
  );
}

interface HeldTriggerProps extends TriggerFieldsProps {
  readonly kinds: readonly Trigger['kind'][];
}

type TriggerHolder = Parameters<typeof heldFirst>[0] & { readonly name: string };

/** A held trigger added with what is usual, or taken away. */
function toggled(
  inner: TriggerForm['inner'],
  field: TriggerHolder,
  plate: DataPlate,
): NonNullable<TriggerForm['inner']> {
  const { [field.name]: held, ...rest } = inner ?? {};
  return held ? rest : { ...rest, [field.name]: newTrigger(heldFirst(field), plate) };
}

/** A trigger within another: which kind it is, and its fields. */
function HeldTrigger({ kinds, form, before, plate, onForm }: HeldTriggerProps) {
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 1, alignItems: 'start', mt: 0.75 }}>
      <TextField
        select
        size="small"
        label="By"
        value={form.kind}
        onChange={(event) => onForm(newTrigger(event.target.value as Trigger['kind'], plate))}
        sx={{ minWidth: 170 }}
      >
        {kinds.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {triggerModuleOf({ kind }).name}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ flex: 1, minWidth: 0, width: '100%' }}>
        <TriggerFields form={form} before={before} plate={plate} onForm={onForm} />
      </Box>
    </Stack>
  );
}
