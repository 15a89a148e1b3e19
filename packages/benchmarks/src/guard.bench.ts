import { guardRules, type GuardRule } from '@entretien/core/isolation';
import {
  coupledModel,
  honestMoves,
  receiverModel,
  runCourses,
  search,
  startsOf,
  walk,
  type Model,
} from '@entretien/core/proof';
import seedrandom from 'seedrandom';

const COURSES = Number(process.env.ENTRETIEN_COURSES ?? 50_000);

/** Courses on simulated machines. */
const SIMULATED = Number(process.env.ENTRETIEN_SIMULATED_COURSES ?? 10_000);

/** States at which a search is ended; then it has shown nothing of what lies beyond, and says so. */
const MOST_STATES = 1_500_000;

function report(
  name: string,
  model: Model,
  faults: number,
  more: { deadGauge?: boolean; jail?: boolean } = {},
): void {
  const begun = performance.now();
  const found = search(model, startsOf(model, faults, more.deadGauge), {
    mostStates: MOST_STATES,
    looksForJail: more.jail === true,
  });
  const seconds = (performance.now() - begun) / 1000;
  const { states, transitions, admitting, counterexample, jailed, isCut } = found;
  const text = counterexample === null ? (isCut ? 'none so far' : 'none') : counterexample.join('; ');
  console.log(
    `  ${name}: ${states.toLocaleString('en')} states, ${transitions.toLocaleString('en')} transitions, ${admitting.toLocaleString('en')} admitting${
      more.jail ? `, ${jailed} without an honest way on` : ''
    }${isCut ? ', cut' : ''}, ${seconds.toFixed(0)} s. Opened in danger: ${text}`,
  );
}

/** Random courses on machines with real pressures, each step held against the search. */
function walkAbout(): void {
  const model = receiverModel('one');
  const begun = performance.now();
  const walked = walk(model, startsOf(model, 1), honestMoves, {
    courses: COURSES,
    steps: 14,
    random: seedrandom('guard'),
  });
  const { courses, steps, admitted, unsafe, strange } = walked;
  console.log(
    `  ${courses.toLocaleString('en')} random courses with real pressures, ${steps.toLocaleString('en')} steps, ${admitted.toLocaleString('en')} admitting, ${((performance.now() - begun) / 1000).toFixed(0)} s. Opened in danger: ${unsafe?.join('; ') ?? 'none'}. Steps that the search does not allow: ${strange?.join('; ') ?? 'none'}`,
  );
}

/** Courses of people at simulated machines, who tell what they see: what is let to be opened must be empty. */
function simulated(name: string, liars: 1 | 2, wanted: number): void {
  const begun = performance.now();
  const seed = process.env.ENTRETIEN_GUARD_SEED ?? 'simulated';
  const { courses, steps, admitted, admittedWithLiar, unsafe } = runCourses({
    courses: Math.round(wanted),
    random: seedrandom(seed),
    liars,
  });
  console.log(
    `  ${courses.toLocaleString('en')} courses on simulated machines, ${name}, seed "${seed}": ${steps.toLocaleString('en')} steps, ${admitted.toLocaleString('en')} admitting, ${admittedWithLiar.toLocaleString('en')} of them with a liar in what is opened, ${((performance.now() - begun) / 1000).toFixed(0)} s. Above 0.1 bar or running: ${unsafe.length}`,
  );
  if (unsafe[0]) console.log(unsafe[0].map((line) => `    ${line}`).join('\n'));
}

/**
 * The guard searched through: every course of one or two people at a machine whose vents, gauges and valves may
 * fail, with the guard's own functions. No figure of time is compared: what counts is that nothing is found.
 */
export function guardBench(): void {
  console.log('guard: every course, breadth first');
  report('one person, no fault', receiverModel('one'), 0, { jail: true });
  report('one person, any one fault', receiverModel('one'), 1);
  report('one person, a needle that tells nothing and any one fault', receiverModel('one'), 1, {
    deadGauge: true,
  });
  report('two people, no fault', receiverModel('two'), 0, { jail: true });
  report('two people, any one fault', receiverModel('two'), 1);
  report('two coupled spaces, no fault', { ...coupledModel('one'), isPlain: true, isQuiet: true }, 0, {
    jail: true,
  });
  report('two coupled spaces, any one fault', { ...coupledModel('one'), isPlain: true, isQuiet: true }, 1);
  console.log('  without each rule, one person, any one fault, found empty left out:');
  for (const rule of guardRules) {
    const people = rule === 'own-lock' ? 'two' : 'one';
    const without: readonly GuardRule[] = [rule];
    const deadGauge = rule === 'needle-seen-to-fall';
    report(`  ${rule}`, { ...receiverModel(people, without), isPlain: true }, rule === 'own-lock' ? 0 : 1, {
      deadGauge,
    });
  }
  walkAbout();
  simulated('one liar in a space at the most', 1, SIMULATED);
  simulated('two in one space, which nothing promises', 2, SIMULATED / 5);
  console.log('  two faults at once, which nothing promises:');
  report('  one person', { ...receiverModel('one'), isPlain: true, isQuiet: true }, 2);
}
