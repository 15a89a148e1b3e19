import { Alert, Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { exerciseByCode, FREE, type Exercise, type RoundView } from '@entretien/core/practice';
import { symptomByCode } from '@entretien/core/faults';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { BoardRequest } from '../../components/board/board-messages.js';
import { MachineBoard } from '../../components/board/MachineBoard.js';
import { Choice } from '../../components/Choices.js';
import { LoadingSkeleton } from '../../components/States.js';
import { WithSide } from '../../components/WithSide.js';
import { figureFont } from '../../components/theme/theme.js';
import { currentInstant } from '../../data/clock.js';
import { EndOfRound } from './EndOfRound.js';
import { RoundActions } from './RoundActions.js';
import { LatestLine, RoundLog } from './RoundLog.js';
import { usePractice } from './rounds.js';
import { useRound } from './use-round.js';

const paces = [
  ['0', 'Halted'],
  ['1', 'As it is'],
  ['10', '10 ×'],
  ['60', '60 ×'],
] as const;

/** One exercise: the machine, what can be done at it, and the clock. */
export function PracticeRound() {
  const { code = '', seed = '' } = useParams();
  const exercise = useMemo(() => exerciseByCode(code, seed), [code, seed]);
  const [again, setAgain] = useState(0);
  if (!exercise || !/^[a-z0-9]{1,20}$/.test(seed))
    return (
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2 }}>
        <Typography variant="h1">No such exercise</Typography>
        <MuiLink component={Link} to="/practice">
          All exercises
        </MuiLink>
      </Box>
    );
  return (
    <Played
      key={`${code}/${seed}/${again}`}
      exercise={exercise}
      seed={seed}
      onAgain={() => setAgain(again + 1)}
    />
  );
}

interface PlayedProps {
  readonly exercise: Exercise;
  readonly seed: string;
  readonly onAgain: () => void;
}

function Played({ exercise, seed, onAgain }: PlayedProps) {
  const { code } = exercise;
  const navigate = useNavigate();
  const forget = usePractice((practice) => practice.forget);
  const [pace, setPace] = useState('1');
  const { view, isBusy, hasFailed, ask } = useRound(code, seed, Number(pace));
  const again = () => {
    forget(code, seed);
    onAgain();
  };
  const another = () => void navigate(`/practice/${code}/${currentInstant().toString(36)}`);
  const onBoard = (request: BoardRequest) => {
    if (request.kind === 'turn' || request.kind === 'press') ask(request);
  };
  return (
    <WithSide
      width={380}
      side={view && view.end === null ? <RoundActions view={view} isBusy={isBusy} onAsk={ask} /> : null}
    >
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 3, minWidth: 0 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, justifyContent: 'space-between' }}>
          <Told exercise={exercise} seed={seed} />
          {view && view.end === null && <Clock view={view} pace={pace} onPace={setPace} />}
        </Box>
        {hasFailed && (
          <Alert severity="error" action={<Button onClick={again}>Begin again</Button>}>
            The simulation stopped. Reload the page; where that does not help, begin again.
          </Alert>
        )}
        {view === null && <LoadingSkeleton lines={8} />}
        {view?.end && <EndOfRound view={view} end={view.end} onAgain={again} onAnother={another} />}
        {view && view.end === null && (
          <>
            <LatestLine log={view.log} />
            <MachineBoard board={view.board} onAsk={onBoard} isLocked={view.isLocked} />
            <RoundLog log={view.log} />
          </>
        )}
      </Box>
    </WithSide>
  );
}

function Told({ exercise, seed }: Pick<PlayedProps, 'exercise' | 'seed'>) {
  const { number, name, story, goal, symptom, code } = exercise;
  return (
    <Box sx={{ mb: 1, flex: '1 1 380px', maxWidth: 860 }}>
      <MuiLink
        component={Link}
        to="/practice"
        sx={{
          typography: 'body2',
          display: 'inline-flex',
          alignItems: 'center',
          minHeight: { xs: 44, md: 24 },
        }}
      >
        Practice
      </MuiLink>
      <Typography variant="h1" sx={{ mb: 0.5 }}>
        {code === FREE ? name : `${number} · ${name}`}
      </Typography>
      <Typography>{story}</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {`Seen: ${symptomByCode(symptom)!.text.toLowerCase()}. Draw ${seed}.`}
      </Typography>
      <Typography sx={{ fontWeight: 650, mt: 0.5 }}>{goal}</Typography>
    </Box>
  );
}

interface ClockProps {
  readonly view: RoundView;
  readonly pace: string;
  readonly onPace: (pace: string) => void;
}

function Clock({ view, pace, onPace }: ClockProps) {
  const minutes = Math.floor(view.seconds / 60);
  const isLate = minutes >= view.goalMinutes;
  return (
    <Box sx={{ mb: 1, flex: '0 1 auto', minWidth: 0 }}>
      <Box aria-label="Clock" sx={{ ...figureFont, fontSize: '1.5rem', fontWeight: 650 }}>
        {minutes}
        <Box
          component="span"
          sx={{ fontSize: '1rem', fontWeight: 500, color: isLate ? 'error.main' : 'inherit' }}
        >
          {isLate ? ` min, ${minutes - view.goalMinutes} over` : ` of ${view.goalMinutes} min`}
        </Box>
      </Box>
      <Choice name="Time" options={paces} value={pace} onChoose={onPace} />
    </Box>
  );
}
