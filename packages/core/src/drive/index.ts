export { beltDeflection } from './belt.js';
