export { isAllowed, isHostAddress, readAllowed, type AllowedAddress } from './allowed.js';
export {
  afterRecording,
  dutiesOf,
  NOTHING_ANSWERED,
  type DeviceDuties,
  type DeviceMemory,
} from './device-memory.js';
export {
  deviceQuantities,
  deviceQuantityCodes,
  deviceStates,
  EXAMPLE_REGISTERS,
  figuresOf,
  LONGEST_REGISTERS,
  readRegisterMap,
  readsOf,
  registerColumns,
  registerKey,
  registersOf,
  type DeviceFigures,
  type DeviceQuantityCode,
  type DoubtedFigure,
  type RegisterMap,
  type RegisterRead,
  type RegisterRow,
  type RegisterTable,
} from './register-map.js';
