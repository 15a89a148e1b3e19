import { Box, Link as MuiLink, Typography } from '@mui/material';
import { exercises, FREE, type Exercise } from '@entretien/core/practice';
import { symptomByCode } from '@entretien/core/faults';
import { useState } from 'react';
import { Link } from 'react-router';
import { Caution } from '../../components/Caution.js';
import { figureFont } from '../../components/theme/theme.js';
import { currentInstant } from '../../data/clock.js';
import { bestOf, usePractice, type KeptResult } from './rounds.js';

/** The first draw of every exercise: the same on every device, so that results can be compared. */
export const FIRST_DRAW = '1';

/** Machines to practise on: each with something hidden in it, a goal, and a trap. */
export function PracticePage() {
  const { results, rounds } = usePractice();
  const [lot] = useState(() => currentInstant().toString(36));
  const linkOf = (code: string) => `/practice/${code}/${FIRST_DRAW}`;
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, width: '100%', maxWidth: 1100 }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Practice
      </Typography>
      <Typography sx={{ mb: 1.5, maxWidth: 720 }}>
        A machine with something wrong in it, a goal and a clock. Find it, mend it, prove it. Whoever opens
        what holds pressure learns what would have happened, and which step was left out.
      </Typography>
      <Caution text="A picture of a machine, not yours: there the isolation is gone through, with its own manual." />
      <Box component="ol" aria-label="Exercises" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {exercises.map((exercise) => (
          <Row
            key={exercise.code}
            to={linkOf(exercise.code)}
            number={String(exercise.number)}
            name={exercise.name}
            text={firstSeen(exercise)}
            goalMinutes={exercise.goalMinutes}
            best={bestOf(results, exercise.code)}
            isUnderWay={rounds.some(
              ({ code, seed, seconds, done }) =>
                code === exercise.code &&
                seed === FIRST_DRAW &&
                seconds + done.length > 0 &&
                !results.some((one) => one.code === code && one.seed === seed),
            )}
          />
        ))}
        <Row
          to={`/practice/${FREE}/${lot}`}
          number="–"
          name="A machine drawn by lot"
          text="Any family; one thing wrong with it, or two, or nothing"
          goalMinutes={null}
          best={bestOf(results, FREE)}
          isUnderWay={false}
        />
      </Box>
    </Box>
  );
}

function firstSeen({ symptom, plate }: Exercise): string {
  const family = {
    piston: 'Piston',
    'piston-oil-free': 'Oil-free piston',
    screw: 'Screw',
    'high-pressure': 'High pressure',
  }[plate.family];
  return `${family} · ${symptomByCode(symptom)!.text}`;
}

interface RowProps {
  readonly to: string;
  readonly number: string;
  readonly name: string;
  readonly text: string;
  readonly goalMinutes: number | null;
  readonly best: KeptResult | undefined;
  readonly isUnderWay: boolean;
}

function Row({ to, number, name, text, goalMinutes, best, isUnderWay }: RowProps) {
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider' }}>
      <MuiLink
        component={Link}
        to={to}
        color="inherit"
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '2rem 1fr', sm: '2.5rem minmax(0, 1fr) 7rem 11rem' },
          columnGap: 1.5,
          alignItems: 'baseline',
          py: 1.25,
          minHeight: 56,
          textDecoration: 'none',
          '&:hover': { bgcolor: 'background.sheet' },
        }}
      >
        <Box component="span" sx={{ ...figureFont, fontSize: '1.3rem', fontWeight: 650 }}>
          {number}
        </Box>
        <span>
          <Box component="span" sx={{ display: 'block', fontWeight: 650, color: 'primary.main' }}>
            {name}
          </Box>
          <Box component="span" sx={{ color: 'text.secondary', typography: 'body2' }}>
            {text}
          </Box>
        </span>
        <Box component="span" sx={{ gridColumn: { xs: 2, sm: 'auto' }, typography: 'body2' }}>
          {goalMinutes !== null && `goal ${goalMinutes} min`}
        </Box>
        <Box
          component="span"
          sx={{ gridColumn: { xs: 2, sm: 'auto' }, typography: 'body2', fontWeight: 600 }}
        >
          {isUnderWay ? 'Under way' : bestText(best)}
        </Box>
      </MuiLink>
    </Box>
  );
}

function bestText(best: KeptResult | undefined): string {
  if (!best) return '';
  if (best.end === 'accident') return 'Somebody was hurt';
  return best.total === null ? 'Given up' : `Mended, best ${best.total}`;
}
