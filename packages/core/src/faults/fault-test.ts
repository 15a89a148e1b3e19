import { isBreathed, isOilLubricated, stagesOf, type DataPlate } from '../machine/index.js';
import type { CauseCode, MachineState } from './cause.js';

/** A test was answered. */
export interface GivenAnswer {
  readonly test: string;
  /** Code of the answer; `usual` or `cannot-tell`. */
  readonly answer: string;
}

/** None beyond the ordinary; hot, loud, moving or wet; can maim if done wrongly; for the trained alone. */
export type Danger = 0 | 1 | 2 | 3;

export interface TestAnswer {
  readonly code: string;
  readonly text: string;
  /** Causes that this answer speaks for, where a test has several that are not as they should be. */
  readonly of?: readonly CauseCode[];
  /** Share of it among those answers, for every other cause; default: all. */
  readonly rest?: number;
}

/** Something to look at, to listen to or to measure that tells causes apart. */
export interface FaultTest {
  readonly code: string;
  readonly name: string;
  readonly question: string;
  /** Minutes in that state (common practice). */
  readonly minutes: number;
  /** States in which it can be done; the first is the usual one. */
  readonly states: readonly MachineState[];
  /** State in which it leaves the machine, where that is another one. */
  readonly after?: MachineState;
  readonly danger: Danger;
  readonly caution?: string;
  /** Codes of what is opened for it, where it is done open. */
  readonly opens?: (plate: DataPlate) => readonly string[];
  /** For a licensed electrician alone. */
  readonly trade?: true;
  /** It has to run for it. */
  readonly needsRun?: true;
  /** It has to have tried to run. */
  readonly needsTry?: true;
  /** A check whose verdict on record answers it. */
  readonly check?: string;
  readonly fits: (plate: DataPlate) => boolean;
  /** Chance of any answer but the usual one, if that cause is there (common practice). */
  readonly tells: Readonly<Partial<Record<CauseCode, number>>>;
  /** Causes that it tells of behind some symptoms only, by their codes. */
  readonly onlyIn?: Readonly<Partial<Record<CauseCode, readonly string[]>>>;
  /** The same of every cause that is not named. */
  readonly others: number;
  readonly answers: readonly TestAnswer[];
  /** How it is where nothing is wrong. */
  readonly usual: string;
}

const always = () => true;
const isScrew = ({ family }: DataPlate) => family === 'screw';
const notScrew = ({ family }: DataPlate) => family !== 'screw';
const isSmall = ({ family }: DataPlate) => family === 'piston' || family === 'piston-oil-free';
const isHighPressure = ({ family }: DataPlate) => family === 'high-pressure';
const isElectric = ({ motor }: DataPlate) => motor !== 'petrol' && motor !== 'diesel';
const hasReceiver = (plate: DataPlate) => isSmall(plate) || (isScrew(plate) && (plate.receiverL ?? 0) > 0);
const pumpsUp = (plate: DataPlate) => hasReceiver(plate) || isHighPressure(plate);
const hasCovers = ({ family }: DataPlate) => family === 'piston' || family === 'high-pressure';
const hasCrankcase = (plate: DataPlate) => notScrew(plate) && isOilLubricated(plate);

/** What a head and the vessel before it are called on each family. */
const headAndVessel = (plate: DataPlate) =>
  isHighPressure(plate) ? ['stages', 'tower'] : isScrew(plate) ? ['separator'] : ['stages', 'receiver'];

/** Symptoms of a machine that does not start. */
const STARTS = ['P1', 'P2', 'F1', 'F2', 'S1', 'H1'];

/** Code of the answer that says that all is as it should be. */
export const USUAL = 'usual';
/** Code of the answer that moves nothing. */
export const CANNOT_TELL = 'cannot-tell';

/** The tests, in the order of the workshop’s table. */
export const faultTests: readonly FaultTest[] = [
  {
    code: 'T1',
    name: 'Drains and hand valves',
    question: 'Walk round the drains, cocks and hand valves. Is one open, or does one pass?',
    minutes: 1,
    states: ['run', 'lock'],
    danger: 1,
    fits: always,
    caution: 'Hot and moving parts: look and listen, hands off.',
    tells: { DRN: 0.95 },
    others: 0.03,
    answers: [{ code: 'open', text: 'One is open or passes' }],
    usual: 'All shut and silent',
  },
  {
    code: 'T2',
    name: 'Relief outlet',
    question: 'Paper strip or soap film at the relief valve’s outlet, from the side. Does it pass?',
    minutes: 1,
    states: ['run', 'lock'],
    danger: 1,
    fits: always,
    caution: 'Never a finger in front of it, and its ring is not lifted under high pressure.',
    tells: { REL: 0.9, SET: 0.5, SW: 0.4 },
    // A switch that does not switch off drives it onto the relief valve; one that does not switch on does not.
    onlyIn: { SET: ['P9', 'S8', 'H6'], SW: ['P9'] },
    others: 0.04,
    answers: [{ code: 'passes', text: 'It passes' }],
    usual: 'Tight',
  },
  {
    code: 'T3',
    name: 'Oil level and look',
    question: 'Oil level, read as this unit’s manual says, and how the oil looks.',
    minutes: 2,
    states: ['lock'],
    danger: 0,
    fits: isOilLubricated,
    tells: { OILL: 0.95, OILH: 0.95, CLW: 0.9, COND: 0.7, OILW: 0.6 },
    others: 0.05,
    answers: [
      { code: 'low', text: 'Too low', of: ['OILL'], rest: 0.3 },
      { code: 'high', text: 'Too high', of: ['OILH'], rest: 0.3 },
      { code: 'look', text: 'Milky, dark or foaming', of: ['CLW', 'COND', 'OILW'], rest: 0.4 },
    ],
    usual: 'Level and look are right',
  },
  {
    code: 'T4',
    name: 'Intake element',
    question: 'Take the intake element out and hold it to the light; look behind it.',
    minutes: 3,
    states: ['lock'],
    danger: 0,
    fits: always,
    tells: { INTX: 0.97, INT: 0.92 },
    others: 0.05,
    answers: [
      { code: 'blocked', text: 'Blocked', of: ['INT'], rest: 0.6 },
      { code: 'torn', text: 'Torn or missing', of: ['INTX'], rest: 0.4 },
    ],
    usual: 'Clean and whole',
  },
  {
    code: 'T5',
    name: 'Pump-up without the element',
    question:
      'Pump up once with and once without the intake element, one minute at most. Clearly faster without (over 8 %)?',
    minutes: 6,
    states: ['lock'],
    danger: 2,
    fits: isSmall,
    after: 'run',
    needsRun: true,
    caution:
      'Clean air only, nothing loose near the opening, fingers and sleeves away, fan guard on. Grit drawn in now ruins the pump.',
    tells: { INT: 0.9 },
    others: 0.03,
    answers: [{ code: 'faster', text: 'Clearly faster without' }],
    usual: 'No difference',
  },
  {
    code: 'T6',
    needsTry: true,
    name: 'Listen at stop: does it go on?',
    question:
      'Let it stop and listen at unloader and intake for half a minute. Does air keep coming after 20 s?',
    minutes: 2,
    states: ['run', 'lock'],
    danger: 0,
    fits: isSmall,
    tells: { CHK: 0.92, VD: 0.3, REED: 0.3, UNL: 0.3, VS: 0.2 },
    others: 0.03,
    answers: [{ code: 'keeps', text: 'Air keeps coming' }],
    usual: 'Stops within 20 s',
  },
  {
    code: 'T7',
    needsTry: true,
    name: 'Listen at stop: a hiss at all?',
    question: 'At the stop: is there a short hiss at the unloader at all?',
    minutes: 1,
    states: ['run', 'lock'],
    danger: 0,
    fits: isSmall,
    tells: { UNL: 0.8, SW: 0.3, CHK: 0.1 },
    others: 0.08,
    answers: [{ code: 'silent', text: 'No hiss' }],
    usual: 'A short hiss, then silence',
  },
  {
    code: 'T8',
    opens: headAndVessel,
    name: 'Start from empty',
    question: 'Receiver emptied and head side vented: does it start freely now?',
    minutes: 5,
    states: ['open'],
    danger: 1,
    fits: notScrew,
    after: 'run',
    caution: 'It is started with its vents open: ears covered, nobody in front of them.',
    tells: { TWR: 0.97, CHK: 0.9, UNL: 0.9, CAP: 0.4, SUP: 0.4, COLD: 0.3 },
    // Only of a start: a check valve that leaks starts freely for many a reason.
    onlyIn: { TWR: STARTS, CHK: STARTS, UNL: STARTS, CAP: STARTS, SUP: STARTS, COLD: STARTS },
    others: 0.05,
    answers: [{ code: 'free', text: 'It starts freely' }],
    usual: 'The same as before',
  },
  {
    code: 'T9',
    opens: ({ family }) => [family === 'piston-oil-free' ? 'stages' : 'belt'],
    name: 'Turn by hand',
    question: 'Turn it by hand at belt, fan or coupling, ten turns. How does it go?',
    minutes: 4,
    states: ['open'],
    danger: 2,
    fits: always,
    caution: 'Locked out by your own lock, head side silent. Fingers clear of belt, fan and guard.',
    tells: { SEIZ: 0.97, BRG: 0.5, COLD: 0.5, MOT: 0.3, AIRE: 0.3 },
    others: 0.04,
    answers: [
      { code: 'stuck', text: 'Stuck', of: ['SEIZ'], rest: 0.2 },
      { code: 'rough', text: 'Stiff or rough', of: ['BRG', 'COLD', 'MOT', 'AIRE'], rest: 0.8 },
    ],
    usual: 'Turns evenly',
  },
  {
    code: 'T10',
    name: 'Capacitor',
    question:
      'Discharge the capacitor, measure it, and compare with its label and with the range that the motor’s maker gives.',
    minutes: 7,
    states: ['lock'],
    danger: 2,
    fits: ({ motor }) => motor === 'single-phase',
    check: 'capacitor',
    caution:
      'It holds its charge without power: unplug, discharge through a resistor, measure that it is empty, then touch it.',
    tells: { CAP: 0.95 },
    others: 0.05,
    answers: [{ code: 'outside', text: 'Outside the range' }],
    usual: 'Within the range',
  },
  {
    code: 'T11',
    name: 'Volts while it starts',
    question: 'Volts at the motor terminals while it tries to start.',
    minutes: 10,
    states: ['run'],
    danger: 3,
    fits: isElectric,
    trade: true,
    caution: 'Live: a licensed electrician.',
    tells: { SUP: 0.9, SEIZ: 0.25, CAP: 0.15 },
    others: 0.06,
    answers: [{ code: 'falls', text: 'Falls over 10 %, or a phase is missing' }],
    usual: 'Holds, all there',
  },
  {
    code: 'T12',
    name: 'Contactor or switch',
    question: 'Does the contactor or pressure switch pull in, and stay?',
    minutes: 4,
    states: ['run'],
    danger: 3,
    fits: isElectric,
    trade: true,
    caution: 'Live behind its cover: a licensed electrician.',
    tells: { SW: 0.85, CTL: 0.8, SUP: 0.4, SET: 0.3 },
    others: 0.04,
    answers: [{ code: 'not', text: 'Does not, or chatters' }],
    usual: 'Pulls in and stays',
  },
  {
    code: 'T13',
    name: 'Running current',
    question: 'Running current by clamp, against the plate.',
    minutes: 4,
    states: ['run'],
    danger: 3,
    fits: isElectric,
    trade: true,
    needsRun: true,
    caution: 'Live: a licensed electrician.',
    tells: { INTV: 0.7, INT: 0.6, VS: 0.6, REED: 0.6, V1: 0.6, BELT: 0.5 },
    others: 0.1,
    answers: [{ code: 'low', text: 'Low although it pumps badly' }],
    usual: 'As on the plate, or high',
  },
  {
    code: 'T14',
    name: 'Belt',
    question: 'Press the belt to its deflection and read the force; look at its flanks.',
    minutes: 6,
    states: ['lock'],
    danger: 1,
    fits: ({ drive }) => drive !== 'direct',
    check: 'belt-deflection',
    tells: { BELT: 0.92 },
    others: 0.05,
    answers: [{ code: 'slack', text: 'Slack, glazed or slipping' }],
    usual: 'Tight and sound',
  },
  {
    code: 'T15',
    name: 'Shut in, ten minutes',
    question:
      'Network valve shut, compressor off: does the receiver still fall, more than 0.1 bar in 10 min?',
    minutes: 10,
    states: ['lock'],
    danger: 0,
    fits: hasReceiver,
    check: 'leak-down',
    tells: { DRN: 0.95, LEAK: 0.92, CHK: 0.85, REL: 0.6 },
    others: 0.05,
    answers: [
      { code: 'fast', text: 'Falls fast, over 1 bar', of: ['DRN'], rest: 0.3 },
      { code: 'slow', text: 'Falls slowly', of: ['CHK', 'REL', 'LEAK'], rest: 0.7 },
    ],
    usual: 'Holds',
  },
  {
    code: 'T16',
    name: 'Network with no one drawing',
    question: 'Network valve open, nobody uses air: does it take over a tenth of what it delivers?',
    minutes: 15,
    states: ['run', 'lock'],
    danger: 0,
    fits: hasReceiver,
    check: 'leak-load-cycle',
    tells: { NET: 0.9, LEAK: 0.6, DRN: 0.6, REG: 0.5 },
    others: 0.1,
    answers: [{ code: 'over', text: 'More than a tenth' }],
    usual: 'Less',
  },
  {
    code: 'T17',
    name: 'Soap the joints',
    question: 'Soap or listen along joints, coolers and hoses. Tighten nothing. Bubbles?',
    minutes: 10,
    states: ['lock'],
    danger: 1,
    fits: always,
    caution: 'Under pressure: nothing is tightened, no face near a joint.',
    tells: { LEAK: 0.9, DRN: 0.6, REL: 0.5, ICL: 0.5, GSK: 0.3 },
    others: 0.06,
    answers: [{ code: 'bubbles', text: 'Bubbles' }],
    usual: 'None',
  },
  {
    code: 'T18',
    name: 'Pump-up against the clock',
    question: 'Network valve shut: time the pump-up. Under 80 % of its plate or baseline?',
    minutes: 8,
    states: ['run'],
    danger: 1,
    fits: pumpsUp,
    needsRun: true,
    check: 'pump-up',
    tells: {
      REED: 0.92,
      VS: 0.9,
      VD: 0.9,
      RING: 0.9,
      DRN: 0.9,
      V1: 0.9,
      GSK: 0.85,
      BELT: 0.7,
      INT: 0.6,
      LEAK: 0.6,
      INTV: 0.6,
      AIRE: 0.6,
      SEP: 0.2,
    },
    others: 0.04,
    answers: [{ code: 'slow', text: 'Under 80 %' }],
    usual: 'As it should be',
  },
  {
    code: 'T19',
    name: 'Water in the receiver',
    question: 'Drain the receiver and measure the water. Over a fifth of its volume?',
    minutes: 4,
    states: ['lock'],
    danger: 1,
    fits: hasReceiver,
    caution:
      'Open slowly, from the side, eyes and ears covered. Where nothing comes the drain is blocked, not the vessel empty.',
    tells: { WATR: 0.95, DRNB: 0.6, DRNN: 0.6 },
    others: 0.03,
    answers: [{ code: 'full', text: 'Over a fifth' }],
    usual: 'Less',
  },
  {
    code: 'T20',
    name: 'Valve covers by temperature',
    question: 'Temperature of each valve cover, against its like or its baseline. Is one over 20 K hotter?',
    minutes: 5,
    states: ['run'],
    danger: 1,
    fits: hasCovers,
    needsRun: true,
    caution: 'Over 100 °C: by instrument, not by hand.',
    tells: { VD: 0.8, VS: 0.8, V1: 0.7, REED: 0.5, GSK: 0.3, RING: 0.25 },
    others: 0.06,
    answers: [
      { code: 'suction', text: 'A suction cover', of: ['VS'], rest: 0.25 },
      { code: 'discharge', text: 'A discharge cover', of: ['VD'], rest: 0.25 },
      { code: 'head', text: 'A whole head', of: ['V1', 'REED', 'GSK', 'RING'], rest: 0.5 },
    ],
    usual: 'All alike',
  },
  {
    code: 'T21',
    name: 'Breather',
    question:
      'Strip of paper at the crankcase breather: a strong puff, against an equal machine or its baseline?',
    minutes: 2,
    states: ['run'],
    danger: 1,
    fits: hasCrankcase,
    needsRun: true,
    tells: { RING: 0.85, BRTH: 0.3, OILH: 0.2 },
    others: 0.08,
    answers: [{ code: 'puff', text: 'A strong puff' }],
    usual: 'Hardly any',
  },
  {
    code: 'T22',
    name: 'Stage pressures',
    question: 'All stage pressures against the baseline at the same final pressure. Is one off by over 10 %?',
    minutes: 5,
    states: ['run'],
    danger: 0,
    fits: (plate) => stagesOf(plate) > 1 && plate.family !== 'screw',
    needsRun: true,
    check: 'stage-pressures',
    tells: {
      GAUG: 0.95,
      VS: 0.85,
      VD: 0.85,
      V1: 0.8,
      RING: 0.6,
      DRN: 0.6,
      INT: 0.5,
      RELI: 0.5,
      LEAK: 0.5,
      ICL: 0.5,
    },
    others: 0.07,
    answers: [
      { code: 'high', text: 'One is high', of: ['VS', 'VD'], rest: 0.5 },
      { code: 'low', text: 'One is low', of: ['V1', 'INT', 'DRN', 'LEAK', 'ICL', 'RELI'], rest: 0.5 },
    ],
    usual: 'All as usual',
  },
  {
    code: 'T23',
    name: 'Stage gauges after stop',
    question: 'Stop, drains shut: watch each stage gauge for two minutes.',
    minutes: 5,
    states: ['lock'],
    danger: 1,
    fits: (plate) => stagesOf(plate) > 1 && plate.family !== 'screw',
    tells: { DRN: 0.85, LEAK: 0.85, VD: 0.8, VS: 0.5, RELI: 0.5, RING: 0.45, NRV: 0.3 },
    others: 0.08,
    answers: [
      { code: 'falls', text: 'One falls far faster', of: ['DRN', 'LEAK', 'RELI', 'RING', 'NRV'], rest: 0.5 },
      { code: 'rises', text: 'One rises', of: ['VD', 'VS'], rest: 0.5 },
    ],
    usual: 'All alike',
  },
  {
    code: 'T24',
    name: 'Each drain by itself',
    question: 'Open each drain by itself: it passes, its gauge dips, it shuts. Does one not?',
    minutes: 4,
    states: ['run'],
    danger: 1,
    fits: (plate) => plate.family === 'high-pressure' || plate.family === 'screw' || stagesOf(plate) > 1,
    needsRun: true,
    check: 'auto-drain',
    caution: 'From the side, slowly, eyes and ears covered.',
    tells: { DRNB: 0.95, DRN: 0.5, CTL: 0.3 },
    others: 0.04,
    answers: [{ code: 'not', text: 'One does not' }],
    usual: 'All do',
  },
  {
    code: 'T25',
    opens: headAndVessel,
    name: 'A second gauge',
    question: 'A second gauge on a test point of the same space. Do they differ beyond their class?',
    minutes: 8,
    states: ['open'],
    danger: 1,
    fits: always,
    after: 'run',
    tells: { GAUG: 0.97, SENS: 0.9, SET: 0.1 },
    others: 0.03,
    answers: [{ code: 'differ', text: 'They differ' }],
    usual: 'They agree',
  },
  {
    code: 'T26',
    name: 'Cooling and room',
    question: 'Cooler face, fan (direction, speed), panels; room and intake air temperature.',
    minutes: 5,
    states: ['run'],
    danger: 1,
    fits: always,
    caution: 'Guards on; hands and sleeves away from the fan.',
    tells: { ROOM: 0.92, COOL: 0.88 },
    others: 0.07,
    answers: [
      { code: 'dirty', text: 'Cooler dirty, fan or panel wrong', of: ['COOL'], rest: 0.6 },
      { code: 'hot', text: 'Air over 10 K above outdoors', of: ['ROOM'], rest: 0.4 },
    ],
    usual: 'Clean and cool',
  },
  {
    code: 'T27',
    name: 'Scavenge line',
    question: 'Scavenge line: sight glass or warmth. Does anything move?',
    minutes: 2,
    states: ['run'],
    danger: 1,
    fits: isScrew,
    needsRun: true,
    tells: { SCAV: 0.9, SEP: 0.15 },
    others: 0.04,
    answers: [{ code: 'cold', text: 'Nothing moves, line cold' }],
    usual: 'Oil moves',
  },
  {
    code: 'T28',
    name: 'Separator drop',
    question: 'Separator drop at full load, with the needle seen to move. Over 0.8 bar?',
    minutes: 2,
    states: ['run'],
    danger: 0,
    fits: isScrew,
    needsRun: true,
    check: 'separator-drop',
    tells: { SEP: 0.8, OILW: 0.2, OILH: 0.15 },
    others: 0.04,
    answers: [{ code: 'over', text: 'Over 0.8 bar' }],
    usual: 'Less',
  },
  {
    code: 'T29',
    name: 'Vessel pressure',
    question: 'Vessel pressure unloaded, and after stop.',
    minutes: 4,
    states: ['run'],
    danger: 1,
    fits: isScrew,
    after: 'lock',
    needsRun: true,
    check: 'vessel-off-load',
    tells: { BLDN: 0.85, MPV: 0.8, INTV: 0.6, CTL: 0.4, SCAV: 0.1 },
    others: 0.05,
    answers: [
      { code: 'stays', text: 'Does not fall as the manual says', of: ['INTV', 'CTL'], rest: 0.5 },
      { code: 'drops', text: 'Falls below it at once', of: ['MPV'], rest: 0.5 },
    ],
    usual: 'As the manual says',
  },
  {
    code: 'T30',
    name: 'Load command',
    question:
      'Load command: click and volts at the solenoid, then linkage or vacuum behind the element. Does the valve follow?',
    minutes: 6,
    states: ['run'],
    danger: 3,
    fits: isScrew,
    trade: true,
    needsRun: true,
    caution: 'Live: a licensed electrician.',
    tells: { INTV: 0.88, BLDN: 0.2 },
    others: 0.05,
    answers: [{ code: 'stays', text: 'Command there, valve does not move' }],
    usual: 'It follows',
  },
  {
    code: 'T31',
    name: 'Oil lines at the cooler',
    question: 'Oil lines into and out of the cooler by contact thermometer.',
    minutes: 4,
    states: ['run'],
    danger: 1,
    fits: isScrew,
    needsRun: true,
    check: 'thermostat',
    caution: 'Oil lines reach 100 °C.',
    tells: { THEC: 0.88, THEO: 0.88, COOL: 0.3, OILF: 0.2 },
    others: 0.05,
    answers: [
      { code: 'hot', text: 'Equal and hot', of: ['THEC'], rest: 0.5 },
      { code: 'warm', text: 'Both warm from the first minute', of: ['THEO'], rest: 0.5 },
    ],
    usual: 'Cooler warms later, and cools',
  },
  {
    code: 'T32',
    name: 'Panel against thermometer',
    question: 'Your own thermometer beside the panel’s figure. Over 6 K apart?',
    minutes: 4,
    states: ['run'],
    danger: 1,
    fits: ({ family }) => family === 'screw' || family === 'high-pressure',
    needsRun: true,
    tells: { SENS: 0.92 },
    others: 0.04,
    answers: [{ code: 'apart', text: 'Over 6 K apart' }],
    usual: 'They agree',
  },
  {
    code: 'T33',
    name: 'CO at the intake',
    question: 'CO at the intake mouth, then at the outlet, by tube or second meter.',
    minutes: 8,
    states: ['run'],
    danger: 1,
    fits: isBreathed,
    needsRun: true,
    caution: 'Nobody breathes from it meanwhile.',
    tells: { INTK: 0.9, COS: 0.1 },
    others: 0.05,
    answers: [{ code: 'intake', text: 'CO at the intake too' }],
    usual: 'None at the intake',
  },
  {
    code: 'T34',
    name: 'CO monitor',
    question: 'Known gas to the CO monitor, two concentrations, and its sample flow.',
    minutes: 8,
    states: ['lock'],
    danger: 1,
    fits: isBreathed,
    check: 'co-monitor',
    tells: { COS: 0.95 },
    others: 0.04,
    answers: [{ code: 'wrong', text: 'Wrong, dead or no flow' }],
    usual: 'Reads right',
  },
  {
    code: 'T35',
    opens: () => ['tower'],
    name: 'Cartridge',
    question: 'Cartridge out: weigh it, look at seals and seat.',
    minutes: 8,
    states: ['open'],
    danger: 2,
    fits: isHighPressure,
    check: 'cartridge-weight',
    caution: 'Tower vented and proved, bleed open and silent; its head turns by hand or stays shut.',
    tells: { CART: 0.92, DRNN: 0.6, HOTS: 0.6, DRNB: 0.6, HOLD: 0.5 },
    others: 0.1,
    answers: [{ code: 'spent', text: 'Full of water, misfitted, or seal nicked' }],
    usual: 'Dry and well seated',
  },
  {
    code: 'T36',
    name: 'Fill gauge from empty',
    question:
      'Start from empty: at which pressure does the fill gauge begin to move? Outside its setting by 15 %?',
    minutes: 4,
    states: ['run'],
    danger: 0,
    fits: isHighPressure,
    needsRun: true,
    check: 'holding-valve',
    tells: { HOLD: 0.9, NRV: 0.3, GAUG: 0.3 },
    others: 0.04,
    answers: [{ code: 'outside', text: 'Outside its setting' }],
    usual: 'At its setting',
  },
  {
    code: 'T37',
    name: 'Spanner and stethoscope',
    question: 'Bolts, feet, pulleys and guards by spanner; then a stethoscope on the bearings.',
    minutes: 8,
    states: ['lock'],
    needsRun: true,
    danger: 1,
    fits: always,
    after: 'run',
    caution: 'Spanner only while locked; listening only with guards on.',
    tells: { FAST: 0.9, BRG: 0.8, AIRE: 0.6, BELT: 0.4, MOT: 0.4 },
    others: 0.06,
    answers: [
      { code: 'loose', text: 'Something is loose', of: ['FAST', 'BELT'], rest: 0.6 },
      { code: 'rumbles', text: 'A bearing rumbles', of: ['BRG', 'AIRE', 'MOT'], rest: 0.4 },
    ],
    usual: 'Neither',
  },
  {
    code: 'T38',
    opens: () => ['stages'],
    name: 'Head off',
    question: 'Head off: plates or reeds, seats, ring, bore, gasket.',
    // With 20 min to cool.
    minutes: 80,
    states: ['open'],
    danger: 2,
    fits: notScrew,
    caution: 'Isolated, vented, proved and below 50 °C by instrument; a vent stays open.',
    tells: { VS: 0.97, VD: 0.97, REED: 0.97, ASM: 0.97, V1: 0.97, RING: 0.95, GSK: 0.95, INTX: 0.7 },
    others: 0.03,
    answers: [
      { code: 'valve', text: 'Valve, plate or reed', of: ['VS', 'VD', 'REED', 'V1'], rest: 0.4 },
      { code: 'ring', text: 'Ring or bore', of: ['RING', 'INTX'], rest: 0.3 },
      { code: 'gasket', text: 'Gasket, or put together wrongly', of: ['GSK', 'ASM'], rest: 0.3 },
    ],
    usual: 'Nothing to see',
  },
  {
    code: 'T39',
    name: 'Breaker, plug, emergency stop',
    question: 'Breaker, fuse lights, plug and emergency stop, looked at from outside. Is one of them off?',
    minutes: 2,
    states: ['run', 'lock'],
    danger: 0,
    fits: isElectric,
    tells: { SUP: 0.55, CTL: 0.15 },
    onlyIn: { SUP: STARTS, CTL: STARTS },
    others: 0.03,
    answers: [{ code: 'off', text: 'One is off or tripped' }],
    usual: 'All on',
  },
];

const byCode = new Map(faultTests.map((test) => [test.code, test]));

export function faultTestByCode(code: string): FaultTest | undefined {
  return byCode.get(code);
}

/** Chance of any answer but the usual one behind a symptom, if a cause is there; undefined where it says nothing of it. */
export function tellsOf(
  { tells, onlyIn }: FaultTest,
  cause: CauseCode,
  symptom?: string,
): number | undefined {
  const where = onlyIn?.[cause];
  return where === undefined || symptom === undefined || where.includes(symptom) ? tells[cause] : undefined;
}

/** How surely a cause is answered by its own answer, where a test has several. */
const OWN = 0.85;

/**
 * Chances of the answers of a test if a cause is there: those that are not as they should be in their order, then
 * the usual one. They sum to 1.
 *
 * @param symptom behind which it is asked; left out, whichever
 * @param size 1 for a cause in full; 0.5 for a slight one, that gives half of what it adds
 */
export function answerChances(test: FaultTest, cause: CauseCode, size = 1, symptom?: string): number[] {
  const { others, answers } = test;
  const full = tellsOf(test, cause, symptom) ?? others;
  const total = others + (full - others) * size;
  const isNamed = answers.some(({ of }) => of?.includes(cause));
  const shares = answers.map(({ of, rest = 1 }) => {
    if (!isNamed) return rest;
    return of!.includes(cause) ? OWN : (1 - OWN) / (answers.length - 1);
  });
  return [...shares.map((share) => share * total), 1 - total];
}

/** Index of an answer among those of a test, the usual one last; null for one that moves nothing. */
export function answerIndex(test: FaultTest, answer: string): number | null {
  if (answer === CANNOT_TELL) return null;
  if (answer === USUAL) return test.answers.length;
  const at = test.answers.findIndex(({ code }) => code === answer);
  return at < 0 ? null : at;
}

/** Which of some tests was answered, and by which of its answers; null where that moves nothing. */
export function findAnswer(
  tests: readonly FaultTest[],
  { test: code, answer }: GivenAnswer,
): { readonly at: number; readonly test: FaultTest; readonly index: number } | null {
  const at = tests.findIndex((one) => one.code === code);
  const test = tests[at];
  const index = test ? answerIndex(test, answer) : null;
  return test && index !== null ? { at, test, index } : null;
}

/** An answer of a test in words; undefined where nobody could tell. */
export function answerText(test: FaultTest, answer: string): string | undefined {
  return answersOf(test).find(({ code }) => code === answer)?.text;
}

/** All answers of a test, the usual one last. */
export function answersOf({
  answers,
  usual,
}: FaultTest): readonly { readonly code: string; readonly text: string }[] {
  return [...answers.map(({ code, text }) => ({ code, text })), { code: USUAL, text: usual }];
}
