import {
  pointOf,
  pointRestartSteps,
  restartSteps,
  STILL,
  type IsolateBody,
  type RestartBody,
} from '../../isolation/index.js';
import type { DataPlate } from '../../machine/index.js';
import { stepKind } from './step-kind.js';

/** Steps of releases up to 0.2: their facts are on record, and devices that stayed behind still send them. */
const BEFORE_SPACES = new Set([
  'lock-out',
  'close-network',
  'close-storage',
  'shut-water',
  'open-drains',
  'gauge-zero',
  'cool',
]);

const answerText: Readonly<Record<string, string>> = {
  passes: 'opened, air passes',
  silent: 'silent',
  'found-empty': 'opened, found empty',
  nothing: 'opened, nothing comes',
  'keeps-coming': 'keeps coming',
  stuck: 'will not move',
  'no-such-vent': 'has no vent',
  'second-opening': 'a second opening silent too',
  'second-gauge': 'a second gauge at zero',
  'let-in': 'air let in, passes and stops',
  'seen-free': 'bore seen free',
  stood: 'stood after everything else was silent',
  'is-fed': 'something comes again',
};

const needleText: Readonly<Record<string, string>> = {
  fell: 'needle fell',
  stood: 'needle stood at zero before',
  rises: 'needle rises',
};

const isolate = stepKind<IsolateBody>({
  kind: 'isolate',
  fields: {
    step: 'text',
    confirmed: 'flag',
    tile: 'text?',
    answer: 'text?',
    needle: 'text?',
    pressureBar: 'number?',
    tempC: 'number?',
    isSure: 'flag?',
    provedBy: 'text?',
  },
  text({ step, confirmed, tile, answer, needle, pressureBar, provedBy }, names) {
    const place = tile === undefined ? '' : ` (${names.isolationTile(step, tile)})`;
    const parts = [
      answer === undefined ? '' : (answerText[answer] ?? ''),
      needle === undefined ? '' : (needleText[needle] ?? ''),
      pressureBar === undefined ? '' : `${pressureBar} bar`,
    ].filter(Boolean);
    const shown = parts.length === 0 ? '' : `, ${parts.join(', ')}`;
    const proved = provedBy === undefined ? '' : ` (${provedBy})`;
    return `${confirmed ? 'Isolated' : 'Isolation taken back'}: ${names.isolationStep(step)}${place}${shown}${proved}`;
  },
  problem(body, plate) {
    const { step } = body;
    if (step === STILL || pointOf(plate, step) || BEFORE_SPACES.has(step)) return null;
    const sentence = `“${step}” is no step of isolating this machine.`;
    return { code: 'unknown-task', sentence, field: 'details' };
  },
});

const restart = stepKind<RestartBody>({
  kind: 'restart',
  fields: { steps: 'codes', scope: 'text?' },
  text: ({ scope }) => (scope === 'point' ? 'Point of use: air back' : 'Started again'),
  problem(body, plate) {
    const forgotten = stepsBefore(body, plate).filter(({ code }) => !body.steps.includes(code));
    if (forgotten.length === 0) return null;
    const sentence = `Before it starts: ${forgotten.map(({ name }) => name).join(', ')}.`;
    return { code: 'not-ready', sentence, field: 'details.steps' };
  },
});

function stepsBefore({ scope }: RestartBody, plate: DataPlate) {
  return scope === 'point' ? pointRestartSteps : restartSteps(plate);
}

/** The joints were looked at under full working pressure. */
export interface LeakCheckBody {
  readonly kind: 'tight';
  readonly tight: boolean;
  readonly text?: string | undefined;
}

const tight = stepKind<LeakCheckBody>({
  kind: 'tight',
  fields: { tight: 'flag', text: 'text?' },
  text: (body) =>
    body.tight ? 'Joints tight under pressure' : `It leaks${body.text === undefined ? '' : `: ${body.text}`}`,
});

export const isolatingSteps = [isolate, restart, tight] as const;
