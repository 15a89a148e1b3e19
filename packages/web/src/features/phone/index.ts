export { OnYourPhone } from './OnYourPhone.js';
