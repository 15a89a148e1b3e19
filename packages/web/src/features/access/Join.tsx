import { Alert, Typography } from '@mui/material';
import type { AccountView, InvitationView } from '@entretien/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { postJson, sentenceOf } from '../../data/api.js';
import { comeIn } from '../../data/me.js';
import { LoadingSkeleton } from '../../components/States.js';
import { AccessFrame } from './AccessFrame.js';
import { roleTexts } from './roles.js';
import { SecretForm, type Secret } from './SecretForm.js';
import { useCode } from './use-code.js';

/** Whoever was invited chooses how to sign in. */
export function Join() {
  const code = useCode();
  const client = useQueryClient();
  const navigate = useNavigate();
  const invitation = useQuery({
    queryKey: ['invitation', code],
    queryFn: () => postJson<InvitationView>('/invitations/look', { code }),
    retry: false,
    staleTime: Infinity,
  });
  const send = useMutation({
    mutationFn: (secret: Secret) => postJson<AccountView>('/invitations/accept', { code, ...secret }),
    onSuccess: async () => {
      await navigate('/', { replace: true });
      await comeIn(client);
    },
  });
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
        <SecretForm
          submit="Begin"
          areNew
          error={send.error}
          isSending={send.isPending}
          onSend={(secret) => send.mutate(secret)}
          before={
            <Typography>
              You are invited as {roleTexts[invitation.data.role][0].toLowerCase()}.{' '}
              {roleTexts[invitation.data.role][1]}
            </Typography>
          }
        />
      )}
    </AccessFrame>
  );
}
