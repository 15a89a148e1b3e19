import seedrandom from 'seedrandom';
import { guardRules, type GuardRule } from '../isolation/index.js';
import {
  admittedAt,
  honestMoves,
  isDangerousFor,
  moves,
  receiverModel,
  search,
  walk,
  startsOf,
  type Model,
  type Node,
} from './index.js';

/*
 * The whole search, with faults, two people and two coupled spaces, is `npm run benchmark -- guard`: it takes
 * minutes. Here the same functions on the smallest model, and what the search found for each rule.
 */

test('with sound instruments nothing is opened under pressure, and an honest course always leads on', () => {
  const model: Model = { ...receiverModel('one'), isQuiet: true, isPlain: true };
  const found = search(model, startsOf(model, 0), { looksForJail: true });
  expect(found).toMatchObject({ counterexample: null, jailed: 0, isCut: false });
  expect(found.admitting).toBeGreaterThan(20);
});

test('random courses on machines with real pressures go as the search allows, and nobody opens one that holds any', () => {
  const model = receiverModel('one');
  const walked = walk(model, startsOf(model, 1), honestMoves, {
    courses: 5000,
    steps: 14,
    random: seedrandom('courses'),
  });
  expect(walked).toMatchObject({ courses: 5000, unsafe: null, strange: null });
  expect(walked.admitted).toBeGreaterThan(500);
});

/** Goes along a course by the names of its moves; what the guard refuses and changes nothing is left out. */
function along(model: Model, course: readonly string[], deadGauge?: string): Node {
  const bare = (name: string) => name.replace(' (refused)', '');
  return course.reduce(
    (node, name) => [...moves(model, node)].find((one) => bare(one.name) === name)?.to() ?? node,
    startsOf(model, 1, deadGauge !== undefined)[0]!,
  );
}

function inDanger(model: Model, node: Node): readonly string[] {
  return admittedAt(model, node).filter((by) => isDangerousFor(node, by));
}

const proved = honestMoves.slice(0, 5);
const stands = 'it stands by itself for a while';
const look = 'a: second look: holds';

/** The drain clogs half-way while it passes. */
const clogging = [...honestMoves.slice(0, 3), 'drain-half at 0', ...honestMoves.slice(3)];

/** The shortest course that the search found with each rule taken away, on a sound machine or with one fault. */
const courses: readonly {
  readonly rule: GuardRule;
  readonly course: readonly string[];
  readonly deadGauge?: string;
}[] = [
  {
    rule: 'sources-first',
    course: [
      'a: valve shut',
      'a: receiver passes',
      stands,
      'a: receiver silent',
      stands,
      look,
      '2 min pass',
      'a: lock on',
    ],
  },
  { rule: 'lock-off-erases', course: [...proved, 'a: lock off', stands, look, '2 min pass', 'a: lock on'] },
  {
    rule: 'valve-open-erases',
    course: [...proved, '2 min pass', 'a: valve open', look, '2 min pass', 'a: valve shut'],
  },
  {
    rule: 'vent-shut-erases',
    course: [...proved, 'a: receiver shut', 'valve-passes at 0', '2 min pass', look],
  },
  { rule: 'restart-erases', course: [...proved, 'a: started again', '2 min pass', look] },
  {
    rule: 'two-signs',
    course: clogging,
  },
  {
    rule: 'needle-seen-to-fall',
    course: clogging,
    deadGauge: 'a needle that tells nothing',
  },
  { rule: 'pause', course: [...proved, '2 min pass', look, 'a pause passes: somebody opens the valve'] },
  {
    rule: 'answer-needed',
    course: [
      'a: an old page ticks the lock',
      'a: valve shut',
      'a: receiver passes',
      stands,
      'a: receiver silent',
      stands,
      look,
    ],
  },
];

describe.each(courses)('without the rule $rule', ({ rule, course, deadGauge }) => {
  test('somebody is let to open it in danger; with it nobody', () => {
    const without = receiverModel('one', [rule]);
    expect(inDanger(without, along(without, course, deadGauge))).not.toEqual([]);
    const model = receiverModel('one');
    expect(inDanger(model, along(model, course, deadGauge))).toEqual([]);
  });
});

test('without the rule own-lock somebody works under another’s lock, which comes off at any moment', () => {
  const course = [
    'b: lock on',
    'a: valve shut',
    'a: receiver passes',
    '2 min pass',
    'a: receiver silent',
    '2 min pass',
    look,
  ];
  const without = receiverModel('two', ['own-lock']);
  expect(inDanger(without, along(without, course))).toContain('a');
  const model = receiverModel('two');
  expect(inDanger(model, along(model, course))).toEqual([]);
});

/**
 * Rules that no single fault of the model needs: what stands against each is named, with the adversary that the
 * model lacks.
 */
const inDepth: Readonly<Partial<Record<GuardRule, string>>> = {
  against: 'a space that is fed through a vent that clogs: two faults at once',
  'second-look': 'oil that gives air back; a passing valve behind a vent that clogs',
  'look-waits': 'the same, slowly',
  'see-for-yourself': 'what the first person did not tell the second',
  'another-day': 'several things that happen overnight, each of which one look would miss',
  'least-time': 'the reflex of holding a button without listening',
  'one-pair-of-ears': 'two people at two vents who mean the same one',
};

test('every rule has its course, or an adversary that the model lacks', () => {
  const shown = new Set<string>([...courses.map(({ rule }) => rule), 'own-lock', ...Object.keys(inDepth)]);
  expect(guardRules.filter((rule) => !shown.has(rule))).toEqual([]);
});
