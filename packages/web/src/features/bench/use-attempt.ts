import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';

/** Identity and moment of something that is about to be recorded. */
interface Attempt {
  readonly key: string;
  readonly at: string;
  readonly ids: readonly string[];
}

/**
 * Ids and moment for what is recorded, the same as long as it is the same: tried again after a lost answer, it
 * is known for what it is and recorded once.
 */
export function useAttempt(): (key: string, count: number) => Attempt {
  const [kept, setKept] = useState<Attempt | null>(null);
  return (key, count) => {
    if (kept?.key === key) return kept;
    const next = { key, at: currentInstantText(), ids: Array.from({ length: count }, () => newId()) };
    setKept(next);
    return next;
  };
}
