import {
  reasonAgainst,
  type Against,
  type Guarded,
  type IsolateBody,
  type IsolationFold,
} from '@entretien/core/isolation';
import { useState } from 'react';
import { currentInstant } from '../../data/clock.js';

/** The isolation of one machine as a page sees it, and the way to say something of it. */
export interface IsolationHere {
  readonly guarded: Guarded;
  readonly fold: IsolationFold;
  readonly by: string;
  readonly session: string;
  /** What is to be opened; null: everything. */
  readonly opens: readonly string[] | null;
  readonly now: number;
  readonly say: (body: IsolateBody) => Promise<void>;
  /** A finding becomes a repair. */
  readonly onFound: (found: string) => void;
}

type Said = Omit<IsolateBody, 'kind' | 'confirmed'> & { readonly confirmed?: boolean };

/** Says something at a point, unless the guard has something against it: then why, and the way to insist. */
export function useSaying(here: IsolationHere) {
  const [refused, setRefused] = useState<{ readonly against: Against; readonly said: Said } | null>(null);
  const say = (said: Said) => {
    const body: IsolateBody = { kind: 'isolate', confirmed: true, ...said };
    const event = { id: '', doneAt: currentInstant(), by: here.by, session: here.session, body };
    const against = reasonAgainst(here.guarded, here.fold, event);
    setRefused(against === null ? null : { against, said });
    if (against === null) void here.say(body);
    return against === null;
  };
  return {
    say,
    refused: refused?.against ?? null,
    /** Asked whether it is so although it came so soon: yes. */
    insist: refused?.against.code === 'too-fast' ? () => say({ ...refused.said, isSure: true }) : null,
    forget: () => setRefused(null),
  };
}
