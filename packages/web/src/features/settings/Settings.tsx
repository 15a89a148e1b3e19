import { Box, Typography } from '@mui/material';
import { useMay } from '../../data/me.js';
import { useSettings } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { LogoField } from './LogoField.js';
import { SettingsForm } from './SettingsForm.js';
import { Upkeep } from './Upkeep.js';

/** What holds for the whole workshop: what stands on its papers, how the guard is set, how the server is. */
export function Settings() {
  const settings = useSettings();
  const isLead = useMay('lead');
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      <Typography variant="h1">Workshop</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 2 }}>
        {isLead ? 'Holds for everybody.' : 'Holds for everybody; a lead sets it.'}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 900px) minmax(0, 1fr)' },
          columnGap: 6,
          rowGap: 4,
          alignItems: 'start',
        }}
      >
        <Box>
          {settings.isError && <ErrorState error={settings.error} onRetry={() => void settings.refetch()} />}
          {settings.isPending && <LoadingSkeleton lines={6} />}
          {settings.data && (
            <SettingsForm saved={settings.data} logo={<LogoField logo={settings.data.logo} />} />
          )}
        </Box>
        <Upkeep />
      </Box>
    </Box>
  );
}
