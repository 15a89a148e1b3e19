import { searchCascade, waterYear } from '@entretien/core/air';
import type { WorkerAnswer, WorkerRequest } from './worker-messages.js';

/** Long reckoning away from the page: tells how far it is, then the result. */
self.addEventListener('message', ({ data }: MessageEvent<WorkerRequest>) => {
  const report = (answer: WorkerAnswer) => self.postMessage(answer);
  if (data.kind === 'year') {
    const run = waterYear(data.input);
    for (;;) {
      const next = run.next();
      if (next.done) return report({ kind: 'done', result: { kind: 'year', outcome: next.value } });
      report({ kind: 'progress', share: next.value });
    }
  }
  const search = searchCascade(data.job);
  for (;;) {
    const next = search.next();
    if (next.done) return report({ kind: 'done', result: { kind: 'cascade', best: next.value } });
    report({ kind: 'progress', share: next.value.share });
  }
});
