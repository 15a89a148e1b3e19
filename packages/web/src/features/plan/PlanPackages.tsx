import AddIcon from '@mui/icons-material/Add';
import { Box, Button, Checkbox, FormControlLabel, Stack, TextField, Typography } from '@mui/material';
import type { CompressorView } from '@entretien/contracts';
import {
  isRoutine,
  packagesOf,
  taskLimits,
  type ServicePackage,
  type ServicePlan,
} from '@entretien/core/plan';
import { useState } from 'react';

interface PlanPackagesProps {
  readonly plan: ServicePlan;
  readonly unit: CompressorView;
  readonly onPlan: (plan: ServicePlan) => void;
}

/** What belongs together, so that a visit takes it in one touch. */
export function PlanPackages({ plan, unit, onPlan }: PlanPackagesProps) {
  const packages = packagesOf(plan, unit);
  const [open, setOpen] = useState<string | null>(null);
  const put = (next: readonly ServicePackage[]) => onPlan({ ...plan, packages: next });
  const change = (code: string, next: ServicePackage) =>
    put(packages.map((one) => (one.code === code ? next : one)));
  const add = () => {
    const codes = new Set(packages.map(({ code }) => code));
    const code = [...packages, null].map((_one, index) => `own-${index + 1}`).find((own) => !codes.has(own))!;
    const first = plan.tasks.find((task) => !isRoutine(task)) ?? plan.tasks[0]!;
    put([...packages, { code, name: 'Own package', tasks: [first.code] }]);
    setOpen(code);
  };
  return (
    <Box component="section" aria-label="Packages" sx={{ mb: 2.5 }}>
      <Typography variant="h2">What is done together</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 0.5 }}>A visit takes a package in one touch.</Typography>
      {packages.map((one) => (
        <Box key={one.code} sx={{ borderBottom: 1, borderColor: 'divider' }}>
          <Button
            fullWidth
            aria-expanded={open === one.code}
            onClick={() => setOpen(open === one.code ? null : one.code)}
            sx={{
              justifyContent: 'space-between',
              textAlign: 'left',
              minHeight: 46,
              px: 0,
              color: 'text.primary',
            }}
          >
            <span>{one.name}</span>
            <Typography component="span" variant="body2" sx={{ color: 'text.secondary' }}>
              {one.tasks.length} {one.tasks.length === 1 ? 'task' : 'tasks'}
            </Typography>
          </Button>
          {open === one.code && (
            <PackageForm
              one={one}
              plan={plan}
              onChange={(next) => change(one.code, next)}
              onRemove={() => put(packages.filter((other) => other !== one))}
            />
          )}
        </Box>
      ))}
      {packages.length < taskLimits.packages && (
        <Button startIcon={<AddIcon />} onClick={add} sx={{ minHeight: 44, px: 0 }}>
          Add a package
        </Button>
      )}
    </Box>
  );
}

interface PackageFormProps {
  readonly one: ServicePackage;
  readonly plan: ServicePlan;
  readonly onChange: (next: ServicePackage) => void;
  readonly onRemove: () => void;
}

function PackageForm({ one, plan, onChange, onRemove }: PackageFormProps) {
  const [name, setName] = useState(one.name);
  const held = new Set(one.tasks);
  const toggle = (code: string, on: boolean) =>
    onChange({
      ...one,
      tasks: plan.tasks.map((task) => task.code).filter((other) => (other === code ? on : held.has(other))),
    });
  return (
    <Stack sx={{ pb: 1.5 }}>
      <TextField
        label="Name of the package"
        value={name}
        onChange={(event) => {
          setName(event.target.value);
          if (event.target.value.trim() !== '') onChange({ ...one, name: event.target.value.trim() });
        }}
        error={name.trim() === ''}
        helperText={name.trim() === '' ? 'It needs a name.' : undefined}
        slotProps={{ htmlInput: { maxLength: taskLimits.name } }}
        sx={{ maxWidth: 420, my: 1 }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' } }}>
        {plan.tasks.map((task) => (
          <FormControlLabel
            key={task.code}
            label={task.name}
            control={
              <Checkbox
                checked={held.has(task.code)}
                // A package of nothing is no package: the last one goes with it.
                disabled={held.size === 1 && held.has(task.code)}
                onChange={(_event, on) => toggle(task.code, on)}
              />
            }
          />
        ))}
      </Box>
      <Box>
        <Button color="error" onClick={onRemove} sx={{ minHeight: 44, px: 0 }}>
          Remove the package
        </Button>
      </Box>
    </Stack>
  );
}
