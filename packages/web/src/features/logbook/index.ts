export { HistoryPage } from './HistoryPage.js';
export { FleetLogbook } from './FleetLogbook.js';
