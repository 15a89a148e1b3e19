import type { Hands, Tried } from '../exercise.js';

const minutesText = (seconds: number) => `${Math.max(1, Math.round(seconds / 60))} min`;

/** Switched on as it should run. */
function start({ simulation }: Hands): void {
  simulation.press('reset');
  simulation.press('power-on');
  simulation.press('start');
}

/** Lets it run until something is so, it stops by itself, or the time is over: the seconds that it took. */
function runUntil(hands: Hands, isThere: () => boolean, withinMinutes: number, stepS: number): number {
  const from = hands.seconds;
  while (!isThere() && hands.seconds - from < 60 * withinMinutes) {
    const before = hands.seconds;
    hands.pass(stepS);
    if (hands.simulation.see().trip !== null || hands.seconds === before) break;
  }
  return hands.seconds - from;
}

/**
 * Let down to six tenths and pumped up again by itself: it has to switch itself off, in time.
 *
 * @param offBar what its switch opens at, bar
 */
export function pumpsUp(hands: Hands, offBar: number, withinMinutes: number): Tried {
  const { simulation } = hands;
  simulation.put('receiver', Math.min(0.6 * offBar, simulation.trueBar('receiver')));
  start(hands);
  const isThere = () => simulation.see().drive === 'off' && simulation.trueBar('receiver') > 0.9 * offBar;
  const seconds = runUntil(hands, isThere, withinMinutes, 5);
  const { trip } = simulation.see();
  const bar = simulation.trueBar('receiver').toFixed(1);
  if (trip !== null)
    return { isMet: false, text: `Pumped up: it stopped by itself (${trip}) at ${bar} bar.` };
  if (!isThere())
    return {
      isMet: false,
      text: `Pumped up: after ${minutesText(seconds)} it stands at ${bar} bar and runs on.`,
    };
  return {
    isMet: true,
    text: `Pumped up from six tenths: off by itself at ${bar} bar after ${minutesText(seconds)}.`,
  };
}

/** Runs on under load for so long, without stopping by itself and no hotter than that. */
export function runsCool(hands: Hands, minutes: number, mostC: number): Tried {
  const { simulation } = hands;
  start(hands);
  hands.pass(60);
  if (simulation.see().drive !== 'off') hands.pass(60 * (minutes - 1));
  const { trip, drive } = simulation.see();
  if (trip === null && drive === 'off')
    return {
      isMet: false,
      text: 'It does not start: what is left in the vessel holds the start back.',
    };
  const tempC = Math.round(simulation.machine.thermometers.find(({ code }) => code === 'outlet')!.tempC());
  if (trip !== null) return { isMet: false, text: `Run under load: it stopped by itself (${trip}).` };
  return {
    isMet: tempC <= mostC,
    text: `Run ${minutes} min under load: ${tempC} °C at the outlet of the airend.`,
  };
}

/** A high-pressure set run up from a pressure to another, everything behind it shut. */
export function fills(hands: Hands, toBar: number, withinMinutes: number): Tried {
  const { simulation } = hands;
  for (const code of [
    'valve-bank-1',
    'valve-bank-2',
    'vent-panel',
    'bleed-tower',
    'drain-1',
    'drain-2',
    'drain-3',
  ])
    if (simulation.machine.turnables.has(code)) simulation.turn(code, 0);
  start(hands);
  const isThere = () => simulation.trueBar('tower') >= toBar;
  const seconds = runUntil(hands, isThere, withinMinutes, 2);
  const isMet = isThere();
  const bar = Math.round(simulation.trueBar('tower'));
  simulation.press('stop');
  return {
    isMet,
    text: isMet
      ? `Run up: ${bar} bar behind the last stage after ${seconds} s.`
      : `Run up: after ${minutesText(seconds)} it stands at ${bar} bar.`,
  };
}
