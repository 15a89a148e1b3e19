export { PracticePage } from './PracticePage.js';
export { PracticeRound } from './PracticeRound.js';
