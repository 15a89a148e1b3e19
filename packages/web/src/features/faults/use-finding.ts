import type { FindingView } from '@entretien/core/faults';
import { useEffect, useRef, useState } from 'react';
import type { FindingRequest, NumberedView } from './finding-messages.js';

/**
 * What comes of a search, thought out beside the page.
 *
 * @returns the view of the latest question that was answered, and whether a later one is still being thought about
 */
export function useFinding(request: FindingRequest): {
  readonly view: FindingView | null;
  readonly isThinking: boolean;
  readonly hasFailed: boolean;
} {
  const [answered, setAnswered] = useState<{ readonly key: string; readonly view: FindingView } | null>(null);
  const [hasFailed, setFailed] = useState(false);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(new Map<number, string>());
  const last = useRef(0);
  useEffect(() => {
    const started = new Worker(new URL('./finding-worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    const keys = asked.current;
    started.addEventListener('message', ({ data }: MessageEvent<NumberedView>) => {
      const key = keys.get(data.number);
      keys.delete(data.number);
      if (data.number === last.current && key !== undefined) setAnswered({ key, view: data.view });
    });
    started.addEventListener('error', () => setFailed(true));
    return () => {
      started.terminate();
      worker.current = null;
      keys.clear();
    };
  }, []);
  const key = JSON.stringify(request);
  useEffect(() => {
    last.current += 1;
    asked.current.set(last.current, key);
    worker.current?.postMessage({ number: last.current, request: JSON.parse(key) as FindingRequest });
  }, [key]);
  return { view: answered?.view ?? null, isThinking: answered?.key !== key, hasFailed };
}
