export { Walk } from './Walk.js';
