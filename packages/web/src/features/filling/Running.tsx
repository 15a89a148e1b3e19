import { Button, Stack, Typography } from '@mui/material';
import { formatFigure } from '@entretien/core/quantities';
import { currentInstant } from '../../data/clock.js';
import { emptyEntry, entryOf } from '../../components/QuantityField.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { useSecond } from '../../components/use-second.js';
import type { FillDraft } from './draft.js';
import { FillLine } from './FillLine.js';

interface RunningProps {
  readonly timeZone: string;
  readonly startedAt: number;
  readonly fromBar: number;
  readonly aim: number;
  /** How long it should take; null where nobody knows what the set gives. */
  readonly minutes: number | null;
  readonly onEnd: (changes: Partial<FillDraft>) => void;
}

/** Air flows: where the needle should be, and the two ways to end it. */
export function Running({ timeZone, startedAt, fromBar, aim, minutes, onEnd }: RunningProps) {
  useSecond();
  const format = useFormatQuantity();
  const now = currentInstant();
  const passed = Math.max(0, (now - startedAt) / 60_000);
  const end = (outcome: 'full' | 'stopped') =>
    onEnd({
      endedAt: Math.max(currentInstant(), startedAt + 1000),
      outcome,
      end: outcome === 'full' ? entryOf(aim, 'pressure') : emptyEntry,
    });
  return (
    <>
      <Typography sx={{ fontWeight: 700, fontSize: '1.15rem', color: 'brass', mt: 2 }}>
        Watch the needle
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        {formatFigure(passed, { decimals: 1 })} min so far
        {minutes === null ? '' : ` of about ${formatFigure(minutes, { decimals: 0 })}`}. Stay with it, and not
        beside it.
      </Typography>
      {minutes !== null && (
        <FillLine
          startedAt={startedAt}
          now={now}
          minutes={minutes}
          fromBar={fromBar}
          toBar={aim}
          timeZone={timeZone}
        />
      )}
      <Stack direction="row" sx={{ gap: 1.5, mt: 2 }}>
        <Button
          variant="outlined"
          color="error"
          onClick={() => end('stopped')}
          sx={{ minHeight: 64, flex: 2, fontSize: '1.05rem' }}
        >
          Stop the fill
        </Button>
        <Button
          variant="contained"
          onClick={() => end('full')}
          sx={{ minHeight: 64, flex: 3, fontSize: '1.05rem' }}
        >
          Full: {format(aim, 'pressure')}
        </Button>
      </Stack>
    </>
  );
}
