import { RunHours } from '../../components/RunHours.js';
import { Box, Button, Stack, Typography } from '@mui/material';
import type { FleetCompressorView } from '@entretien/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { StopMark } from '../../components/stop/StopMark.js';
import { figureFont } from '../../components/theme/theme.js';
import { OpenMark } from '../../components/OpenMark.js';
import { NextTask } from './NextTask.js';

export interface RegisterProps {
  readonly units: readonly FleetCompressorView[];
  readonly zoneOf: (siteId: string) => string;
}

const CARDS_AT_FIRST = 30;

export function RegisterCards({ units, zoneOf }: RegisterProps) {
  const [shown, setShown] = useState(CARDS_AT_FIRST);
  return (
    <>
      <Box component="ul" aria-label="Register of units" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {units.slice(0, shown).map((unit) => (
          <Box component="li" key={unit.compressorId} sx={{ borderBottom: 1, borderColor: 'divider' }}>
            <Box
              component={Link}
              to={`/units/${unit.compressorId}`}
              sx={{ display: 'block', color: 'inherit', textDecoration: 'none', py: 1, minHeight: 44 }}
            >
              <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 1 }}>
                <Typography noWrap>
                  <Box component="span" sx={{ ...figureFont, fontWeight: 700, pr: 1 }}>
                    {unit.tag}
                  </Box>
                  <Box component="span" sx={{ color: 'text.secondary', typography: 'body2' }}>
                    <StopMark compressorId={unit.compressorId} />
                    <OpenMark compressorId={unit.compressorId} isText /> {unit.siteName}, {unit.description}
                  </Box>
                </Typography>
                <RunHours of={unit} isInline />
              </Stack>
              <NextTask unit={unit} timeZone={zoneOf(unit.siteId)} />
            </Box>
          </Box>
        ))}
      </Box>
      {units.length > shown && (
        <Button onClick={() => setShown(shown + 100)}>Show more ({units.length - shown})</Button>
      )}
    </>
  );
}
