export { convert, fromStored, toStored } from './convert.js';
export { formatFigure, formatQuantity, type FigureOptions, type ShownQuantity } from './format.js';
export { parseQuantity, type ParsedQuantity, type ParseOptions } from './parse.js';
export { readNumber, typedFigure } from './read-number.js';
export {
  isUnitOf,
  quantityDefinitions,
  quantityKinds,
  storedUnit,
  unitByCode,
  unitsOf,
  type MeasuringUnit,
  type QuantityKind,
} from './units.js';
