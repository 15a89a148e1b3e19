export { Settings } from './Settings.js';
