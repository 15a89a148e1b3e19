import { Box, Button, Stack, Typography } from '@mui/material';
import {
  isOfPointOfUse,
  missingFor,
  pointOf,
  pointsNeeded,
  STILL,
  tilesOf,
  type IsolationPoint,
} from '@entretien/core/isolation';
import { useState } from 'react';
import { usePeople } from '../../data/queries.js';
import { Tick } from '../Tick.js';
import { PointCard, StillCard } from './PointCard.js';
import type { IsolationHere } from './use-recording.js';

/** The isolation that some work needs, one space after the other; what holds can be taken back. */
export function IsolationGuide({ here }: { readonly here: IsolationHere }) {
  const { guarded, fold, opens, by, session, now } = here;
  const missing = missingFor(guarded, fold, opens, { at: now, by, session });
  const needed = pointsNeeded(guarded.plate, opens).map((code) => pointOf(guarded.plate, code)!);
  const lacks = new Map(missing.map((one) => [one.point, one]));
  const isStill = lacks.has(STILL);
  // What is seen only at the end comes at the end.
  const next =
    needed.find(({ code, kind }) => lacks.has(code) && kind !== 'look') ??
    needed.find(({ code }) => lacks.has(code));
  const held = needed.filter(({ code }) => !lacks.has(code));
  return (
    <Box>
      <Others here={here} />
      <Typography role="status" sx={{ fontWeight: 650, mt: 0.5 }}>
        {needed.length === 0
          ? 'Not needed: nothing of this opens anything.'
          : missing.length === 0
            ? 'Isolated for this.'
            : isStill
              ? 'After a pause.'
              : `${held.length} of ${needed.length} hold.`}
      </Typography>
      <Box component="ul" aria-label="What holds" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {needed
          .filter(({ code }) => !lacks.has(code))
          .map((point) => (
            <HeldRow key={point.code} here={here} point={point} />
          ))}
      </Box>
      {isStill ? (
        <StillCard here={here} />
      ) : (
        next && <PointCard key={next.code} here={here} point={next} missing={lacks.get(next.code)!} />
      )}
      {!isStill && <Then points={needed.filter(({ code }) => lacks.has(code) && code !== next?.code)} />}
      {needed.length > 0 && (
        <Typography variant="caption" component="p" sx={{ color: 'text.secondary', my: 1 }}>
          The maker’s manual, your local rules for lock-out and licensed trades come first.
        </Typography>
      )}
    </Box>
  );
}

/** What comes after, so that nobody is surprised by it. */
function Then({ points }: { readonly points: readonly IsolationPoint[] }) {
  if (points.length === 0) return null;
  return (
    <Box component="ol" aria-label="Then" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}>
      {points.map(({ code, name }) => (
        <Stack component="li" key={code} direction="row" sx={{ alignItems: 'center', gap: 1.25, py: 0.6 }}>
          <Tick on={false} size={20} />
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {name}
          </Typography>
        </Stack>
      ))}
    </Box>
  );
}

/** Who else has a lock on: each takes off their own. */
function Others({ here: { fold, by } }: { readonly here: IsolationHere }) {
  const { data: people } = usePeople();
  const others = [...fold.locks.keys()].filter((person) => person !== by);
  if (others.length === 0) return null;
  const names = others.map((person) => people?.find(({ id }) => id === person)?.name ?? 'Somebody else');
  return (
    <Typography variant="body2" sx={{ color: 'brass', fontWeight: 600, mb: 0.5 }}>
      The lock of {names.join(' and ')} is on. Put on your own and look for yourself.
    </Typography>
  );
}

const takenBack: Readonly<Partial<Record<IsolationPoint['kind'], string>>> = {
  drive: 'My lock is off',
  shut: 'Open again',
  vent: 'Vent shut',
};

function HeldRow({ here, point }: { readonly here: IsolationHere; readonly point: IsolationPoint }) {
  const [isAsking, setAsking] = useState(false);
  const label = takenBack[point.kind] ?? 'Undo';
  const takeBack = () => {
    for (const { code } of tilesOf(point)) {
      void here.record({
        kind: 'isolate',
        step: point.code,
        confirmed: false,
        ...(code === '' ? {} : { tile: code }),
      });
    }
    setAsking(false);
  };
  const rests = isOfPointOfUse(point.code) ? 'What rests on it' : 'Every proof that rests on it';
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider', py: 0.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.25 }}>
        <Tick on size={22} />
        <Typography sx={{ flex: 1, fontWeight: 600, lineHeight: 1.25 }}>{point.name}</Typography>
        <Button
          color="inherit"
          onClick={() => setAsking(!isAsking)}
          aria-label={`${label}: ${point.name}`}
          sx={{ minHeight: 44, color: 'text.secondary' }}
        >
          {label}
        </Button>
      </Stack>
      {isAsking && (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1, pb: 0.5 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            {rests} is asked for again.
          </Typography>
          <Button color="error" variant="outlined" onClick={takeBack} sx={{ minHeight: 44 }}>
            So it is
          </Button>
        </Stack>
      )}
    </Box>
  );
}
