import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { ChangePassword, type PasskeyView, type SessionView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, deleteAt, getJson, postJson, sentenceOf } from '../../data/api.js';
import { deviceZone } from '../../data/clock.js';
import { isRefusedByDevice, useMe } from '../../data/me.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { addPasskey } from './passkey.js';
import { roleTexts } from './roles.js';
import { SessionList } from './SessionList.js';

/** One’s own account: the password, passkeys, and where one is signed in. */
export function Account() {
  const { data: me } = useMe();
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      <Typography variant="h1">Your account</Typography>
      {me?.account ? (
        <>
          <Typography sx={{ color: 'text.secondary', mb: 2 }}>
            {me.account.name} · {roleTexts[me.account.role][0].toLowerCase()} · signs in as {me.account.login}
          </Typography>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
              columnGap: 6,
              rowGap: 4,
              alignItems: 'start',
            }}
          >
            <Sessions />
            <Stack sx={{ gap: 4 }}>
              <OtherPassword />
              <OwnPasskeys canAdd={me.passkeys} />
            </Stack>
          </Box>
        </>
      ) : (
        <Typography sx={{ color: 'text.secondary' }}>
          There are no accounts here: nobody signs in. The server prints an address at its start that makes
          the first.
        </Typography>
      )}
    </Box>
  );
}

function Sessions() {
  const sessions = useQuery({
    queryKey: ['own-account', 'sessions'],
    queryFn: () => getJson<readonly SessionView[]>('/me/sessions'),
  });
  return (
    <Box component="section" aria-label="Where you are signed in">
      <Typography variant="h2">Where you are signed in</Typography>
      {sessions.isPending && <LoadingSkeleton lines={3} />}
      {sessions.isError && <ErrorState error={sessions.error} onRetry={() => void sessions.refetch()} />}
      {sessions.data && <SessionList sessions={sessions.data} />}
    </Box>
  );
}

function OtherPassword() {
  const [before, setBefore] = useState('');
  const [password, setPassword] = useState('');
  const send = useMutation({
    mutationFn: async () => {
      const body = { before, password };
      refuseMalformed(ChangePassword, body);
      await postJson('/me/password', body);
    },
    onSuccess: () => {
      setBefore('');
      setPassword('');
    },
  });
  const wrong = (field: string) =>
    send.error instanceof ApiProblem ? send.error.forField(field) : undefined;
  const field = (name: 'before' | 'password', label: string, value: string, put: (text: string) => void) => (
    <TextField
      label={label}
      type="password"
      value={value}
      onChange={(event) => put(event.target.value)}
      error={wrong(name) !== undefined}
      helperText={wrong(name)}
      slotProps={{
        htmlInput: { maxLength: 200, autoComplete: name === 'before' ? 'current-password' : 'new-password' },
        formHelperText: { role: wrong(name) ? 'alert' : undefined },
      }}
    />
  );
  return (
    <Stack
      component="form"
      noValidate
      aria-label="Change the password"
      sx={{ gap: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (before !== '' && password !== '') send.mutate();
      }}
    >
      <Typography variant="h2">Change the password</Typography>
      {field('before', 'Password so far', before, setBefore)}
      {field('password', 'New password', password, setPassword)}
      {send.error && wrong('before') === undefined && wrong('password') === undefined && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(send.error)}
        </Alert>
      )}
      {send.isSuccess && (
        <Alert severity="success" variant="outlined">
          Changed. Every other browser of yours is signed out.
        </Alert>
      )}
      <Button
        type="submit"
        variant="outlined"
        disabled={before === '' || password === '' || send.isPending}
        sx={{ minHeight: 44, alignSelf: 'start' }}
      >
        Change it
      </Button>
    </Stack>
  );
}

function OwnPasskeys({ canAdd }: { readonly canAdd: boolean }) {
  const client = useQueryClient();
  const key = ['own-account', 'passkeys'];
  const passkeys = useQuery({
    queryKey: key,
    queryFn: () => getJson<readonly PasskeyView[]>('/me/passkeys'),
  });
  const [name, setName] = useState('');
  const after = {
    onSuccess: () => {
      setName('');
      return client.invalidateQueries({ queryKey: key });
    },
  };
  const add = useMutation({ mutationFn: () => addPasskey(name.trim() || 'Passkey'), ...after });
  const remove = useMutation({
    mutationFn: (id: string) => deleteAt(`/me/passkeys/${encodeURIComponent(id)}`),
    ...after,
  });
  return (
    <Stack component="section" aria-label="Passkeys" sx={{ gap: 1.5 }}>
      <Typography variant="h2">Passkeys</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {canAdd
          ? 'A key that stays in your device and opens with your finger, your face or its code: nothing to remember, and nothing to give away.'
          : 'Passkeys need a name like service.example; this is a bare address. Here one signs in with a password.'}
      </Typography>
      {(passkeys.data ?? []).map(({ id, name: text, addedAt }) => (
        <Stack
          key={id}
          direction="row"
          sx={{ alignItems: 'center', gap: 1, borderTop: 1, borderColor: 'divider' }}
        >
          <Typography sx={{ flex: 1, fontWeight: 600 }}>{text}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {formatMoment(Date.parse(addedAt), deviceZone())}
          </Typography>
          <Button
            color="error"
            onClick={() => remove.mutate(id)}
            aria-label={`Delete passkey ${text}`}
            sx={{ minHeight: 44 }}
          >
            Delete
          </Button>
        </Stack>
      ))}
      {canAdd && (
        <Stack direction="row" sx={{ gap: 1, alignItems: 'start' }}>
          <TextField
            label="What you call it"
            size="small"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <Button
            variant="outlined"
            disabled={add.isPending}
            onClick={() => add.mutate()}
            sx={{ minHeight: 44 }}
          >
            Add a passkey
          </Button>
        </Stack>
      )}
      {add.error && (
        <Alert severity="error" variant="outlined">
          {isRefusedByDevice(add.error)
            ? 'The device made no passkey: it was stopped, or has one for here.'
            : sentenceOf(add.error)}
        </Alert>
      )}
    </Stack>
  );
}
