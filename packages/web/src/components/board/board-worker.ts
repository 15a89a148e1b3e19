import { boardOf, Simulation } from '@entretien/core/simulator';
import type { BoardAnswer, BoardRequest } from './board-messages.js';

/** How often the board is told, ms. */
const TELLS_MS = 200;

let simulation: Simulation | null = null;
let pace = 1;

function tell(more: Pick<BoardAnswer, 'faults'> = {}): void {
  if (simulation === null) return;
  const answer: BoardAnswer = { board: boardOf(simulation), ...more };
  self.postMessage(answer);
}

/** A simulated machine away from the page: it is turned and switched, and tells five times a second what is seen. */
self.addEventListener('message', ({ data }: MessageEvent<BoardRequest>) => {
  switch (data.kind) {
    case 'begin': {
      simulation = new Simulation(data.plate);
      const known = simulation.machine.faults;
      for (const [code, size] of Object.entries(data.faults))
        if (known.has(code)) simulation.fault(code, size);
      return tell({ faults: [...known.values()].map(({ code, name }) => ({ code, name })) });
    }
    case 'turn':
      simulation?.turn(data.code, data.share);
      break;
    case 'press':
      simulation?.press(data.button);
      break;
    case 'fault':
      if (simulation?.machine.faults.has(data.code)) simulation.fault(data.code, data.size);
      break;
    case 'pace':
      pace = data.pace;
      break;
  }
  tell();
});

self.setInterval(() => {
  if (simulation === null || pace === 0) return;
  simulation.advance((pace * TELLS_MS) / 1000);
  tell();
}, TELLS_MS);
