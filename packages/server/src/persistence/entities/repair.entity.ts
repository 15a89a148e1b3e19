import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { StepOutcome } from '@entretien/contracts';
import type { EntryKind, FaultSearch, RepairKind } from '@entretien/core/repairs';
import { Column, Entity, Index } from 'typeorm';
import { CompressorFactColumns, CorrectingFactColumns } from './columns.js';

/** A fault that was found, or something that was changed on purpose. */
@FactTable(facts.repair)
@Entity('repair')
@Index('repair_by_unit', ['compressorId', 'foundAt'])
export class RepairEntity extends CompressorFactColumns {
  @Column({ type: 'text' }) kind: RepairKind;
  @Column({ name: 'found_at', type: 'integer' }) foundAt: number;
  @Column({ type: 'text' }) found: string;
  @Column({ type: 'text', nullable: true }) station: string | null;
}

/** Something that was done about a repair. */
@FactTable(facts.repairEntry)
@Entity('repair_entry')
@Index('repair_entry_by_repair', ['repairId', 'at'])
export class RepairEntryEntity extends CorrectingFactColumns {
  @Column({ name: 'repair_id', type: 'text' }) repairId: string;
  @Column({ type: 'text' }) kind: EntryKind;
  @Column({ name: 'at', type: 'integer' }) at: number;
  @Column({ type: 'text' }) text: string;
  @Column({ type: 'real', nullable: true }) minutes: number | null;
  @Column({ type: 'real', nullable: true }) count: number | null;
  @Column({ type: 'text', nullable: true }) part: string | null;
  @Column({ name: 'check_code', type: 'text', nullable: true }) check: string | null;
  @Column({ name: 'figures', type: 'simple-json', nullable: true }) values: Record<
    string,
    number | string
  > | null;
  /** Code of the cause that it names. */
  @Column({ type: 'text', nullable: true }) cause: string | null;
  /** What the fault finder was told. */
  @Column({ type: 'simple-json', nullable: true }) search: FaultSearch | null;
  /** Codes of what the work opened; null where nobody said. */
  @Column({ type: 'simple-json', nullable: true }) opens: string[] | null;
  @Column({ type: 'text', nullable: true }) session: string | null;
  @Column({ type: 'simple-json', nullable: true }) outcome: StepOutcome | null;
}

/** Isolating, or starting again, told of a repair. */
@FactTable(facts.repairStep)
@Entity('repair_step')
@Index('repair_step_by_unit', ['compressorId', 'doneAt'])
export class RepairStepEntity extends CompressorFactColumns {
  @Column({ name: 'repair_id', type: 'text' }) repairId: string;
  @Column({ type: 'text' }) kind: 'isolate' | 'restart';
  @Column({ name: 'done_at', type: 'integer' }) doneAt: number;
  @Column({ type: 'text' }) session: string;
  @Column({ type: 'simple-json' }) details: object;
}
