import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  Typography,
} from '@mui/material';
import type { SiteView } from '@entretien/contracts';
import { formatQuantity } from '@entretien/core/quantities';
import { useState } from 'react';
import { useSites } from '../../data/queries.js';
import { SiteDialog } from './SiteDialog.js';

/** The sites, to add one or mend what is known of one. */
export function SitesDialog({ onClose }: { readonly onClose: () => void }) {
  const { data: sites = [] } = useSites();
  const [edited, setEdited] = useState<SiteView | 'new' | null>(null);
  if (edited !== null) {
    return <SiteDialog {...(edited === 'new' ? {} : { site: edited })} onClose={() => setEdited(null)} />;
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="sites-title">
      <DialogTitle id="sites-title">Sites</DialogTitle>
      <DialogContent>
        {sites.length === 0 && <Typography sx={{ color: 'text.secondary' }}>No site yet.</Typography>}
        {sites.map((site) => (
          <Stack
            key={site.id}
            direction="row"
            sx={{ alignItems: 'center', borderBottom: 1, borderColor: 'divider', minHeight: 48, gap: 1 }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography sx={{ fontWeight: 600 }}>{site.name}</Typography>
              <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                {[
                  site.address,
                  site.contact,
                  site.altitudeM === undefined ? undefined : formatAltitude(site.altitudeM),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Typography>
            </Box>
            <Button onClick={() => setEdited(site)} aria-label={`Edit ${site.name}`}>
              Edit
            </Button>
          </Stack>
        ))}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" onClick={() => setEdited('new')}>
          Add a site
        </Button>
      </DialogActions>
    </Dialog>
  );
}

function formatAltitude(altitudeM: number): string {
  const { figure, unit } = formatQuantity(altitudeM, 'altitude');
  return `${figure} ${unit}`;
}
