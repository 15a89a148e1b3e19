export { Today } from './Today.js';
