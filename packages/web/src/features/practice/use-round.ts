import type { PracticeAsk, RoundView } from '@entretien/core/practice';
import { useEffect, useRef, useState } from 'react';
import type { PracticeAnswer, PracticeRequest } from './practice-messages.js';
import { usePractice } from './rounds.js';

interface Playing {
  readonly view: RoundView | null;
  /** Something was asked and is not done yet. */
  readonly isBusy: boolean;
  readonly hasFailed: boolean;
}

/** Seconds of the machine after which it is kept again on the device. */
const KEPT_EVERY_S = 20;

/**
 * A round played beside the page. It goes on from where this device kept it, and stands still while nobody looks.
 *
 * @param pace seconds of the machine in one of the clock
 */
export function useRound(code: string, seed: string, pace: number) {
  const [playing, setPlaying] = useState<Playing>({ view: null, isBusy: true, hasFailed: false });
  const worker = useRef<Worker | null>(null);
  const keep = usePractice((practice) => practice.keep);
  useEffect(() => {
    const started = new Worker(new URL('./practice-worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    let kept = { done: -1, seconds: 0 };
    started.addEventListener('message', ({ data }: MessageEvent<PracticeAnswer>) => {
      const { view, done, isAnswer } = data;
      setPlaying((before) => ({ view, isBusy: isAnswer ? false : before.isBusy, hasFailed: false }));
      if (done.length === kept.done && view.seconds < kept.seconds + KEPT_EVERY_S && view.end === null)
        return;
      kept = { done: done.length, seconds: view.seconds };
      keep({ code, seed, done, seconds: view.seconds }, view.end);
    });
    started.addEventListener('error', () => setPlaying((before) => ({ ...before, hasFailed: true })));
    const before = usePractice.getState().rounds.find((one) => one.code === code && one.seed === seed);
    const begin: PracticeRequest = {
      kind: 'begin',
      code,
      seed,
      done: before?.done ?? [],
      seconds: before?.seconds ?? 0,
    };
    started.postMessage(begin);
    return () => {
      started.terminate();
      worker.current = null;
    };
  }, [code, seed, keep]);
  useEffect(() => {
    const set = () => {
      const request: PracticeRequest = { kind: 'pace', pace: document.hidden ? 0 : pace };
      worker.current?.postMessage(request);
    };
    set();
    document.addEventListener('visibilitychange', set);
    return () => document.removeEventListener('visibilitychange', set);
  }, [pace, code, seed]);
  const ask = (one: PracticeAsk) => {
    setPlaying((before) => ({ ...before, isBusy: true }));
    worker.current?.postMessage({ kind: 'ask', ask: one } satisfies PracticeRequest);
  };
  return { ...playing, ask };
}
