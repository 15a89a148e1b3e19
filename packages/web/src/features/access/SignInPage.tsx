import { Alert, Button } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { sentenceOf } from '../../data/api.js';
import { comeIn, isRefusedByDevice, signIn, useMe } from '../../data/me.js';
import { AccessFrame } from './AccessFrame.js';
import { signInWithPasskey } from './passkey.js';
import { SecretForm } from './SecretForm.js';

/** The way in: a name and a password, or a passkey. What was asked for stands at the same address, and comes after. */
export function SignInPage() {
  const client = useQueryClient();
  const { data: me } = useMe();
  const byPassword = useMutation({ mutationFn: signIn, onSuccess: () => comeIn(client) });
  const byPasskey = useMutation({ mutationFn: signInWithPasskey, onSuccess: () => comeIn(client) });
  return (
    <AccessFrame title="Sign in">
      <SecretForm
        submit="Sign in"
        error={byPassword.error}
        isSending={byPassword.isPending}
        onSend={(secret) => {
          byPasskey.reset();
          byPassword.mutate(secret);
        }}
        notice={
          byPasskey.error && (
            <Alert severity="error" variant="outlined">
              {isRefusedByDevice(byPasskey.error)
                ? 'This device has no passkey for here, or it was stopped.'
                : sentenceOf(byPasskey.error)}
            </Alert>
          )
        }
        instead={
          me?.passkeys && (
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
          )
        }
      />
    </AccessFrame>
  );
}
