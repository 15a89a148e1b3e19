import { Box, Button, Stack, Typography } from '@mui/material';
import type { BackupsView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { formatFigure } from '@entretien/core/quantities';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { postJson } from '../../data/api.js';
import { deviceZone } from '../../data/clock.js';
import { useServerHealth } from '../../data/queries.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { Part } from './SettingsForm.js';

/** How the server is: its last good backup, the room it has left, its release. */
export function Upkeep() {
  const client = useQueryClient();
  const health = useServerHealth();
  const make = useMutation({
    mutationFn: () => postJson<BackupsView>('/backups', {}),
    onSettled: () => client.invalidateQueries({ queryKey: ['health'] }),
  });
  const { data } = health;
  return (
    <Part title="The server">
      {health.isError && <ErrorState error={health.error} onRetry={() => void health.refetch()} />}
      {health.isPending && <LoadingSkeleton lines={3} />}
      {data && (
        <Box component="dl" sx={{ m: 0 }}>
          <Line name="Last good backup">{lastOf(data.backups)}</Line>
          {data.backups.problem !== null && (
            <Line name="The last try">
              <Box component="span" sx={{ color: 'oxide', fontWeight: 600 }}>
                {data.backups.problem}
              </Box>
            </Line>
          )}
          <Line name="Room on its disk">{room(data.freeBytes)}</Line>
          <Line name="Release">{data.version}</Line>
        </Box>
      )}
      {data?.backups.isOn && (
        <Stack direction="row" sx={{ gap: 2, alignItems: 'center', mt: 1.5 }}>
          <Button
            variant="outlined"
            disabled={make.isPending}
            onClick={() => make.mutate()}
            sx={{ minHeight: 44, flex: 'none' }}
          >
            {make.isPending ? 'Backing up …' : 'Back up now'}
          </Button>
          {make.isSuccess && (
            <Typography role="status" sx={{ color: 'slate', fontWeight: 600 }}>
              Made, opened, and found whole.
            </Typography>
          )}
        </Stack>
      )}
      <ProblemLine error={make.error} />
    </Part>
  );
}

function Line({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  return (
    <Box
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, py: 0.75, borderTop: 1, borderColor: 'divider' }}
    >
      <Typography component="dt" sx={{ color: 'text.secondary', width: 140, flex: 'none' }}>
        {name}
      </Typography>
      <Typography component="dd" sx={{ m: 0, flex: 1, minWidth: 120 }}>
        {children}
      </Typography>
    </Box>
  );
}

function lastOf({ isOn, lastAt }: BackupsView): string {
  if (!isOn) return 'none: the server was started without backups';
  if (lastAt === null) return 'none yet: the first is made half a minute after the start';
  return formatMoment(Date.parse(lastAt), deviceZone());
}

function room(bytes: number): string {
  return bytes < 10e9
    ? `${formatFigure(bytes / 1e6, { decimals: 0 })} MB`
    : `${formatFigure(bytes / 1e9, { decimals: 0 })} GB`;
}
