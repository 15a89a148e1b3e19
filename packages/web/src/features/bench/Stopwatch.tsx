import { Box, Button } from '@mui/material';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { currentInstant } from '../../data/clock.js';
import { Figure } from '../../components/Figure.js';

interface Watch {
  /** When it was started; null while it stands. Kept through a reload. */
  readonly startedAt: number | null;
  start(at: number): void;
  stop(): void;
}

const useWatch = create<Watch>()(
  persist(
    (set) => ({
      startedAt: null,
      start: (startedAt) => set({ startedAt }),
      stop: () => set({ startedAt: null }),
    }),
    { name: 'entretien-watch' },
  ),
);

const TICK_MS = 100;

/** A stop-watch for thick fingers: it goes on through a reload, and gives its seconds when stopped. */
export function Stopwatch({ onSeconds }: { readonly onSeconds: (seconds: number) => void }) {
  const { startedAt, start, stop } = useWatch();
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (startedAt === null) return undefined;
    const timer = setInterval(() => setNow(currentInstant()), TICK_MS);
    return () => clearInterval(timer);
  }, [startedAt]);
  const press = () => {
    if (startedAt === null) {
      const at = currentInstant();
      setNow(at);
      start(at);
      return;
    }
    onSeconds(Math.round((currentInstant() - startedAt) / 100) / 10);
    stop();
  };
  const isRunning = startedAt !== null;
  return (
    <Box>
      <Button
        variant={isRunning ? 'contained' : 'outlined'}
        color={isRunning ? 'error' : 'primary'}
        onClick={press}
        fullWidth
        aria-label={isRunning ? 'Stop the watch' : 'Start the watch'}
        sx={{ minHeight: 64, fontSize: '1.1rem', gap: 1.5 }}
      >
        {isRunning ? 'Stop' : 'Start the watch'}
        {isRunning && (
          <Figure
            value={(Math.max(0, now - startedAt) / 1000).toFixed(1)}
            unit="s"
            sx={{ fontSize: '1.5rem', '& span': { color: 'inherit' } }}
          />
        )}
      </Button>
    </Box>
  );
}
