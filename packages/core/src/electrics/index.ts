export { judgeCapacitor, USUAL_CAPACITOR_TOLERANCE, type CapacitorFinding } from './capacitor.js';
