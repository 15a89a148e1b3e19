export { Parts } from './Parts.js';
