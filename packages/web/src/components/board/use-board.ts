import type { DataPlate } from '@entretien/core/machine';
import type { Board } from '@entretien/core/simulator';
import { useEffect, useRef, useState } from 'react';
import type { BoardAnswer, BoardFault, BoardRequest } from './board-messages.js';

interface Running {
  readonly board: Board | null;
  readonly faults: readonly BoardFault[];
  readonly hasFailed: boolean;
}

const nothing: Running = { board: null, faults: [], hasFailed: false };

/**
 * A simulated machine beside the page; another plate is another machine. It halts while nobody looks.
 *
 * @param faults what is wrong with it from the beginning, by size
 * @param pace seconds of the machine in one of the clock
 * @param round begins again when it changes
 */
export function useBoard(
  plate: DataPlate,
  faults: Readonly<Record<string, number>>,
  pace: number,
  round: number,
) {
  const [running, setRunning] = useState(nothing);
  const worker = useRef<Worker | null>(null);
  const begins = useRef(faults);
  useEffect(() => {
    begins.current = faults;
  });
  const key = JSON.stringify(plate);
  useEffect(() => {
    const started = new Worker(new URL('./board-worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    started.addEventListener('message', ({ data }: MessageEvent<BoardAnswer>) =>
      setRunning((before) => ({ board: data.board, faults: data.faults ?? before.faults, hasFailed: false })),
    );
    started.addEventListener('error', () => setRunning((before) => ({ ...before, hasFailed: true })));
    const first: BoardRequest = {
      kind: 'begin',
      plate: JSON.parse(key) as DataPlate,
      faults: begins.current,
    };
    started.postMessage(first);
    return () => {
      started.terminate();
      worker.current = null;
      setRunning(nothing);
    };
  }, [key, round]);
  const ask = (request: BoardRequest) => worker.current?.postMessage(request);
  useEffect(() => {
    const set = () => ask({ kind: 'pace', pace: document.hidden ? 0 : pace });
    set();
    document.addEventListener('visibilitychange', set);
    return () => document.removeEventListener('visibilitychange', set);
  }, [pace, key, round]);
  return { ...running, ask };
}
