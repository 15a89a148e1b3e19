import { useEffect, useRef, useState } from 'react';
import type { WorkerAnswer, WorkerRequest, WorkerResult } from './worker-messages.js';

interface Work {
  /** What was asked for, as a text: a result is only good for that. */
  readonly key: string;
  readonly share: number | null;
  readonly result: WorkerResult | null;
  readonly hasFailed: boolean;
}

const idle: Work = { key: '', share: null, result: null, hasFailed: false };

/** One piece of long reckoning at a time, with its progress; cancelled, or left behind, it ends at once. */
export function useBenchWorker(request: WorkerRequest | null) {
  const [work, setWork] = useState(idle);
  const worker = useRef<Worker | null>(null);
  const key = request === null ? '' : JSON.stringify(request);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);
  const run = () => {
    if (request === null) return;
    end();
    const started = new Worker(new URL('./bench-worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    setWork({ ...idle, key, share: 0 });
    started.addEventListener('message', ({ data }: MessageEvent<WorkerAnswer>) => {
      if (data.kind === 'progress') return setWork((before) => ({ ...before, share: data.share }));
      setWork({ ...idle, key, result: data.result });
      end();
    });
    started.addEventListener('error', () => {
      setWork({ ...idle, key, hasFailed: true });
      end();
    });
    started.postMessage(request);
  };
  return {
    run,
    cancel: () => {
      end();
      setWork(idle);
    },
    share: work.share,
    isRunning: work.share !== null,
    hasFailed: work.hasFailed,
    result: work.key === key ? work.result : null,
    /** Whether there is a result, of something else than what stands there now. */
    isOutdated: work.result !== null && work.key !== key,
  };
}
