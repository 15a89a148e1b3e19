export { cheapestSeparatorHours, energyShareOfPressure, type SeparatorCosts } from './pressure.js';
