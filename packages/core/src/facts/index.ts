import { hourFacts } from './hours.js';
import { workFacts } from './work.js';
import { fillFacts } from './fills.js';
import { followUpFacts } from './follow-ups.js';
import { modelNoteFacts } from './model-notes.js';
import { planningFacts } from './planning.js';
import { pointFacts } from './points.js';
import { visitFacts } from './visits.js';
import { vesselFacts } from './vessels.js';
import { stopFacts } from './stops.js';
import { registerFacts } from './register.js';

export { factKind, type AnyFact, type FactKind, type FactNames } from './fact-kind.js';
export { readingText } from './hours.js';
export { repairEntryFact } from './work.js';
export { visitStepFact } from './visits.js';

/** Every kind of fact, by the name that it is spoken of in code, in the order in which the logbook offers them. */
export const facts = {
  ...hourFacts,
  ...workFacts,
  ...planningFacts,
  ...visitFacts,
  ...fillFacts,
  ...followUpFacts,
  ...modelNoteFacts,
  ...pointFacts,
  ...stopFacts,
  ...vesselFacts,
  ...registerFacts,
} as const;

export const factKinds = Object.values(facts);
