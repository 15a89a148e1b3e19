import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts';
import { useEffect, useState } from 'react';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../data/api.js';
import { usePreferences } from '../data/preferences.js';
import { useAddPerson, usePeople } from '../data/queries.js';

/**
 * Asks once on each device who works on it: every fact is recorded by somebody, and who signs is who recorded. Where
 * one person alone works, it is that one.
 */
export function WhoWorks() {
  const { data } = usePeople();
  const { personId, setPerson } = usePreferences();
  const [isLater, setLater] = useState(false);
  const [name, setName] = useState('');
  const add = useAddPerson();
  const known = (data ?? []).filter(({ id }) => id !== DEFAULT_PERSON_ID);
  const only = known.length === 1 ? known[0]!.id : null;
  useEffect(() => {
    if (personId === null && only !== null) setPerson(only);
  }, [personId, only, setPerson]);
  if (!data || personId !== null || only !== null || isLater) return null;
  const submit = () => {
    if (name.trim() === '') return;
    add.mutate({ id: newId(), name: name.trim() }, { onSuccess: ({ id }) => setPerson(id) });
  };
  return (
    <Box
      component="section"
      aria-label="Who works here?"
      sx={{ bgcolor: 'slateGround', px: { xs: 2, md: 3.5 }, py: 0.75, '@media print': { display: 'none' } }}
    >
      <Stack direction="row" sx={{ alignItems: 'center', flexWrap: 'wrap', columnGap: 1.5, rowGap: 0.5 }}>
        <Typography sx={{ fontWeight: 650 }}>Who works here?</Typography>
        {known.map((person) => (
          <Button
            key={person.id}
            variant="outlined"
            onClick={() => setPerson(person.id)}
            sx={{ minHeight: 44 }}
          >
            {person.name}
          </Button>
        ))}
        <Stack
          component="form"
          direction="row"
          noValidate
          sx={{ gap: 1, alignItems: 'center' }}
          onSubmit={(event) => {
            event.preventDefault();
            submit();
          }}
        >
          <TextField
            size="small"
            label={known.length === 0 ? 'Your name' : 'Somebody else'}
            value={name}
            onChange={(event) => setName(event.target.value)}
            error={add.isError}
            helperText={add.isError ? sentenceOf(add.error) : undefined}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <Button type="submit" disabled={name.trim() === '' || add.isPending} sx={{ minHeight: 44 }}>
            It is me
          </Button>
        </Stack>
        <Button color="inherit" onClick={() => setLater(true)} sx={{ minHeight: 44 }}>
          Later
        </Button>
      </Stack>
    </Box>
  );
}
