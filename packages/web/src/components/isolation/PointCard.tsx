import { Box, Button, Stack, Typography } from '@mui/material';
import { lastSilence, tilesOf, type IsolationPoint, type Missing } from '@entretien/core/isolation';
import { useState } from 'react';
import { currentInstant } from '../../data/clock.js';
import { Caution } from '../Caution.js';
import { HoldButton } from './HoldButton.js';
import { Refused } from './Refused.js';
import { useRecording, type IsolationHere } from './use-recording.js';
import { useSecond } from '../use-second.js';
import { VentTile } from './VentTile.js';

interface PointProps {
  readonly here: IsolationHere;
  readonly point: IsolationPoint;
}

/** One space, or one confirmation, a screen: what to do, what goes wrong, and the large targets for it. */
export function PointCard({ here, point, missing }: PointProps & { readonly missing: Missing }) {
  const tiles = tilesOf(point).filter(({ code }) => missing.tiles.includes(code));
  return (
    <Box component="section" aria-label={point.name} sx={{ py: 1 }}>
      <Typography variant="h2" sx={{ fontSize: '1.35rem', lineHeight: 1.25 }}>
        {point.name}
      </Typography>
      <Typography sx={{ mb: 1, fontSize: '1.02rem' }}>{point.hint}</Typography>
      {point.beware && <Caution text={point.beware} />}
      {point.kind === 'vent' ? (
        tiles.map((tile) => (
          <VentTile key={tile.code} here={here} point={point} tile={tile} isOne={point.tiles === undefined} />
        ))
      ) : point.kind === 'look' ? (
        <Look here={here} point={point} />
      ) : (
        tiles.map((tile) => (
          <Holding
            key={tile.code}
            here={here}
            point={point}
            tile={tile.code}
            label={point.tiles === undefined ? 'Hold: it is so' : `Hold: ${tile.name}`}
          />
        ))
      )}
    </Box>
  );
}

interface HoldingProps extends PointProps {
  readonly tile: string;
  readonly label: string;
}

function Holding({ here, point, tile, label }: HoldingProps) {
  const recording = useRecording(here);
  const place = tile === '' ? {} : { tile };
  return (
    <Box sx={{ mb: 1 }}>
      <HoldButton fullWidth onHeld={() => recording.record({ step: point.code, ...place, answer: 'holds' })}>
        {label}
      </HoldButton>
      {point.kind === 'shut' && (
        <Button
          color="error"
          onClick={() => {
            recording.record({ step: point.code, ...place, answer: 'stuck' });
            here.onFound(`${point.name}: it will not move`);
          }}
          sx={{ minHeight: 48 }}
        >
          It will not move
        </Button>
      )}
      <Refused recording={recording} />
    </Box>
  );
}

/** The second look: not before its time, and then nothing comes and no needle has moved. */
function Look({ here, point }: PointProps) {
  const recording = useRecording(here);
  const [isAsking, setAsking] = useState(false);
  useSecond();
  const left = lastSilence(here.fold) + (point.waitMinutes ?? 0) * 60_000 - currentInstant();
  const seconds = Math.max(0, Math.ceil(left / 1000));
  return (
    <>
      <Typography role="status" sx={{ fontWeight: 650, mb: 1 }}>
        {seconds > 0
          ? `In ${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}, everything left open.`
          : 'Now: look at every open vent and every needle.'}
      </Typography>
      <HoldButton
        fullWidth
        disabled={seconds > 0}
        onHeld={() => recording.record({ step: point.code, answer: 'holds' })}
      >
        Hold: nothing comes, no needle moved
      </HoldButton>
      <Stack direction="row" sx={{ mt: 1 }}>
        <Button color="error" variant="outlined" onClick={() => setAsking(true)} sx={{ minHeight: 56 }}>
          Something comes, or a needle moved
        </Button>
      </Stack>
      {isAsking && (
        <Box role="alert" sx={{ bgcolor: 'oxideGround', p: 1.25, mt: 1 }}>
          <Typography sx={{ fontWeight: 650, color: 'oxide' }}>
            It is being fed: by a valve that passes, a check valve, another compressor. Nothing is opened.
            Find the neighbour, shut it too, and prove the spaces again.
          </Typography>
          <Button
            color="error"
            variant="contained"
            onClick={() => {
              recording.record({ step: point.code, answer: 'is-fed' });
              here.onFound('At the second look something came again: a neighbouring valve passes');
              setAsking(false);
            }}
            sx={{ minHeight: 56, mt: 1 }}
          >
            So it is: prove again
          </Button>
        </Box>
      )}
      <Refused recording={recording} />
    </>
  );
}

/** After a pause one screen and one hold. */
export function StillCard({ here }: { readonly here: IsolationHere }) {
  const recording = useRecording(here);
  return (
    <Box component="section" aria-label="After a pause" sx={{ py: 1 }}>
      <Typography variant="h2" sx={{ fontSize: '1.35rem', lineHeight: 1.25 }}>
        Look again, before you open anything
      </Typography>
      <Box component="ul" sx={{ pl: 2.5, my: 1, '& li': { py: 0.4, fontSize: '1.05rem' } }}>
        <li>My lock and my tags are on</li>
        <li>Every vent is open</li>
        <li>Nothing comes</li>
        <li>Every needle is at rest</li>
      </Box>
      <HoldButton fullWidth onHeld={() => recording.record({ step: 'still', answer: 'holds' })}>
        Hold: all four
      </HoldButton>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        Anything else: take back what no longer holds, above, and prove it again.
      </Typography>
      <Refused recording={recording} />
    </Box>
  );
}
