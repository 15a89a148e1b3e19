import { Box, Button, Stack, Typography } from '@mui/material';
import type { SessionView } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { deleteAt } from '../../data/api.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { formatAgo } from '../../components/describe-due.js';
import { useNow } from '../../components/use-now.js';
import { deviceZone } from '../../data/clock.js';
import { describeDevice } from './describe-device.js';

/** Browsers that are signed in, each to be signed out from here: a lost phone is shut out at once. */
export function SessionList({ sessions }: { readonly sessions: readonly SessionView[] }) {
  const client = useQueryClient();
  const now = useNow();
  const end = useMutation({
    mutationFn: (id: string) => deleteAt(`/me/sessions/${id}`),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {sessions.map(({ id, device, seenAt, isThis }) => (
          <Stack
            key={id}
            component="li"
            direction="row"
            sx={{ alignItems: 'center', gap: 1, minHeight: 48, borderBottom: 1, borderColor: 'divider' }}
          >
            <Box sx={{ flex: 1 }}>
              <Typography sx={{ fontWeight: 600 }}>{describeDevice(device)}</Typography>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {isThis ? 'this browser' : `last used ${formatAgo(Date.parse(seenAt), now, deviceZone())}`}
              </Typography>
            </Box>
            {!isThis && (
              <Button
                color="error"
                disabled={end.isPending}
                onClick={() => end.mutate(id)}
                aria-label={`Sign out ${describeDevice(device)}`}
                sx={{ minHeight: 44 }}
              >
                Sign out
              </Button>
            )}
          </Stack>
        ))}
      </Box>
      <ProblemLine error={end.error} />
    </>
  );
}
