export { PaperPage } from './PaperPage.js';
