import { facts } from '@entretien/core/facts';
import type { ModelNoteKind } from '@entretien/core/machine';
import { Column, Entity, Index } from 'typeorm';
import { CompressorFactColumns } from './columns.js';
import { FactTable } from './fact-table.js';

/** What is known of a model, told at one of its machines. */
@FactTable(facts.modelNote)
@Entity('model_note')
@Index('model_note_by_model', ['modelKey'])
export class ModelNoteEntity extends CompressorFactColumns {
  @Column({ name: 'model_key', type: 'text' }) modelKey: string;
  @Column({ type: 'text' }) about: ModelNoteKind;
  @Column({ type: 'text' }) text: string;
}
