export { FaultFinder } from './FaultFinder.js';
export { FaultsPage } from './FaultsPage.js';
