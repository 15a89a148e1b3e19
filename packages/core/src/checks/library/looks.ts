import { hasEngine, isBreathed, stationCodes, type DataPlate } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, Suggestion, Verdict } from '../check.js';
import { choice } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isPiston,
  isScrew,
  limit,
  lookAt,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** How something may be found. */
interface Found {
  /** As it is chosen. */
  readonly name: string;
  readonly verdict: Verdict | ((given: CheckSubject) => Verdict);
  /** A sentence of its own: what it is, and what follows. */
  readonly says: string;
  readonly suggests?: readonly Suggestion[];
}

/** One thing that is looked at, with everything that it may look like: what is sound first. */
interface Part {
  readonly code: string;
  readonly name: string;
  readonly found: Readonly<Record<string, Found>>;
}

interface Look extends Omit<CheckDefinition, 'fields' | 'judge' | 'figure'> {
  /** What sound means, as its limit. */
  readonly sound: string;
  readonly parts: readonly [Part, ...Part[]];
}

const hasReceiver = (plate: DataPlate) =>
  !isHighPressure(plate) && !(isScrew(plate) && plate.motor === 'diesel');
const gaugeStation: CheckDefinition['station'] = (plate) =>
  isHighPressure(plate) ? 'final-separator' : 'receiver';
const filterTask = doTask('intake-replace', 'New element, seated on a whole gasket in a whole housing');
const gritIn = lookAt('stage-1', 'What came in: look at valves and bore before it runs for long');

/** How a hose may be found, wherever it is. */
const hoseStates: Part['found'] = {
  sound: { name: 'sound', verdict: 'good', says: 'The hose is sound over its whole length.' },
  chafed: {
    name: 'chafed, hard or kinked',
    verdict: 'act',
    says: 'The hose is chafed, hard or kinked: a new one, and led so that it does not rub.',
  },
  cracked: {
    name: 'cracked, blistered, or its wires show',
    verdict: 'stop',
    says: 'The hose is cracked, blistered or shows its wires: it can burst and whip. Out of use, cut through so that nobody takes it again.',
  },
};

const looks: readonly Look[] = [
  {
    code: 'bore',
    name: 'Bore and sleeve',
    how: 'Head off, piston down, wiped dry, with a lamp; a finger nail across the marks.',
    caution: 'Locked out and vented: hands are in the cylinder. Turned by hand only, fingers clear.',
    opens: ['stages'],
    station: () => 'stage-1',
    applies: (plate) => isPiston(plate) || isHighPressure(plate),
    sound: 'smooth, the marks of honing still to be seen',
    parts: [
      {
        code: 'bore',
        name: 'The bore is',
        found: {
          smooth: { name: 'smooth', verdict: 'good', says: 'The bore is smooth.' },
          ridge: {
            name: 'polished, a ridge at the top',
            verdict: 'watch',
            says: 'The bore is polished and has a ridge at the top: it is wearing. Pump-up test now and at the next service.',
          },
          scored: {
            name: 'scored along the stroke',
            verdict: 'act',
            says: 'Grooves along the stroke say that grit came through the intake. Mend the intake first, or new rings are gone as fast.',
            suggests: [
              lookAt('intake', 'Element, gasket and housing: where does dust get past?'),
              lookAt('stage-1', 'Bore or sleeve: hone, new sleeve or new cylinder, then rings'),
            ],
          },
          seized: {
            name: 'smeared or seized',
            verdict: 'stop',
            says: 'Metal is smeared over the bore: the piston has seized. It does not run before oil, cooling and clearance are understood.',
            suggests: [lookAt('stage-1', 'Piston, pin and rod too; then why: oil, heat, clearance')],
          },
        },
      },
    ],
  },
  {
    code: 'receiver-inside',
    name: 'Receiver inside, and its drain',
    how: 'Through the largest opening, with a lamp; the drain taken out.',
    caution:
      'Only vented and shut off from every other source. A receiver is never ground, welded or drilled: its thickness is for a licensed examiner.',
    opens: ['receiver'],
    station: () => 'receiver',
    applies: hasReceiver,
    sound: 'no more than a film of rust, the drain free',
    parts: [
      {
        code: 'inside',
        name: 'Inside it is',
        found: {
          sound: { name: 'sound', verdict: 'good', says: 'The receiver is sound inside.' },
          film: {
            name: 'under a film of rust',
            verdict: 'watch',
            says: 'A film of rust: water stood in it. Drain it more often, look again within the year.',
            suggests: [doTask('drain-receiver', 'Drained daily; an automatic drain tested')],
          },
          pitted: {
            name: 'pitted, or rust comes off in flakes',
            verdict: 'stop',
            says: 'Pits or flakes of rust: nobody knows how much wall is left, and a receiver bursts without warning. It stays out of service until a licensed examiner has passed it.',
          },
        },
      },
      {
        code: 'drain',
        name: 'Its drain is',
        found: {
          free: { name: 'free', verdict: 'good', says: 'Its drain is free.' },
          caked: {
            name: 'caked',
            verdict: 'act',
            says: 'The drain is caked: what was drained was not all there was. Clean it and drain until nothing comes.',
            suggests: [doTask('drain-receiver', 'Drain cleaned, receiver emptied of its water')],
          },
        },
      },
    ],
  },
  {
    code: 'filter-seat',
    name: 'Filter housing and gasket',
    how: 'Element out: housing and thread against the light, the gasket behind it; dust on the clean side says where it gets past.',
    caution: 'Stopped and locked out: it draws in whatever comes near.',
    station: () => 'intake',
    applies: () => true,
    sound: 'housing whole, gasket soft and in its place',
    parts: [
      {
        code: 'housing',
        name: 'Housing and thread',
        found: {
          whole: { name: 'whole', verdict: 'good', says: 'Housing and thread are whole.' },
          stripped: {
            name: 'thread stripped',
            verdict: 'act',
            says: 'The thread is stripped: the element shakes loose and dust goes past it. New housing, no tape around it.',
            suggests: [filterTask],
          },
          cracked: {
            name: 'cracked',
            verdict: 'act',
            says: 'The housing is cracked: dust goes past the element. New housing before it runs for long.',
            suggests: [filterTask, gritIn],
          },
        },
      },
      {
        code: 'gasket',
        name: 'Gasket behind it',
        found: {
          whole: { name: 'soft and in place', verdict: 'good', says: 'The gasket is soft and in its place.' },
          hard: {
            name: 'hard or torn',
            verdict: 'act',
            says: 'The gasket behind the filter is hard or torn: a new one with the element.',
            suggests: [filterTask],
          },
          missing: {
            name: 'missing',
            verdict: 'act',
            says: 'There is no gasket behind the filter: it has been drawing dust past the element.',
            suggests: [filterTask, gritIn],
          },
        },
      },
    ],
  },
  {
    code: 'gauge-filling',
    name: 'Filling of the gauge',
    how: 'A filled gauge stands about nine tenths full, and can be read across the yard.',
    station: gaugeStation,
    applies: () => true,
    sound: 'dry by design, or full and clear',
    parts: [
      {
        code: 'filling',
        name: 'Its filling is',
        found: {
          full: {
            name: 'clear, or a dry gauge',
            verdict: 'good',
            says: 'The gauge can be read and has not lost its filling.',
          },
          low: {
            name: 'partly gone',
            verdict: 'watch',
            says: 'The gauge is losing its filling: its needle will shake itself loose. Compare it with a good one.',
            suggests: [doTask('gauge-test', 'Compare, then replace it when one is to hand')],
          },
          gone: {
            name: 'gone or clouded',
            verdict: 'act',
            says: 'The filling is gone or clouded: a gauge that cannot be read or shakes is no proof of anything. Replace it.',
            suggests: [doTask('gauge-test', 'New gauge of the same range and medium')],
          },
        },
      },
    ],
  },
  {
    code: 'fill-hose',
    name: 'Fill hose',
    how: 'Its whole length through the hand while it is vented, and the crimps at its ends; the date on it; the safety cable.',
    caution: 'Vented. Under pressure no hand and no face near a hose: a pinhole cuts.',
    station: () => 'fill',
    applies: isHighPressure,
    sound: 'no crack, no blister, no kink, in date, cable on',
    parts: [{ code: 'hose', name: 'The hose is', found: hoseStates }],
  },
  {
    code: 'hose',
    name: 'Hoses at the outlet',
    how: 'Over the whole length, most of all near the ends and where it rubs; held every half a metre.',
    caution: 'Vented before it is taken off: a hose that comes free whips.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    sound: 'no crack, no blister, no kink',
    parts: [{ code: 'hose', name: 'The hose is', found: hoseStates }],
  },
  {
    code: 'line-element',
    name: 'Element of a line filter',
    how: 'Held beside a new one when it is out: its colour, its ends, the clean side of the bowl.',
    caution:
      'Only behind a shut valve, both sides vented and silent: a bowl under pressure does not come off, it flies.',
    opens: ['point'],
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    sound: 'white, whole, its clean side clean',
    parts: [
      {
        code: 'element',
        name: 'The element is',
        found: {
          white: { name: 'white', verdict: 'good', says: 'The element is white.' },
          grey: {
            name: 'grey',
            verdict: 'watch',
            says: 'The element is grey: half its life is gone. It goes out at the next visit.',
          },
          dark: {
            name: 'dark or wet with oil',
            verdict: 'act',
            says: 'The element is dark or wet with oil: a new one now, and the oil’s way looked for at the compressor.',
            suggests: [lookAt('oil', 'Oil carried over: separator, level, temperature')],
          },
          torn: {
            name: 'torn, or none in it',
            verdict: 'act',
            says: 'The element is torn or missing: what it should hold has gone on into the tools.',
          },
        },
      },
    ],
  },
  {
    code: 'tower-ring',
    name: 'Rings of the tower head',
    how: 'Head off: the inner ring seals the cartridge, the outer one the tower.',
    caution:
      'The tower holds full pressure until proved empty. Nothing is loosened that does not turn by hand.',
    opens: ['tower'],
    station: () => 'tower',
    applies: isHighPressure,
    sound: 'both in place, round and whole',
    parts: [
      {
        code: 'inner',
        name: 'The inner ring is',
        found: {
          whole: { name: 'in place, round and whole', verdict: 'good', says: 'The inner ring is whole.' },
          flat: {
            name: 'flat, nicked or hard',
            verdict: 'act',
            says: 'The inner ring is flat or nicked: air gets past the cartridge. New ring, and silicone grease that the maker allows.',
            suggests: [doTask('cartridge-replace', 'New rings with the cartridge')],
          },
          missing: {
            name: 'missing',
            // What goes past the cartridge is breathed.
            verdict: ({ plate }) => (plate === undefined || isBreathed(plate) ? 'stop' : 'act'),
            says: 'Without its inner ring air goes round the cartridge, not through it: what was filled since was not cleaned.',
            suggests: [
              doTask('cartridge-replace', 'Ring and cartridge, then air measured'),
              lookAt('fill', 'What was filled since the tower was last opened: emptied, not breathed'),
            ],
          },
        },
      },
    ],
  },
  {
    code: 'water-leak',
    name: 'Cooling-water leak',
    how: 'Under the jackets and coolers; the oil in the glass; what the separators give when it stands cold.',
    caution: 'Never opened hot: a hot jacket boils and scalds.',
    station: () => 'cooling',
    applies: ({ cooling }) => cooling === 'water',
    sound: 'dry outside, no water in oil or air',
    parts: [
      {
        code: 'water',
        name: 'Water is',
        found: {
          none: { name: 'nowhere', verdict: 'good', says: 'No cooling water outside its way.' },
          outside: {
            name: 'outside, drops',
            verdict: 'act',
            says: 'Cooling water drips outside: new seal or hose, cool first, then water shut.',
          },
          inside: {
            name: 'in the oil or in the air',
            verdict: 'stop',
            says: 'Cooling water in the oil or in the air: a jacket, gasket or cooler has let go. Water on a piston breaks rod and head: do not turn it over.',
            suggests: [lookAt('cooling', 'Pressure-test jackets and coolers, oil out, bearings looked at')],
          },
        },
      },
    ],
  },
  {
    code: 'dryer',
    name: 'Dryer, looked over',
    how: 'Its dew-point lamp or the cold side by thermometer (a few degrees above freezing), its drain heard, its face clean.',
    caution: 'Its cooling circuit is for a licensed person. Its own supply is a second one to lock out.',
    station: () => 'dryer',
    applies: (plate) => stationCodes(plate).has('dryer'),
    sound: 'cold, draining, its face clean',
    parts: [
      {
        code: 'cold',
        name: 'Its cold side is',
        found: {
          cold: { name: 'cold', verdict: 'good', says: 'The dryer is cold.' },
          iced: {
            name: 'iced',
            verdict: 'act',
            says: 'The dryer is iced up and passes little air: too little load, or its hot-gas valve. A licensed person.',
          },
          warm: {
            name: 'warm',
            verdict: 'act',
            says: 'The dryer does not cool: water goes into the network. Face, fan and room first, then a licensed person.',
            suggests: [doTask('cooling-clean', 'Face and fan of the dryer')],
          },
        },
      },
      {
        code: 'drain',
        name: 'Its drain',
        found: {
          works: { name: 'opens and shuts', verdict: 'good', says: 'Its drain opens and shuts.' },
          shut: {
            name: 'gives nothing',
            verdict: 'act',
            says: 'The drain of the dryer gives nothing: the water goes on into the network.',
            suggests: [lookAt('dryer', 'Strainer and valve of its drain')],
          },
          blows: {
            name: 'blows all the time',
            verdict: 'act',
            says: 'The drain of the dryer blows all the time: that is bought air.',
            suggests: [lookAt('dryer', 'Dirt on the seat of its drain')],
          },
        },
      },
    ],
  },
  {
    code: 'auto-drain',
    name: 'Automatic drain',
    how: 'By its test button, or waited for (high pressure every 7 to 15 min): it opens, water comes, the gauge of its stage dips, it shuts.',
    caution:
      'What comes, comes at full pressure: face and hands away from its outlet, the outlet led away and held.',
    station: (plate) => (isHighPressure(plate) ? 'final-separator' : 'receiver'),
    applies: (plate) => isHighPressure(plate) || hasReceiver(plate),
    sound: 'opens, passes, shuts',
    parts: [
      {
        code: 'drain',
        name: 'It',
        found: {
          works: {
            name: 'opens, passes water, shuts',
            verdict: 'good',
            says: 'The automatic drain opens, passes and shuts.',
          },
          dry: {
            name: 'opens, nothing comes',
            verdict: 'act',
            says: 'The drain opens and nothing comes: blocked before it. Drain by hand in the meantime, each time it would have.',
          },
          shut: {
            name: 'does not open',
            verdict: 'act',
            says: 'The drain does not open: the water goes on. Drain by hand in the meantime, each time it would have.',
          },
          open: {
            name: 'does not shut',
            verdict: 'act',
            says: 'The drain does not shut: what it should keep blows away, and the set runs on.',
          },
        },
      },
    ],
  },
  {
    code: 'contactor',
    name: 'Contactor, by ear',
    how: 'From outside, at three starts: one clean clack.',
    caution: 'Behind that panel parts are live: opening it is an electrician’s business.',
    station: () => 'motor',
    applies: (plate) => !hasEngine(plate),
    sound: 'pulls in at once and stays',
    parts: [
      {
        code: 'contactor',
        name: 'It',
        found: {
          clean: {
            name: 'pulls in and stays',
            verdict: 'good',
            says: 'The contactor pulls in at once and stays.',
          },
          chatters: {
            name: 'chatters or hums',
            verdict: 'act',
            says: 'The contactor chatters: its contacts burn and the motor sees one phase less. Supply and coil, by an electrician.',
          },
          late: {
            name: 'does not pull in every time',
            verdict: 'act',
            says: 'The contactor does not pull in every time: control circuit, switch and coil, by an electrician.',
          },
        },
      },
    ],
  },
];

function judgeLook({ sound, parts }: Look): CheckDefinition['judge'] {
  const rule = limit(null, sound, 'practice');
  return (given) => {
    const shown = parts.map((part): Shown => {
      const { verdict, says, suggests } = part.found[given.text(part.code)!]!;
      return {
        verdict: typeof verdict === 'function' ? verdict(given) : verdict,
        reason: says,
        limit: rule,
        ...(suggests === undefined ? {} : { suggests }),
      };
    });
    return worstOf(shown as [Shown, ...Shown[]]);
  };
}

/** What is seen or heard and has no figure: chosen from a few words, each with what follows from it. */
export const lookChecks: readonly CheckDefinition[] = looks.map((look) => {
  const { sound: _sound, parts, ...rest } = look;
  return {
    ...rest,
    fields: parts.map(({ code, name, found }) =>
      choice(
        code,
        name,
        Object.fromEntries(Object.entries(found).map(([state, { name: text }]) => [state, text])),
      ),
    ),
    judge: judgeLook(look),
  };
});

/** Every way in which something may be found that is not good, for the list of limits. */
export function foundLines(): readonly (readonly [check: string, verdict: Verdict, when: string])[] {
  return looks.flatMap(({ code, parts }) =>
    parts.flatMap(({ name, found }) =>
      Object.values(found).flatMap(({ name: state, verdict }) =>
        verdict === 'good'
          ? []
          : [
              [
                code,
                // Where it hangs on the machine, the graver one.
                typeof verdict === 'function' ? 'stop' : verdict,
                `${name.toLowerCase()} ${state}${typeof verdict === 'function' ? ', where somebody breathes the air; else act' : ''}`,
              ] as const,
            ],
      ),
    ),
  );
}
