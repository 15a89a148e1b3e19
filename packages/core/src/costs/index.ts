export { cheapestSeparatorHours, energyShareOfPressure, type SeparatorCosts } from './pressure.js';
export { repairOrReplace, type Repair, type Replacement, type RepairOrReplace } from './repair.js';
