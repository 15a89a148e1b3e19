export { PlanEditor } from './PlanEditor.js';
export { PracticeOnly } from './PracticeOnly.js';
