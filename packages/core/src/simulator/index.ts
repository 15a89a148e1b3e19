export { buttons, Simulation, type Button, type Seen, type SimulationOptions } from './simulation.js';
export { AUDIBLE } from './assembly.js';
