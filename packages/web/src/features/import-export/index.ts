export { Lists } from './Lists.js';
