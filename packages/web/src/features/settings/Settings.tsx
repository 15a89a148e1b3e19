import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { SaveSettings, type WorkshopSettings } from '@entretien/contracts';
import { readNumber } from '@entretien/core/quantities';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, putJson, sentenceOf } from '../../data/api.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';
import { useSettings } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';

/** What holds for the whole workshop: what stands on its papers, and how the guard is set. */
export function Settings() {
  const settings = useSettings();
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 900 }}>
      <Typography variant="h1">Workshop</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 2 }}>
        Holds for everybody. Units of measure, dates and colours are each person’s own: the menu at the top
        right.
      </Typography>
      {settings.isError && <ErrorState error={settings.error} onRetry={() => void settings.refetch()} />}
      {settings.isPending && <LoadingSkeleton lines={6} />}
      {settings.data && <SettingsForm saved={settings.data} />}
    </Box>
  );
}

/** A figure as it is typed; money in whole units, stored in hundredths. */
const figures = [
  { name: 'taxPercent', label: 'Tax, %', hint: '0 leaves the line out.', scale: 1 },
  {
    name: 'labourCentsPerHour',
    label: 'An hour of work',
    hint: '0 leaves labour off the papers.',
    scale: 100,
  },
  { name: 'isolationMinutes', label: 'A pause is one after, min', hint: '5 to 60.', scale: 1 },
  {
    name: 'isolationMinutesHighPressure',
    label: 'The same above 40 bar, min',
    hint: '5 to 60.',
    scale: 1,
  },
] as const;
type FigureName = (typeof figures)[number]['name'];

function SettingsForm({ saved }: { readonly saved: WorkshopSettings }) {
  const client = useQueryClient();
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => ({
    workshopName: saved.workshopName ?? '',
    currency: saved.currency,
    ...Object.fromEntries(figures.map(({ name, scale }) => [name, String(saved[name] / scale)])),
  }));
  const save = useMutation({
    mutationFn: async (body: SaveSettings) => {
      refuseMalformed(SaveSettings, body);
      return putJson<WorkshopSettings>('/settings', body);
    },
    onSuccess: (settings) => client.setQueryData(['settings'], settings),
  });
  const text = (name: string) => texts[name] ?? '';
  const read = new Map(figures.map(({ name }) => [name as FigureName, readNumber(text(name))]));
  const isRead = [...read.values()].every(({ ok }) => ok);
  const problemOf = (name: string) =>
    save.error instanceof ApiProblem ? save.error.forField(name) : undefined;
  const send = () => {
    const body: SaveSettings = {
      workshopName: text('workshopName').trim() === '' ? null : text('workshopName').trim(),
      currency: text('currency').trim().toUpperCase(),
    };
    for (const { name, scale } of figures) {
      const figure = read.get(name)!;
      if (figure.ok) body[name] = scale === 1 ? figure.value : Math.round(figure.value * scale);
    }
    save.mutate(body);
  };
  const field = (name: string, label: string, hint: string, longest: number, problem?: string) => {
    const wrong = problem ?? problemOf(name);
    return (
      <TextField
        key={name}
        label={label}
        value={text(name)}
        onChange={(event) => setTexts({ ...texts, [name]: event.target.value })}
        error={wrong !== undefined}
        helperText={wrong ?? hint}
        slotProps={{ htmlInput: { maxLength: longest }, formHelperText: wrong ? { role: 'alert' } : {} }}
      />
    );
  };
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 2 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (isRead) send();
      }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2 }}>
        {field('workshopName', 'Name of the workshop', 'Stands at the head of reports.', 120)}
        {field('currency', 'Currency', 'Its three letters, like EUR.', 3)}
        {figures.map(({ name, label, hint }) => {
          const figure = read.get(name)!;
          return field(name, label, hint, 12, figure.ok ? undefined : figure.problem.sentence);
        })}
      </Box>
      {save.error && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(save.error)}
        </Alert>
      )}
      {save.isSuccess && (
        <Typography role="status" sx={{ color: 'slate', fontWeight: 600 }}>
          Saved.
        </Typography>
      )}
      <Button
        type="submit"
        variant="contained"
        disabled={!isRead || save.isPending}
        sx={{ minHeight: 44, alignSelf: 'start' }}
      >
        Save
      </Button>
    </Stack>
  );
}
