import { lower } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import type { Procedure, ProcedureStep } from './procedure.js';
import { settingProcedures } from './setting.js';
import { formatNewtonMetres, torqueFor } from './torques.js';

const isPiston = ({ family }: DataPlate) => family !== 'screw';
const newPackings: ProcedureStep = {
  code: 'packings',
  name: 'New packings and O-rings',
  how: 'Look-alikes differ: compare size and cut-outs with the old one before it is thrown away.',
};
const headBolts: ProcedureStep = {
  code: 'head-bolts',
  name: 'Head on, bolts in a star',
  how: 'In three rounds, across and across; again after the first warm run where the manual says so.',
  torque: 'head bolts',
};
const byHand: ProcedureStep = {
  code: 'by-hand',
  name: 'Turn it over by hand',
  how: 'Two full turns before power comes back. Some friction of a new ring is normal; a hard spot is not.',
  caution: 'Still locked out. Fingers clear of fan and belt.',
};

/** The overhauls that come as guided procedures. */
export const procedures: readonly Procedure[] = [
  {
    code: 'ring-kit',
    name: 'Ring and sleeve kit',
    task: 'ring-kit',
    fits: ({ family }) => family === 'piston-oil-free',
    renew: ['ring and sleeve', 'head gasket and O-rings', 'intake element'],
    opens: () => ['stages'],
    provedBy: 'pump-up',
    steps: [
      {
        code: 'fan-off',
        name: 'Fan off first',
        caution: 'Unplugged, vented and cool.',
        how: 'Mark how it sat.',
      },
      {
        code: 'head-off',
        name: 'Head off, reeds marked',
        how: 'Mark the orientation of each reed before it moves.',
      },
      {
        code: 'piston-out',
        name: 'Piston and old sleeve out',
        how: 'No hammer on ring, sleeve, reed or bearing; a soft mallet on the rod is fine.',
      },
      {
        code: 'rod-bearing',
        name: 'Rod bearing inspected',
        how: 'Greased or replaced, and centred on the eccentric.',
        torque: 'eccentric screw',
      },
      {
        code: 'ring-on',
        name: 'New ring on, lip up',
        how: 'Turn the ring while its screw is tightened, so that it does not bind. Removable thread-lock only: it sits in aluminium.',
        torque: 'ring screw',
      },
      {
        code: 'into-sleeve',
        name: 'Piston into the sleeve from the top',
        how: 'Never the sleeve pushed over the ring. Joined outside or in the machine: both ways are in use.',
      },
      {
        code: 'reeds',
        name: 'Reeds back as they lay',
        how: 'They must spring back; the tiny screw is barely tightened. Worn reeds put back make the repair disappoint.',
        torque: 'reed screw',
      },
      newPackings,
      headBolts,
      {
        code: 'intake',
        name: 'New intake element',
        how: 'Always. A cracked filter housing is replaced whole: grit past it destroys ring and sleeve.',
      },
      { code: 'fan-on', name: 'Fan on, clear of everything' },
      byHand,
    ],
  },
  {
    code: 'valve-service',
    name: 'Valve service',
    task: 'valves-all',
    fits: isPiston,
    renew: ['valve gaskets and O-rings'],
    opens: ({ family, cooling }) => [family === 'piston' && cooling === 'water' ? 'valves' : 'stages'],
    provedBy: 'pump-up',
    steps: [
      {
        code: 'mark',
        name: 'Mark each valve and its place',
        caution: 'Isolated, vented, cool: a stage holds pressure behind its valve.',
        how: 'Suction and discharge look alike and are not. Lowest stage first.',
      },
      {
        code: 'clean',
        name: 'Clean without scratching',
        how: 'Fine abrasive only, on a flat plate. No wire brush on a seat.',
      },
      {
        code: 'inspect',
        name: 'Look at seat, plate and spring',
        how: 'Plates must spring; a cracked or stepped one is renewed.',
      },
      newPackings,
      {
        code: 'orientation',
        name: 'Valves back the right way round',
        how: 'A valve upside down runs hot within minutes, or bursts the stage before it.',
        caution: 'Locating pin in its hole before the cover goes on.',
      },
      { ...headBolts, code: 'cover-bolts', name: 'Covers on, bolts in a star', torque: 'valve cover bolts' },
      byHand,
    ],
  },
  {
    code: 'water-cooled-overhaul',
    name: 'Two-stage water-cooled overhaul',
    task: 'overhaul',
    fits: ({ family, cooling }) => family === 'piston' && cooling === 'water',
    renew: ['all packings', 'high-pressure valve plates', 'piston rings'],
    opens: () => ['stages', 'crankcase'],
    provedBy: 'pump-up',
    steps: [
      {
        code: 'water',
        name: 'Drain the cooling water',
        how: 'Flow and return shut first; frost or rust shows here.',
      },
      {
        code: 'water-own',
        name: 'Its own water pump off and locked',
        how: 'A pump of its own has a supply of its own: it is locked like the motor, and its tank shut off.',
        onlyOn: ({ coolingWaterFrom }) => coolingWaterFrom === 'own-pump',
      },
      {
        code: 'water-building',
        name: 'The building told that its water is off here',
        how: 'Tag both valves: others open them when they miss their water.',
        onlyOn: ({ coolingWaterFrom }) => coolingWaterFrom === 'building',
      },
      {
        code: 'lp-valve-first',
        name: 'Low-pressure valve, out through its own cover',
        how: 'It comes out before the head: plates, springs and seat looked at, and the head may stay where it is.',
        torque: 'low-pressure valve cover',
        onlyOn: ({ lowPressureValve }) => lowPressureValve === 'own-cover',
      },
      { code: 'pipes', name: 'Pipes off', how: 'Each end capped and marked.' },
      {
        code: 'head',
        name: 'Head off',
        how: 'Its outer ring can stick: loosen it evenly with the jacking screws, no pry bar.',
        caution: 'A heavy lift: tackle, and nobody under it.',
      },
      {
        code: 'lp-valve',
        name: 'Low-pressure valve',
        how: 'Under the head: with the head on its side, never on its valve.',
        onlyOn: ({ lowPressureValve }) => lowPressureValve !== 'own-cover',
      },
      { code: 'crankcase', name: 'Crankcase cover off' },
      {
        code: 'crank-pin',
        name: 'Crank-pin bolts and bearing',
        how: 'Bolts to torque, never by feel, locked as the manual says.',
        torque: 'crank-pin bolts',
      },
      {
        code: 'piston',
        name: 'Piston out',
        how: 'Two heads: the large face up. Rings measured in their grooves.',
      },
      { code: 'separator', name: 'Separator cleaned' },
      {
        code: 'hp-valves',
        name: 'High-pressure valves',
        how: 'In line or each under its own cover. Plates must spring.',
        onlyOn: ({ highPressureValves }) => highPressureValves === undefined,
      },
      {
        code: 'hp-in-line',
        name: 'High-pressure valves, in line',
        how: 'One stack: suction below, discharge above; order and way of each plate drawn before it comes apart.',
        torque: 'high-pressure valve screw',
        onlyOn: ({ highPressureValves }) => highPressureValves === 'in-line',
      },
      {
        code: 'hp-covers',
        name: 'High-pressure valves, each under its own cover',
        how: 'One at a time, so that none is exchanged: a suction valve in the place of a discharge valve wrecks the cylinder.',
        torque: 'high-pressure valve covers',
        onlyOn: ({ highPressureValves }) => highPressureValves === 'own-covers',
      },
      {
        code: 'coolers',
        name: 'Coolers',
        how: 'Inside or beside the block: water side descaled, air side clean.',
        onlyOn: ({ coolersAre }) => coolersAre === undefined,
      },
      {
        code: 'coolers-inside',
        name: 'Coolers, drawn out of the block',
        how: 'Room to draw them first; water side descaled, their seals new: a leak inside is water in the cylinder.',
        onlyOn: ({ coolersAre }) => coolersAre === 'inside',
      },
      {
        code: 'coolers-beside',
        name: 'Coolers beside the block',
        how: 'Their own vents and drains open first; water side descaled, air side clean.',
        onlyOn: ({ coolersAre }) => coolersAre === 'beside',
      },
      {
        code: 'lubricator',
        name: 'Cylinder lubricator and its check valve',
        how: 'Primed by hand before the start; the dose can be adjusted.',
        onlyOn: ({ cylinderOilFrom }) => cylinderOilFrom !== 'oil-pump',
      },
      {
        code: 'oil-to-cylinder',
        name: 'Oil ways from the pump to the cylinders',
        how: 'Blown through, their check valves in: the pump is primed by hand until oil comes at each.',
        onlyOn: ({ cylinderOilFrom }) => cylinderOilFrom === 'oil-pump',
      },
      { ...newPackings, how: `Every one, at every overhaul. ${newPackings.how!}` },
      {
        code: 'pin',
        name: 'Locating pin in its hole',
        how: 'Before the cover closes: it cannot be seen afterwards.',
      },
      headBolts,
      byHand,
    ],
  },
  {
    code: 'bearing',
    name: 'Bearing',
    fits: () => true,
    renew: ['bearing', 'shaft seal'],
    provedBy: 'vibration-sound',
    steps: [
      { code: 'play', name: 'Measure the play first', how: 'It says which bearing, and proves the new one.' },
      { code: 'off', name: 'Old bearing off with a puller', how: 'Never through the rolling elements.' },
      {
        code: 'seat',
        name: 'Seat and shaft measured',
        how: 'A bearing that turned in its seat has made it larger.',
      },
      {
        code: 'on',
        name: 'New bearing on, warmed',
        how: 'Pressed on the ring that is tight, square and to its stop.',
        caution: 'Hot: gloves. No flame near oil.',
      },
      { code: 'seal', name: 'New shaft seal, lip oiled', torque: 'bearing cover screws' },
      byHand,
    ],
  },
  {
    code: 'separator',
    name: 'Separator element',
    task: 'separator-replace',
    fits: ({ family }) => family === 'screw',
    renew: ['separator element', 'vessel gasket'],
    opens: () => ['separator'],
    provedBy: 'separator-drop',
    steps: [
      {
        code: 'vented',
        name: 'Vessel vented, vent left open',
        caution: 'The minimum-pressure valve holds air back. Hot oil.',
      },
      {
        code: 'scavenge',
        name: 'Scavenge line drawn up out of the way',
        how: 'Screen or restrictor cleaned while it is out.',
      },
      { code: 'lid', name: 'Lid off', caution: 'The last bolts only loosened until it lifts by itself.' },
      {
        code: 'earth',
        name: 'Earthing staple of the element in place',
        how: 'Without contact a charge builds up in the oil mist.',
      },
      { code: 'gasket', name: 'New gaskets, dry', how: 'Faces clean, nothing falls into the vessel.' },
      { ...headBolts, code: 'lid-bolts', name: 'Lid on, bolts in a star', torque: 'lid bolts' },
      {
        code: 'scavenge-depth',
        name: 'Scavenge line down to the element’s bottom',
        how: 'Too high, and the oil stays in.',
      },
    ],
  },
  {
    code: 'cartridge',
    name: 'Purifier cartridge',
    task: 'cartridge-replace',
    fits: ({ family }) => family === 'high-pressure',
    renew: ['cartridge', 'head O-ring'],
    opens: () => ['tower'],
    provedBy: 'water-content',
    steps: [
      {
        code: 'vented',
        name: 'Tower vented, drain left open',
        caution: 'The holding valve can let air creep back: bleed left open and silent.',
      },
      {
        code: 'head',
        name: 'Head off by hand',
        caution:
          'Stiff: never forced. Zero proved and the drain seen to pass first, then this model’s own tool.',
      },
      { code: 'old', name: 'Old cartridge out, weighed', how: 'Bagged for licensed disposal.' },
      {
        code: 'inside',
        name: 'Tower wiped dry, thread clean',
        how: 'Rust or pitting inside: a pressure part, for a licensed inspection.',
      },
      { code: 'seals', name: 'Seals greased', how: 'With breathing-air grease and nothing else.' },
      {
        code: 'packing',
        name: 'New cartridge unpacked now',
        how: 'Packing intact until this moment. Note its weight.',
      },
      { code: 'direction', name: 'Right way round, pushed home', how: 'The direction goes by model.' },
      { code: 'close', name: 'Head closed lightly', how: 'Never forced: the pressure does the sealing.' },
    ],
  },
  ...settingProcedures,
];

/** The steps of an overhaul on a machine, as it is built. */
export function stepsOn({ steps }: Procedure, plate: DataPlate): readonly ProcedureStep[] {
  return steps.filter(({ onlyOn }) => onlyOn?.(plate) ?? true);
}

/**
 * A step of a guided overhaul by its name.
 *
 * @param code procedure and step, like `ring-kit/head-off`; one that is not known is answered as it is
 */
export function procedureStepName(code: string): string {
  const [of, which] = code.split('/');
  const procedure = procedures.find((one) => one.code === of);
  const step = procedure?.steps.find((one) => one.code === which);
  return procedure && step ? `${procedure.name}, ${lower(step.name)}` : code;
}

/** The overhauls that a machine can have. */
export function proceduresFor(plate: DataPlate): readonly Procedure[] {
  return procedures.filter(({ fits }) => fits(plate));
}

/** What bears no load: covers, bowls, glasses, small screws of reeds. */
const SNUG = /reed|bowl|glass|panel/;

/** What is known of a torque on this machine; says so where there is no figure. */
export function formatTorque(what: string, plate: Pick<DataPlate, 'torques'>): string {
  const known = torqueFor(what, plate);
  if (known)
    return `The ${what}: ${formatNewtonMetres(known.newtonMetres)}${known.more === '' ? '' : ` (${known.more})`}`;
  if (SNUG.test(what)) return `The ${what}: hand-tight, snug, never forced.`;
  return plate.torques === undefined || plate.torques.trim() === ''
    ? `Torque of the ${what}: no figure known for this machine. Look in its manual; do not guess.`
    : `Torque of the ${what}, by the data plate: ${plate.torques.trim()}`;
}
