import { modelNoteNames, type ModelNoteKind } from '../machine/index.js';
import { factKind } from './fact-kind.js';

interface ModelNote {
  readonly compressorId: string;
  /** What its sisters have in common, as the plate said then. */
  readonly modelKey: string;
  readonly about: ModelNoteKind;
  readonly text: string;
}

const modelNote = factKind<ModelNote>({
  kind: 'model-note',
  title: 'Notes on the model',
  content: ['compressorId', 'modelKey', 'about', 'text'],
  at: ({ recordedAt }) => recordedAt,
  collection: 'model-notes',
  text: ({ about, text }) => `Of this model. ${modelNoteNames[about]}: ${text}`,
});

/** What is known of a model, told at one of its machines. */
export const modelNoteFacts = { modelNote } as const;
