export { AUDIBLE } from './assembly.js';
export {
  boardMachines,
  boardOf,
  type Board,
  type BoardHandle,
  type BoardStation,
  type Plainness,
} from './board.js';
export { buttons, Simulation, type Button, type Seen, type SimulationOptions } from './simulation.js';
export { handlings, highPressureHandling, type Handling, type Place } from './handling.js';
