import { isolationSteps, restartSteps } from '../isolation-steps.js';
import { stepKind } from './step-kind.js';

/** No gauge of such machines reads further. */
export const MOST_GAUGE_BAR = 1000;

/** A step of the isolation was done; `gauge-zero` carries what the gauge shows. */
export interface IsolateBody {
  readonly kind: 'isolate';
  readonly step: string;
  /** False takes a confirmation back. */
  readonly confirmed: boolean;
  readonly pressureBar?: number | undefined;
  /** How zero was proved while the gauge shows something. */
  readonly provedBy?: string | undefined;
}

const isolate = stepKind<IsolateBody>({
  kind: 'isolate',
  fields: { step: 'text', confirmed: 'flag', pressureBar: 'number?', provedBy: 'text?' },
  text({ step, confirmed, pressureBar, provedBy }, names) {
    const shown = pressureBar === undefined ? '' : `, ${pressureBar} bar`;
    const proved = provedBy === undefined ? '' : ` (${provedBy})`;
    return `${confirmed ? 'Isolated' : 'Isolation taken back'}: ${names.isolationStep(step)}${shown}${proved}`;
  },
  problem({ step }, plate) {
    if (isolationSteps(plate).some(({ code }) => code === step)) return null;
    const sentence = `“${step}” is no step of isolating this machine.`;
    return { code: 'unknown-task', sentence, field: 'details' };
  },
});

/** Power and air are back: whatever was isolated is so no more. */
export interface RestartBody {
  readonly kind: 'restart';
  /** Codes of what was gone through before. */
  readonly steps: readonly string[];
}

const restart = stepKind<RestartBody>({
  kind: 'restart',
  fields: { steps: 'codes' },
  text: () => 'Started again',
  problem({ steps }, plate) {
    const forgotten = restartSteps(plate).filter(({ code }) => !steps.includes(code));
    if (forgotten.length === 0) return null;
    const sentence = `Before it starts: ${forgotten.map(({ name }) => name).join(', ')}.`;
    return { code: 'not-ready', sentence, field: 'details.steps' };
  },
});

/** The joints were looked at under full working pressure. */
export interface TightBody {
  readonly kind: 'tight';
  readonly tight: boolean;
  readonly words?: string | undefined;
}

const tight = stepKind<TightBody>({
  kind: 'tight',
  fields: { tight: 'flag', words: 'text?' },
  text: (body) =>
    body.tight
      ? 'Joints tight under pressure'
      : `It leaks${body.words === undefined ? '' : `: ${body.words}`}`,
});

export const isolatingSteps = [isolate, restart, tight] as const;
