export { PointPage } from './PointPage.js';
export { PointsPage } from './PointsPage.js';
