import { Alert, Button, Stack } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sentenceOf } from '../../data/api.js';
import { comeIn, isRefusedByDevice, signIn, useMe } from '../../data/me.js';
import { AccessFrame } from './AccessFrame.js';
import { signInWithPasskey } from './passkey.js';
import { SecretFields } from './SecretFields.js';

/** The way in: a name and a password, or a passkey. What was asked for stands at the same address, and comes after. */
export function SignInPage() {
  const client = useQueryClient();
  const { data: me } = useMe();
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const byPassword = useMutation({ mutationFn: signIn, onSuccess: () => comeIn(client) });
  const byPasskey = useMutation({ mutationFn: signInWithPasskey, onSuccess: () => comeIn(client) });
  const canSend = login.trim() !== '' && password !== '' && !byPassword.isPending;
  const failed = byPassword.error ?? byPasskey.error;
  return (
    <AccessFrame title="Sign in">
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2 }}
        onSubmit={(event) => {
          event.preventDefault();
          byPasskey.reset();
          if (canSend) byPassword.mutate({ login, password });
        }}
      >
        <SecretFields
          login={login}
          password={password}
          onLogin={setLogin}
          onPassword={setPassword}
          error={byPassword.error}
        />
        {failed && (
          <Alert severity="error" variant="outlined">
            {isRefusedByDevice(failed)
              ? 'This device has no passkey for here, or it was stopped.'
              : sentenceOf(failed)}
          </Alert>
        )}
        <Button type="submit" variant="contained" disabled={!canSend} sx={{ minHeight: 48 }}>
          Sign in
        </Button>
        {me?.passkeys && (
          <Button
            variant="outlined"
            disabled={byPasskey.isPending}
            onClick={() => {
              byPassword.reset();
              byPasskey.mutate();
            }}
            sx={{ minHeight: 48 }}
          >
            Use a passkey
          </Button>
        )}
      </Stack>
    </AccessFrame>
  );
}
