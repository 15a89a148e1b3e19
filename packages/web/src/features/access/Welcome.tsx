import { Alert, Button, MenuItem, TextField, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import type { AccountView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { postJson } from '../../data/api.js';
import { comeIn, useMe } from '../../data/me.js';
import { usePeople } from '../../data/queries.js';
import { AccessFrame } from './AccessFrame.js';
import { SecretForm, type Secret } from './SecretForm.js';
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
  const known = people.find(({ id }) => id === personId);
  const shownName = known?.name ?? name;
  const send = useMutation({
    mutationFn: (secret: Secret) =>
      postJson<AccountView>('/accounts/first', {
        code,
        ...secret,
        name: shownName,
        ...(known ? { personId: known.id } : {}),
      }),
    onSuccess: async () => {
      await navigate('/', { replace: true });
      await comeIn(client);
    },
  });
  return (
    <AccessFrame title="The first account">
      <Typography sx={{ color: 'text.secondary' }}>
        From now on everybody signs in with their own name: you as lead, and whoever you invite. What is on
        record stays. This cannot be turned off again.
      </Typography>
      <SecretForm
        submit="Make the account"
        areNew
        error={send.error}
        isSending={send.isPending}
        isReady={code !== '' && shownName.trim() !== ''}
        onSend={(secret) => send.mutate(secret)}
        before={
          <>
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
          </>
        }
        notice={
          code === '' && (
            <Alert severity="warning" variant="outlined">
              Open the whole address that the server printed when it started: its last part is missing here.
            </Alert>
          )
        }
      />
    </AccessFrame>
  );
}
