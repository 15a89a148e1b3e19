export { Bench } from './Bench.js';
