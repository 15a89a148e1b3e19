import { Box, Button, Stack, Typography } from '@mui/material';
import { LARGEST_LOGO_MB, type WorkshopSettings } from '@entretien/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteAt, putPicture } from '../../data/api.js';
import { PickFile } from '../../components/PickFile.js';
import { ProblemLine } from '../../components/ProblemLine.js';

/** The picture beside the head of papers: put there, or taken away, at once. */
export function LogoField({ logo }: Pick<WorkshopSettings, 'logo'>) {
  const client = useQueryClient();
  // Another picture has the same address.
  const [round, setRound] = useState(0);
  const put = useMutation({
    mutationFn: async (picture: Blob | null) =>
      picture === null ? deleteAt('/settings/logo') : putPicture<WorkshopSettings>('/settings/logo', picture),
    onSuccess: (_settings, picture) => {
      if (picture !== null) setRound(round + 1);
      return client.invalidateQueries({ queryKey: ['settings'] });
    },
  });
  return (
    <Box role="group" aria-label="Logo">
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', minHeight: 56, flexWrap: 'wrap' }}>
        {logo && (
          <Box sx={{ bgcolor: '#fff', border: 1, borderColor: 'divider', p: 0.5, lineHeight: 0 }}>
            <Box
              component="img"
              src={`/api/settings/logo?${round}`}
              alt="Logo on papers"
              width={logo.widthPx}
              height={logo.heightPx}
              sx={{ maxWidth: 150, maxHeight: 44, width: 'auto', height: 'auto', objectFit: 'contain' }}
            />
          </Box>
        )}
        <PickFile
          variant="outlined"
          disabled={put.isPending}
          label="Picture of the logo"
          accept="image/png,image/jpeg,image/webp"
          onFile={(file) => put.mutate(file)}
          sx={{ minHeight: 44 }}
        >
          {logo ? 'Another logo' : 'Add a logo'}
        </PickFile>
        {logo && (
          <Button
            color="error"
            disabled={put.isPending}
            onClick={() => put.mutate(null)}
            sx={{ minHeight: 44 }}
          >
            Take it off
          </Button>
        )}
      </Stack>
      <Typography variant="caption" sx={{ color: 'text.secondary' }}>
        Stands at the top right of reports. PNG, JPEG or WebP, {LARGEST_LOGO_MB} MB at most.
      </Typography>
      <ProblemLine error={put.error} />
    </Box>
  );
}
