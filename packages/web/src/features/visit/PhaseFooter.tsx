import { Box, Stack, Typography } from '@mui/material';
import type { Phase } from './phases.js';
import type { useCompressorAtWork } from './use-visit.js';

export interface PhaseProps {
  readonly atWork: ReturnType<typeof useCompressorAtWork>;
  readonly onGo: (phase: Phase, unit?: string) => void;
}

/** What stands under the thumb: a line of what it is about, and the way on. */
export function PhaseFooter({
  about,
  children,
}: {
  readonly about?: React.ReactNode;
  readonly children: React.ReactNode;
}) {
  return (
    <Box
      sx={{
        position: 'sticky',
        bottom: 0,
        mt: 'auto',
        mx: { xs: -2, md: -3.5 },
        px: { xs: 2, md: 3.5 },
        py: 1.25,
        bgcolor: 'background.sheet',
        borderTop: 1,
        borderColor: 'divider',
        zIndex: 2,
      }}
    >
      {about !== undefined && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.75 }}>
          {about}
        </Typography>
      )}
      <Stack
        direction="row"
        sx={{
          gap: 1,
          flexWrap: 'wrap',
          '& .MuiButton-root': { minHeight: 48, flex: { xs: 1, md: 'none' }, px: { md: 4 } },
        }}
      >
        {children}
      </Stack>
    </Box>
  );
}
