export { Visits } from './Visits.js';
export { PlanVisitDialog } from './PlanVisitDialog.js';
