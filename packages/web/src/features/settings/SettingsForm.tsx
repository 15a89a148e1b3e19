import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { MOST_HOLIDAYS, SaveSettings, type UnitChoice, type WorkshopSettings } from '@entretien/contracts';
import { formatsCode, formatsOf } from '@entretien/core/basics';
import { readNumber } from '@entretien/core/quantities';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, type ReactNode } from 'react';
import { ApiProblem, putJson, sentenceOf } from '../../data/api.js';
import { unitsWith } from '../../data/preferences.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';
import { FormatChoices, UnitChoices } from '../../components/Choices.js';
import { ClosuresInput } from '../../components/ClosuresInput.js';

/** A figure as it is typed; money in whole units, stored in hundredths. */
const figures = {
  taxPercent: { label: 'Tax, %', hint: '0 leaves the line out.', scale: 1 },
  labourCentsPerHour: { label: 'An hour of work', hint: '0 leaves labour off the papers.', scale: 100 },
  isolationMinutes: { label: 'A pause is one after, min', hint: '5 to 60.', scale: 1 },
  isolationMinutesHighPressure: { label: 'The same above 40 bar, min', hint: '5 to 60.', scale: 1 },
} as const;
type FigureName = keyof typeof figures;
const figureNames = Object.keys(figures) as FigureName[];

interface SettingsFormProps {
  readonly saved: WorkshopSettings;
  /** Stands under the name. */
  readonly logo: ReactNode;
}

/** Where it stands that something was saved: other formats make the page anew. */
const SAVED = ['settings', 'saved'];

/** What is typed and chosen, until it is saved. */
function useDraft(saved: WorkshopSettings) {
  const client = useQueryClient();
  const [wasSaved] = useState(() => client.getQueryData(SAVED) === true);
  useEffect(() => client.removeQueries({ queryKey: SAVED, exact: true }), [client]);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => ({
    workshopName: saved.workshopName ?? '',
    currency: saved.currency,
    ...Object.fromEntries(figureNames.map((name) => [name, String(saved[name] / figures[name].scale)])),
  }));
  const [units, setUnits] = useState<UnitChoice>(saved.units);
  const [formats, setFormats] = useState(() => formatsOf(saved.formats));
  const [holidays, setHolidays] = useState(saved.holidays);
  const save = useMutation({
    mutationFn: async (body: SaveSettings) => {
      refuseMalformed(SaveSettings, body);
      return putJson<WorkshopSettings>('/settings', body);
    },
    onSuccess: (settings) => {
      client.setQueryData(['settings'], settings);
      client.setQueryData(SAVED, true);
      return client.invalidateQueries({ queryKey: ['me'] });
    },
  });
  const text = (name: string) => texts[name] ?? '';
  const read = new Map(figureNames.map((name) => [name, readNumber(text(name))]));
  const isRead = [...read.values()].every(({ ok }) => ok);
  const send = () => {
    const body: SaveSettings = {
      workshopName: text('workshopName').trim() === '' ? null : text('workshopName').trim(),
      currency: text('currency').trim().toUpperCase(),
      units,
      formats: formatsCode(formats),
      holidays,
    };
    for (const name of figureNames) {
      const [figure, { scale }] = [read.get(name)!, figures[name]];
      if (figure.ok) body[name] = scale === 1 ? figure.value : Math.round(figure.value * scale);
    }
    save.mutate(body);
  };
  const setText = (name: string, value: string) => setTexts({ ...texts, [name]: value });
  const isSaved = save.isSuccess || (wasSaved && save.isIdle);
  return {
    text,
    setText,
    read,
    isRead,
    units,
    setUnits,
    formats,
    setFormats,
    setHolidays,
    save,
    send,
    isSaved,
  };
}

/** What is saved together. */
export function SettingsForm({ saved, logo }: SettingsFormProps) {
  const draft = useDraft(saved);
  const { text, read, isRead, save } = draft;
  const problemOf = (name: string) =>
    save.error instanceof ApiProblem ? save.error.forField(name) : undefined;
  const field = (name: string, label: string, hint: string, longest: number, problem?: string) => {
    const wrong = problem ?? problemOf(name);
    return (
      <TextField
        key={name}
        label={label}
        value={text(name)}
        onChange={(event) => draft.setText(name, event.target.value)}
        error={wrong !== undefined}
        helperText={wrong ?? hint}
        slotProps={{ htmlInput: { maxLength: longest }, formHelperText: wrong ? { role: 'alert' } : {} }}
      />
    );
  };
  const figureField = (name: FigureName) => {
    const figure = read.get(name)!;
    const { label, hint } = figures[name];
    return field(name, label, hint, 12, figure.ok ? undefined : figure.problem.sentence);
  };
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 3 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (isRead) draft.send();
      }}
    >
      <Part title="On papers">
        <Box sx={twoColumns}>
          {field('workshopName', 'Name of the workshop', 'Stands at the head of reports.', 120)}
          {logo}
          {field('currency', 'Currency', 'Its three letters, like EUR.', 3)}
          {figureField('taxPercent')}
          {figureField('labourCentsPerHour')}
        </Box>
      </Part>
      <Part
        title="Units and formats"
        about="For papers, and for every device that has not chosen its own in the menu at the top right."
      >
        <Box sx={twoColumns}>
          <Box>
            <UnitChoices
              units={draft.units}
              onUnit={(kind, code) => draft.setUnits({ ...draft.units, ...unitsWith(kind, code) })}
            />
          </Box>
          <Box>
            <FormatChoices
              formats={draft.formats}
              onFormats={(chosen) => draft.setFormats({ ...draft.formats, ...chosen })}
            />
          </Box>
        </Box>
      </Part>
      <Part title="Isolation" about="After a pause whoever goes on looks at the isolation again.">
        <Box sx={twoColumns}>
          {figureField('isolationMinutes')}
          {figureField('isolationMinutesHighPressure')}
        </Box>
      </Part>
      <Part
        title="Holidays"
        about="When nobody of the workshop works. Whoever plans a visit on such a day is told."
      >
        <ClosuresInput
          label="Closed from and to"
          initial={saved.holidays}
          most={MOST_HOLIDAYS}
          add="Add closed days"
          onValue={(days) => draft.setHolidays(days ?? [])}
          problem={problemOf('holidays')}
        />
      </Part>
      {save.error && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(save.error)}
        </Alert>
      )}
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
        <Button
          type="submit"
          variant="contained"
          disabled={!isRead || save.isPending}
          sx={{ minHeight: 48, px: 4 }}
        >
          Save
        </Button>
        {draft.isSaved && (
          <Typography role="status" sx={{ color: 'slate', fontWeight: 600 }}>
            Saved.
          </Typography>
        )}
      </Stack>
    </Stack>
  );
}

const twoColumns = {
  display: 'grid',
  gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) minmax(0, 1fr)' },
  gap: 2,
  alignItems: 'start',
} as const;

interface PartProps {
  readonly title: string;
  readonly about?: string;
  readonly children: ReactNode;
}

/** A part of the page, with what it is about. */
export function Part({ title, about, children }: PartProps) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h2">{title}</Typography>
      {about !== undefined && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
          {about}
        </Typography>
      )}
      <Box sx={{ mt: about === undefined ? 1 : 0 }}>{children}</Box>
    </Box>
  );
}
