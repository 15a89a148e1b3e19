export { FillPage } from './FillPage.js';
