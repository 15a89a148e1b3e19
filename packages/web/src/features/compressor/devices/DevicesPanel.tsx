import { Alert, Box, Button, Typography } from '@mui/material';
import { MOST_DEVICES_OF_UNIT, type DeviceRefusalView, type DeviceView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';
import { useState } from 'react';
import { useMay } from '../../../data/me.js';
import { useDevicesOf, useDo } from '../../../data/queries.js';
import { answeringText } from '../../../components/answering-text.js';
import { ProblemLine } from '../../../components/ProblemLine.js';
import { DeviceDialog } from './DeviceDialog.js';

/** What of a unit reads itself: how it answers, what it shows, and what of it was refused. */
export function DevicesPanel({ compressorId }: { readonly compressorId: string }) {
  const { data } = useDevicesOf(compressorId);
  const maySet = useMay('lead');
  const [open, setOpen] = useState<DeviceView | 'new' | null>(null);
  if (!data || (data.items.length === 0 && !(data.isOn && maySet))) return null;
  return (
    <Box
      component="section"
      aria-label="Reads itself"
      sx={{ mt: 2, borderTop: 1, borderColor: 'divider', pt: 1.5 }}
    >
      <Typography variant="h2">Reads itself</Typography>
      {data.items.map((device) => (
        <Device key={device.id} device={device} maySet={maySet} onChange={() => setOpen(device)} />
      ))}
      {data.items.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary', my: 0.5 }}>
          A controller that speaks Modbus TCP can be asked for its hours, pressures and temperatures.
        </Typography>
      )}
      {maySet && data.items.length < MOST_DEVICES_OF_UNIT && (
        <Button variant="outlined" onClick={() => setOpen('new')} sx={{ mt: 1, minHeight: 44 }}>
          Add a device
        </Button>
      )}
      {open !== null && (
        <DeviceDialog
          compressorId={compressorId}
          device={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </Box>
  );
}

interface DeviceProps {
  readonly device: DeviceView;
  readonly maySet: boolean;
  readonly onChange: () => void;
}

function Device({ device, maySet, onChange }: DeviceProps) {
  const { name, host, port, everySeconds, figures, problem, refused, state, timeZone } = device;
  return (
    <Box component="article" aria-label={name} sx={{ py: 1, borderBottom: 1, borderColor: 'divider' }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', columnGap: 1.5 }}>
        <Typography variant="h3">{name}</Typography>
        <Typography sx={{ fontWeight: 650, color: state === 'silent' ? 'oxide' : 'text.primary' }}>
          {answeringText(device)}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {`${host}:${port}, every ${everySeconds} s`}
        </Typography>
      </Box>
      {problem !== null && (
        <Alert severity={state === 'answers' ? 'info' : 'warning'} sx={{ my: 0.5 }}>
          {problem}
        </Alert>
      )}
      {figures.length > 0 && (
        <Box
          component="dl"
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2.5, rowGap: 0.5, m: 0, my: 0.75 }}
        >
          {figures.map(({ name: what, text }) => (
            <Box key={what}>
              <Box component="dt" sx={{ typography: 'caption', color: 'text.secondary' }}>
                {what}
              </Box>
              <Box component="dd" sx={{ m: 0, fontWeight: 650 }}>
                {text}
              </Box>
            </Box>
          ))}
        </Box>
      )}
      <Refused refused={refused} timeZone={timeZone} />
      {maySet && (
        <Button onClick={onChange} sx={{ minHeight: 44, px: 0 }}>
          Change it
        </Button>
      )}
    </Box>
  );
}

/** The tray: what it told and what did not become a fact, until somebody has seen to it. */
function Refused({ refused, timeZone }: Pick<DeviceView, 'refused' | 'timeZone'>) {
  const may = useMay('work');
  const seen = useDo();
  if (refused.length === 0) return null;
  return (
    <Box component="section" aria-label="Not put on record" sx={{ mt: 0.5 }}>
      <Typography variant="body2" sx={{ fontWeight: 700 }}>
        Not put on record
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {refused.map((one) => (
          <Box
            component="li"
            key={one.id}
            sx={{
              display: 'flex',
              gap: 2,
              alignItems: 'center',
              justifyContent: 'space-between',
              borderLeft: 4,
              borderColor: 'brass',
              pl: 1.25,
              my: 0.5,
            }}
          >
            <span>
              {one.sentence}
              <Typography component="span" variant="body2" sx={{ display: 'block', color: 'text.secondary' }}>
                {timesText(one, timeZone)}
              </Typography>
            </span>
            {may && (
              <Button
                disabled={seen.isPending}
                onClick={() => seen.mutate(`/device-refusals/${one.id}/seen`)}
                sx={{ minHeight: 44, flexShrink: 0 }}
              >
                Seen
              </Button>
            )}
          </Box>
        ))}
      </Box>
      <ProblemLine error={seen.error} />
    </Box>
  );
}

function timesText({ firstAt, lastAt, times }: DeviceRefusalView, timeZone: string): string {
  const text = (at: string) => formatMoment(Date.parse(at), timeZone);
  return times === 1 ? text(firstAt) : `${times} times, from ${text(firstAt)} to ${text(lastAt)}`;
}
