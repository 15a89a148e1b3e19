import { Alert, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import type { AccountView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiProblem, postJson, sentenceOf } from '../../data/api.js';
import { comeIn, useMe } from '../../data/me.js';
import { usePeople } from '../../data/queries.js';
import { AccessFrame } from './AccessFrame.js';
import { SecretFields } from './SecretFields.js';
import { useCode } from './use-code.js';

/** The first account, by the address that stands on the server’s console. */
export function Welcome() {
  const { data: me } = useMe();
  if (me?.access === 'on')
    return (
      <AccessFrame title="There are accounts">
        <Typography>Ask a lead for an invitation.</Typography>
        <Button component={Link} to="/" variant="contained" sx={{ minHeight: 48 }}>
          To the work
        </Button>
      </AccessFrame>
    );
  return <FirstLeadForm />;
}

const SOMEBODY_NEW = 'new';

function FirstLeadForm() {
  const code = useCode();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data } = usePeople();
  const people = (data ?? []).filter(({ id }) => id !== DEFAULT_PERSON_ID);
  const [personId, setPerson] = useState(SOMEBODY_NEW);
  const [name, setName] = useState('');
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const known = people.find(({ id }) => id === personId);
  const shownName = known?.name ?? name;
  const send = useMutation({
    mutationFn: () =>
      postJson<AccountView>('/accounts/first', {
        code,
        login,
        password,
        name: shownName,
        ...(known ? { personId: known.id } : {}),
      }),
    onSuccess: async () => {
      await navigate('/', { replace: true });
      await comeIn(client);
    },
  });
  const canSend = code !== '' && shownName.trim() !== '' && login.trim() !== '' && password !== '';
  return (
    <AccessFrame title="The first account">
      <Typography sx={{ color: 'text.secondary' }}>
        From now on everybody signs in with their own name: you as lead, and whoever you invite. What is on
        record stays. This cannot be turned off again.
      </Typography>
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (canSend && !send.isPending) send.mutate();
        }}
      >
        {people.length > 0 && (
          <TextField
            select
            label="Who you are"
            value={personId}
            onChange={(event) => setPerson(event.target.value)}
          >
            {people.map(({ id, name: text }) => (
              <MenuItem key={id} value={id}>
                {text}
              </MenuItem>
            ))}
            <MenuItem value={SOMEBODY_NEW}>Somebody new</MenuItem>
          </TextField>
        )}
        {!known && (
          <TextField
            label="Your name"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 120, autoComplete: 'name' } }}
          />
        )}
        <SecretFields
          login={login}
          password={password}
          onLogin={setLogin}
          onPassword={setPassword}
          error={send.error}
          areNew
        />
        {code === '' && (
          <Alert severity="warning" variant="outlined">
            Open the whole address that the server printed when it started: its last part is missing here.
          </Alert>
        )}
        {send.error && !(send.error instanceof ApiProblem && send.error.problem.errors) && (
          <Alert severity="error" variant="outlined">
            {sentenceOf(send.error)}
          </Alert>
        )}
        <Button
          type="submit"
          variant="contained"
          disabled={!canSend || send.isPending}
          sx={{ minHeight: 48 }}
        >
          Make the account
        </Button>
      </Stack>
    </AccessFrame>
  );
}
