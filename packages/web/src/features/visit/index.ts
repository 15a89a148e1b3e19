export { Visit } from './Visit.js';
