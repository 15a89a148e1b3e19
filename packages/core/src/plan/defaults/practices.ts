import { isOilLubricated, type DataPlate } from '../../machine/index.js';
import type { PracticeChoice } from '../practice-choice.js';

const isPiston = ({ family }: DataPlate) => family === 'piston';
const isScrew = ({ family }: DataPlate) => family === 'screw';
const isOilFree = ({ family }: DataPlate) => family === 'piston-oil-free';
const isHighPressure = ({ family }: DataPlate) => family === 'high-pressure';

/** Where practice knows more than one way. Each way has its followers; none of them is wrong everywhere. */
export const defaultPractices: readonly PracticeChoice[] = [
  {
    code: 'break-in',
    name: 'First oil change',
    applies: (plate) => isOilLubricated(plate),
    options: [
      {
        code: 'break-in',
        name: 'Early, once',
        sentence: 'New metal sheds: what comes off in the first hours leaves with the first oil.',
      },
      {
        code: 'none',
        name: 'No break-in',
        sentence: 'Some makers run their sets in at the works and ask for nothing early.',
      },
    ],
    usual: () => 'break-in',
    why: 'An oil change too many costs little; one too few can cost the block.',
  },
  {
    code: 'oil-interval',
    name: 'When the oil is changed',
    applies: (plate) => isPiston(plate) || isHighPressure(plate),
    options: [
      {
        code: 'hours-and-months',
        name: 'By hours and months',
        sentence: 'Oil wears by running and ages by standing: whichever comes first.',
      },
      {
        code: 'yearly',
        name: 'Yearly',
        sentence: 'On a machine that runs little, one change a year keeps the oil sound.',
      },
    ],
    usual: () => 'hours-and-months',
    why: 'Condensed water works on oil that stands, however few its hours.',
  },
  {
    code: 'separator',
    name: 'When the separator is changed',
    applies: isScrew,
    options: [
      {
        code: 'hours',
        name: 'By hours',
        sentence: 'Changed at fixed hours, it never gets to the point of costing energy or oil.',
      },
      {
        code: 'pressure-drop',
        name: 'By pressure drop',
        sentence:
          'Changed when the drop across it nears 1 bar: expensive elements are used to the end, if somebody measures.',
      },
    ],
    usual: () => 'hours',
    why: 'It needs no gauge and no memory.',
  },
  {
    code: 'valves',
    name: 'When the valves are opened',
    applies: (plate) => !isScrew(plate),
    options: [
      {
        code: 'hours',
        name: 'By hours',
        sentence: 'Opened at fixed hours, before a broken plate falls into the cylinder.',
      },
      {
        code: 'condition',
        name: 'On condition',
        sentence: 'Opened when the pump-up test shows a fifth less air than at the baseline.',
      },
      {
        code: 'failure',
        name: 'On failure',
        sentence: 'Left alone while they work: each opening is a chance to assemble it wrong.',
      },
    ],
    usual: (plate) => (isOilFree(plate) ? 'condition' : 'hours'),
    why: 'Large and high-pressure sets pay for a broken plate with the cylinder; small dry ones show it by pump-up time.',
  },
  {
    code: 'reeds',
    name: 'Worn reeds',
    applies: isOilFree,
    options: [
      {
        code: 'renewed',
        name: 'Renewed',
        sentence: 'Worn reeds put back make the repair disappoint.',
      },
      {
        code: 'cleaned',
        name: 'Cleaned',
        sentence: 'A reed that springs back and seals after fine abrasive is good for another life.',
      },
    ],
    usual: () => 'renewed',
    why: 'The part is cheap against a second trip.',
  },
  {
    code: 'cartridge',
    name: 'When the cartridge is changed',
    applies: isHighPressure,
    options: [
      {
        code: 'season-hours',
        name: 'Hours by season',
        sentence: 'Warm air carries more water: fewer hours in summer, more in winter.',
      },
      {
        code: 'weight',
        name: 'By weight',
        sentence: 'It is full when it weighs what is printed on it as saturated.',
      },
      {
        code: 'monitor',
        name: 'By a moisture monitor',
        sentence: 'An instrument at the outlet says when water comes through.',
      },
      {
        code: 'computed',
        name: 'Computed',
        sentence: 'Calculated from the water that reaches it: delivery, holding pressure, temperature.',
      },
    ],
    usual: () => 'season-hours',
    why: 'It needs neither scale nor instrument, and errs on the safe side in damp weather.',
  },
  {
    code: 'element',
    name: 'Intake element',
    applies: isPiston,
    options: [
      {
        code: 'replaced',
        name: 'Paper or felt: replaced',
        sentence: 'Never washed or blown out: a hole that nobody sees lets the grit through.',
      },
      {
        code: 'washed',
        name: 'Foam: washed',
        sentence: 'Warm soapy water, dried fully out of the sun, back if it does not crumble.',
      },
    ],
    usual: () => 'replaced',
    why: 'Until the type is known, replacing does no harm.',
  },
  {
    code: 'tower-idle',
    name: 'Tower between uses',
    applies: isHighPressure,
    options: [
      {
        code: 'under-pressure',
        name: 'Kept under pressure',
        sentence: 'Damp air stays out and the cartridge dry; vented only to start and to change.',
      },
      {
        code: 'drained',
        name: 'Drained',
        sentence: 'For longer stops, nothing is left standing under pressure.',
      },
    ],
    usual: () => 'under-pressure',
    why: 'It keeps the cartridge dry. Isolation for service always vents and leaves the drains open.',
  },
  {
    code: 'stop',
    name: 'What ends a fill',
    applies: isHighPressure,
    options: [
      {
        code: 'switch',
        name: 'Automatic switch',
        sentence: 'The set stops itself at its setting, below the relief.',
      },
      {
        code: 'hand',
        name: 'By hand',
        sentence: 'Somebody stands by and stops with a margin under the maximum.',
      },
      {
        code: 'relief',
        name: 'Relief valve as the signal',
        sentence: 'The set has nothing else: it blows, and somebody stops it. That stands on its data plate.',
      },
    ],
    usual: (plate) => plate.stopsBy ?? (plate.cutOutBar === undefined ? 'hand' : 'switch'),
    why: 'As this machine is built; a relief valve that works every day is soon no relief valve.',
  },
  {
    code: 'thread-sealing',
    name: 'Sealing of joints',
    applies: () => true,
    options: [
      {
        code: 'by-kind',
        name: 'By kind of joint',
        sentence: 'Flared joints and O-rings go dry, tapered threads are sealed.',
      },
      {
        code: 'book',
        name: 'As the manual says for each',
        sentence: 'Where the maker names a sealant for a joint, that one and no other.',
      },
    ],
    usual: () => 'by-kind',
    why: 'Tape in a flared joint makes it leak; a dry taper does, too.',
  },
  {
    code: 'gauge',
    name: 'Gauges',
    applies: () => true,
    options: [
      { code: 'dry', name: 'Dry', sentence: 'Cheap: replaced without regret when it is out.' },
      { code: 'filled', name: 'Filled', sentence: 'Steady on a shaking set, while its filling is clear.' },
    ],
    usual: (plate) => (isHighPressure(plate) ? 'filled' : 'dry'),
    why: 'A needle that shakes cannot be read; where it does not, dry does as well.',
  },
  {
    code: 'belt',
    name: 'Belt tension',
    applies: (plate) => plate.drive !== 'direct' && !(isOilFree(plate) && plate.drive === undefined),
    options: [
      {
        code: 'gauge',
        name: 'By gauge',
        sentence: 'Deflection of 1/64 of the span at the force that the manual states.',
      },
      {
        code: 'feel',
        name: 'By feel',
        sentence: 'A skilled thumb is quick; it is recorded as not measured.',
      },
    ],
    usual: () => 'gauge',
    why: 'What is measured can be compared at the next visit.',
  },
];
