import { Alert, Button, Stack, Typography } from '@mui/material';
import type { AccountView, InvitationView } from '@entretien/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, postJson, sentenceOf } from '../../data/api.js';
import { comeIn } from '../../data/me.js';
import { LoadingSkeleton } from '../../components/States.js';
import { AccessFrame } from './AccessFrame.js';
import { roleTexts } from './roles.js';
import { SecretFields } from './SecretFields.js';
import { useCode } from './use-code.js';

/** Whoever was invited chooses how to sign in. */
export function Join() {
  const code = useCode();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const invitation = useQuery({
    queryKey: ['invitation', code],
    queryFn: () => postJson<InvitationView>('/invitations/look', { code }),
    retry: false,
    staleTime: Infinity,
  });
  const send = useMutation({
    mutationFn: () => postJson<AccountView>('/invitations/accept', { code, login, password }),
    onSuccess: async () => {
      await navigate('/', { replace: true });
      await comeIn(client);
    },
  });
  const canSend = login.trim() !== '' && password !== '' && !send.isPending;
  return (
    <AccessFrame title={invitation.data ? `Welcome, ${invitation.data.name}` : 'An invitation'}>
      {invitation.isPending && <LoadingSkeleton lines={3} />}
      {invitation.isError && (
        <Alert severity="error" variant="outlined">
          {code === ''
            ? 'Open the whole address of the invitation: its last part is missing here.'
            : sentenceOf(invitation.error)}
        </Alert>
      )}
      {invitation.data && (
        <Stack
          component="form"
          noValidate
          sx={{ gap: 2 }}
          onSubmit={(event) => {
            event.preventDefault();
            if (canSend) send.mutate();
          }}
        >
          <Typography>
            You are invited as {roleTexts[invitation.data.role][0].toLowerCase()}.{' '}
            {roleTexts[invitation.data.role][1]}
          </Typography>
          <SecretFields
            login={login}
            password={password}
            onLogin={setLogin}
            onPassword={setPassword}
            error={send.error}
            areNew
          />
          {send.error && !(send.error instanceof ApiProblem && send.error.problem.errors) && (
            <Alert severity="error" variant="outlined">
              {sentenceOf(send.error)}
            </Alert>
          )}
          <Button type="submit" variant="contained" disabled={!canSend} sx={{ minHeight: 48 }}>
            Begin
          </Button>
        </Stack>
      )}
    </AccessFrame>
  );
}
