export { Repair } from './Repair.js';
