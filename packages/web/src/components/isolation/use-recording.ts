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
  readonly record: (body: IsolateBody) => Promise<void>;
  /** A finding becomes a repair. */
  readonly onFound: (found: string) => void;
}

type GivenAnswer = Omit<IsolateBody, 'kind' | 'confirmed'> & { readonly confirmed?: boolean };

/** Says something at a point, unless the guard has something against it: then why, and the way to insist. */
export function useRecording(here: IsolationHere) {
  const [refused, setRefused] = useState<{
    readonly against: Against;
    readonly answered: GivenAnswer;
  } | null>(null);
  const record = (answered: GivenAnswer) => {
    const body: IsolateBody = { kind: 'isolate', confirmed: true, ...answered };
    const event = { id: '', doneAt: currentInstant(), by: here.by, session: here.session, body };
    const against = reasonAgainst(here.guarded, here.fold, event);
    setRefused(against === null ? null : { against, answered });
    if (against === null) void here.record(body);
    return against === null;
  };
  return {
    record,
    refused: refused?.against ?? null,
    /** Asked whether it is so although it came so soon: yes. */
    insist: refused?.against.code === 'too-fast' ? () => record({ ...refused.answered, isSure: true }) : null,
    forget: () => setRefused(null),
  };
}
