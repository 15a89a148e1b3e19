import type { DataPlate } from '../machine/index.js';

/** A cause that stands outside the codes: how often it is, and what shows it. */
export interface ListedCause {
  readonly text: string;
  /** Of a hundred cases (common practice). */
  readonly percent: number;
  /** What is looked at, cheapest first as they stand. */
  readonly look: string;
}

/** A symptom beside the compressor itself, with what is behind it, the likeliest first. */
export interface FaultList {
  readonly code: string;
  readonly of: 'engine' | 'point';
  readonly text: string;
  readonly caution?: string;
  readonly causes: readonly ListedCause[];
}

const FUEL =
  'No flame and no hot surface near it. A line under pressure is not felt for with the hand: fuel under the skin is an emergency.';
const HOT = 'A hot radiator is not opened: it scalds. Stopped, cold, and the key in your pocket.';
const RUNS_ON =
  'Nobody near the hose. The air stays on until it stands still: it is loaded by an outlet slowly opened, then the fuel is shut off. The battery is not unhooked while it runs.';
const POINT =
  'What hangs on the air is told and held before it is shut off: a clamp lets go, a cylinder falls. Both sides vented and silent before a bowl or a bonnet is unscrewed.';

const other = (percent: number): ListedCause => ({
  text: 'Something else',
  percent,
  look: 'What does not fit stands in the manual of its maker.',
});

/** What goes wrong with an engine, and at the point of use: causes in their order, without odds of their own. */
export const faultLists: readonly FaultList[] = [
  {
    code: 'X1',
    of: 'engine',
    text: 'The engine does not crank',
    causes: [
      {
        text: 'Battery or its terminals',
        percent: 62,
        look: 'Volts at rest and at the key: under 9.6 of 12 while it tries is empty; terminals by hand.',
      },
      {
        text: 'Interlock, emergency stop or battery switch',
        percent: 14,
        look: 'Battery switch on, emergency stop pulled out, doors shut, lamps of the panel.',
      },
      { text: 'Starter', percent: 12, look: 'It clicks and does not turn, with good volts at it.' },
      { text: 'Relay or fuse', percent: 8, look: 'No click: fuse by sight, relay against its like.' },
      other(4),
    ],
  },
  {
    code: 'X2',
    of: 'engine',
    text: 'It cranks and does not fire',
    caution: FUEL,
    causes: [
      {
        text: 'Fuel: empty, gelled, water or air in it',
        percent: 44,
        look: 'Tank, bowl of the water separator, bleed screw: clear fuel without bubbles.',
      },
      {
        text: 'Stop solenoid not drawn',
        percent: 18,
        look: 'Key on: it is heard, and its lever moves to run.',
      },
      { text: 'Preheat', percent: 14, look: 'Lamp, and current of the plugs, on a cold day.' },
      { text: 'Fuel filter', percent: 10, look: 'How old it is, and what flows out of it.' },
      {
        text: 'Starts against pressure in the vessel',
        percent: 7,
        look: 'Gauge of the vessel: blown down before every start.',
      },
      { text: 'Engine worn', percent: 3, look: 'Cranks too easily: compression, by a workshop for engines.' },
      other(4),
    ],
  },
  {
    code: 'X3',
    of: 'engine',
    text: 'It will not stop',
    caution: RUNS_ON,
    causes: [
      {
        text: 'Stop solenoid or actuator',
        percent: 58,
        look: 'Its lever by hand stops it: then it is the solenoid or what feeds it.',
      },
      { text: 'Key switch or wiring', percent: 24, look: 'Volts at the solenoid with the key off.' },
      { text: 'Linkage', percent: 10, look: 'The solenoid moves and the lever does not.' },
      {
        text: 'Runs on its own oil, or on gas in its intake',
        percent: 3,
        look: 'Speed rises with the fuel shut off: intake closed from outside, everybody away.',
      },
      other(5),
    ],
  },
  {
    code: 'X4',
    of: 'engine',
    text: 'It loses speed under load',
    caution: FUEL,
    causes: [
      { text: 'Fuel filter', percent: 32, look: 'How old it is; better for a moment after a rest.' },
      {
        text: 'Speed regulator or its air line',
        percent: 26,
        look: 'Tachometer unloaded and loaded; soap on the line of the regulator.',
      },
      { text: 'Air filter of the engine', percent: 16, look: 'Mark of the restriction; black smoke.' },
      {
        text: 'Injector or turbocharger',
        percent: 12,
        look: 'Smoke, knock, whistle: a workshop for engines.',
      },
      { text: 'Pressure set too high', percent: 8, look: 'Regulator against the plate.' },
      other(6),
    ],
  },
  {
    code: 'X5',
    of: 'engine',
    text: 'It shuts itself down',
    caution: HOT,
    causes: [
      { text: 'Cooler dirty', percent: 34, look: 'Both faces, against the light; dust between two coolers.' },
      { text: 'Sensor or wiring', percent: 18, look: 'Its figure against a thermometer, its plug by hand.' },
      { text: 'Coolant low', percent: 18, look: 'Level, cold; where it goes.' },
      { text: 'Engine oil low', percent: 16, look: 'Dipstick, level ground, five minutes after the stop.' },
      { text: 'Fan belt', percent: 8, look: 'Tension and edges, locked.' },
      other(6),
    ],
  },
  {
    code: 'U1',
    of: 'point',
    text: 'The tool is weak',
    caution: POINT,
    causes: [
      {
        text: 'Hose or coupling: too small, kinked or worn',
        percent: 30,
        look: 'Bore and length against the tool’s; gauge at the tool while it runs.',
      },
      { text: 'Regulator', percent: 22, look: 'Its gauge with and without flow: over a bar apart.' },
      { text: 'Element', percent: 20, look: 'Drop over the filter while the tool runs.' },
      { text: 'Network low', percent: 18, look: 'Gauge before the filter while everybody works.' },
      { text: 'Tool or lubricator', percent: 8, look: 'Another tool at the same hose; drops in the glass.' },
      other(2),
    ],
  },
  {
    code: 'U2',
    of: 'point',
    text: 'Water at the tool',
    caution: POINT,
    causes: [
      {
        text: 'Bowl not drained, or its drain stuck',
        percent: 42,
        look: 'Level in the bowl; float drain by its button.',
      },
      {
        text: 'No dryer, or a dryer fault',
        percent: 26,
        look: 'Dew point after the dryer, its bypass shut.',
      },
      { text: 'Cold pipe after the dryer', percent: 14, look: 'Where the pipe goes outdoors, and falls to.' },
      { text: 'Element', percent: 10, look: 'Age, seat and seal.' },
      other(8),
    ],
  },
  {
    code: 'U3',
    of: 'point',
    text: 'The pressure creeps up with no flow',
    caution: POINT,
    causes: [
      { text: 'Seat of the regulator', percent: 82, look: 'Outlet shut: its gauge rises for a minute.' },
      { text: 'Gauge', percent: 10, look: 'A second gauge beside it.' },
      other(8),
    ],
  },
  {
    code: 'U4',
    of: 'point',
    text: 'Air comes from the bonnet of the regulator',
    caution: POINT,
    causes: [
      {
        text: 'Diaphragm or relieving seat',
        percent: 66,
        look: 'It goes on with the knob let off entirely.',
      },
      {
        text: 'It was just turned down',
        percent: 16,
        look: 'It ends by itself after a few seconds: normal.',
      },
      {
        text: 'Pressure from behind',
        percent: 14,
        look: 'Outlet shut: it ends. Something feeds back through the tool’s side.',
      },
      other(4),
    ],
  },
  {
    code: 'U5',
    of: 'point',
    text: 'No drops in the lubricator',
    caution: POINT,
    causes: [
      { text: 'Needle or sight blocked', percent: 26, look: 'Turned open by half a turn, with flow.' },
      { text: 'Empty', percent: 24, look: 'Level in its bowl.' },
      { text: 'Too little flow', percent: 22, look: 'Least flow of its size against the tool’s.' },
      { text: 'Wrong oil', percent: 12, look: 'Grade in the bowl against its label.' },
      { text: 'Fitted the wrong way round', percent: 8, look: 'Arrow on the body in the way of the air.' },
      other(8),
    ],
  },
];

/** Lists that go with a machine: those of its engine, where it has one. */
export function engineListsOf({ motor }: DataPlate): readonly FaultList[] {
  return motor === 'diesel' || motor === 'petrol' ? faultLists.filter((one) => one.of === 'engine') : [];
}

export const pointLists: readonly FaultList[] = faultLists.filter((one) => one.of === 'point');
