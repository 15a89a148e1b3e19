import { Button, Stack, Typography } from '@mui/material';
import { DEFAULT_PERSON_ID } from '@entretien/contracts/light';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useMe } from '../data/me.js';
import { usePreferences } from '../data/preferences.js';
import { usePeople } from '../data/queries.js';

const SayWho = lazy(() => import('./SayWho.js').then((part) => ({ default: part.SayWho })));

/**
 * Asks once on each device who works on it: every fact is recorded by somebody, and who signs is who recorded. Where
 * one person alone works, it is that one.
 */
export function WhoWorks() {
  // Whoever signs in has said so.
  return useMe().data?.access === 'on' ? null : <Ask />;
}

function Ask() {
  const { data } = usePeople();
  const { personId, setPerson } = usePreferences();
  const [isLater, setLater] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const known = (data ?? []).filter(({ id }) => id !== DEFAULT_PERSON_ID);
  const only = known.length === 1 ? known[0]!.id : null;
  useEffect(() => {
    if (personId === null && only !== null) setPerson(only);
  }, [personId, only, setPerson]);
  // Known from the first moment on, so that nothing moves when the people are there.
  if (personId !== null || only !== null || isLater) return null;
  return (
    <Stack
      component="section"
      aria-label="Who works here?"
      direction="row"
      sx={{
        alignItems: 'center',
        gap: 1,
        bgcolor: 'slateGround',
        px: { xs: 2, md: 3.5 },
        height: 52,
        flex: 'none',
        '@media print': { display: 'none' },
      }}
    >
      <Typography sx={{ fontWeight: 650, flex: { xs: 1, sm: 'none' } }}>Who works here?</Typography>
      <Button variant="outlined" onClick={() => setAsked(true)} sx={{ minHeight: 44 }}>
        Say who
      </Button>
      <Button color="inherit" onClick={() => setLater(true)} sx={{ minHeight: 44 }}>
        Later
      </Button>
      {isAsked && (
        <Suspense fallback={null}>
          <SayWho known={known} onClose={() => setAsked(false)} />
        </Suspense>
      )}
    </Stack>
  );
}
