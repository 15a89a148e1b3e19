import { exerciseByCode, replay, viewOf, type Round } from '@entretien/core/practice';
import type { PracticeAnswer, PracticeRequest } from './practice-messages.js';

/** How often it is looked whether whole seconds have passed, ms. */
const TICK_MS = 250;

let round: Round | null = null;
let pace = 0;
let owed = 0;

function tell(isAnswer: boolean): void {
  if (round === null) return;
  self.postMessage({ view: viewOf(round), done: round.done, isAnswer } satisfies PracticeAnswer);
}

/** A round of practice away from the page: its time passes in whole seconds, so that it can be played again. */
self.addEventListener('message', ({ data }: MessageEvent<PracticeRequest>) => {
  switch (data.kind) {
    case 'begin': {
      const exercise = exerciseByCode(data.code, data.seed);
      if (exercise) round = replay(exercise, data.seed, data.done, data.seconds);
      break;
    }
    case 'ask':
      round?.ask(data.ask);
      break;
    case 'pace':
      pace = data.pace;
      return;
  }
  tell(true);
});

self.setInterval(() => {
  if (round === null || pace === 0 || round.end !== null) return;
  owed += (pace * TICK_MS) / 1000;
  const whole = Math.floor(owed);
  if (whole === 0) return;
  owed -= whole;
  round.pass(whole);
  tell(false);
}, TICK_MS);
