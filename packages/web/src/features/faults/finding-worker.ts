import { beginFinding, standFinding, symptomByCode } from '@entretien/core/faults';
import type { NumberedRequest, NumberedView } from './finding-messages.js';

/** The fault finder away from the page, which goes on while it thinks. */
self.addEventListener('message', ({ data }: MessageEvent<NumberedRequest>) => {
  const { plate, symptom, answers, state, mended, ...options } = data.request;
  const known = symptomByCode(symptom);
  if (!known) return;
  const view = standFinding(beginFinding(known, plate, options), answers, state, mended);
  self.postMessage({ number: data.number, view } satisfies NumberedView);
});
