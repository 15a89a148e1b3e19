export { CompressorPage } from './CompressorPage.js';
export { PlanPanel, PlanTasks } from './PlanPanel.js';
export { StartingPointsDialog } from './StartingPointsDialog.js';
export { MeasureDialog } from './checks/MeasureDialog.js';
export { latestByCheck } from './checks/check-chart.js';
