import { Button, TextField } from '@mui/material';
import type { PersonView } from '@entretien/contracts';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { FormDialog } from '../components/FormDialog.js';
import { sentenceOf } from '../data/api.js';
import { usePreferences } from '../data/preferences.js';
import { useAddPerson } from '../data/queries.js';

interface Props {
  /** Who is on record so far. */
  readonly known: readonly PersonView[];
  readonly onClose: () => void;
}

/** Who works on this device: one of those on record, or somebody new. */
export function SayWho({ known, onClose }: Props) {
  const setPerson = usePreferences((preferences) => preferences.setPerson);
  const [name, setName] = useState('');
  const add = useAddPerson();
  const submit = () =>
    add.mutate({ id: newId(), name: name.trim() }, { onSuccess: ({ id }) => setPerson(id) });
  return (
    <FormDialog
      title="Who works here?"
      submit="It is me"
      canSubmit={name.trim() !== ''}
      isSending={add.isPending}
      problem={add.isError ? sentenceOf(add.error) : null}
      onSubmit={submit}
      onClose={onClose}
    >
      {known.map((person) => (
        <Button
          key={person.id}
          variant="outlined"
          onClick={() => setPerson(person.id)}
          sx={{ minHeight: 48, justifyContent: 'start' }}
        >
          {person.name}
        </Button>
      ))}
      <TextField
        label={known.length === 0 ? 'Your name' : 'Somebody else'}
        value={name}
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
    </FormDialog>
  );
}
