import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstant } from '../data/clock.js';
import { ApiProblem, sentenceOf } from '../data/api.js';
import type { Waiting } from '../data/outbox/keep-fact.js';
import { usePostOrKeep, type Contract } from '../data/queries.js';
import { fromLocalText, toLocalText } from './WhenField.js';

/**
 * What every form for a fact shares: when it happened, a note, and sending it. The id is made once, so that
 * sending again after a lost answer records nothing twice.
 */
export function useFactForm<Body extends { readonly id: string }>(
  contract: Contract<Body>,
  path: string,
  timeZone: string,
  onDone: () => void,
  { happenedAt, waiting }: { readonly happenedAt?: number | undefined; readonly waiting?: Waiting } = {},
) {
  const [id] = useState(() => newId());
  const [start] = useState(() => happenedAt ?? currentInstant());
  const [whenText, setWhenText] = useState(() => toLocalText(start, timeZone));
  const [note, setNote] = useState('');
  // Fields that the form has a place for: what is said of others stands above its buttons.
  const [placed] = useState(() => new Set<string>());
  const post = usePostOrKeep<Body, unknown>(contract, path, waiting);
  const error = post.error;
  return {
    whenText,
    setWhenText,
    // The field shows minutes: left alone, a moment keeps its seconds, and comes after what was told in that minute.
    when: whenText === toLocalText(start, timeZone) ? start : fromLocalText(whenText, timeZone),
    note,
    setNote,
    isSending: post.isPending,
    /** What the server said of one field. */
    problemOf: (field: string) => {
      placed.add(field);
      return error instanceof ApiProblem ? error.forField(field) : undefined;
    },
    /** What it said of no field in particular, or why it could not be reached. */
    generalProblem:
      error === null ||
      (error instanceof ApiProblem && error.problem.errors?.every(({ field }) => placed.has(field)))
        ? null
        : sentenceOf(error),
    send: (fact: object) => {
      const own = note.trim() === '' ? {} : { note: note.trim() };
      const body = { id, ...own, ...fact } as unknown as Body;
      post.mutate(body, { onSuccess: onDone });
    },
  };
}
