import { entryContracts, type Contracts } from '@entretien/contracts';
import { entryKindsOf, entryModules, type EntryKinds, type EntryModule } from '@entretien/core/repairs';

/** The kinds of entry that repairs take, and what each carries. */
export class EntryRegistry {
  readonly kinds: EntryKinds;

  constructor(
    modules: readonly EntryModule[] = entryModules,
    readonly contracts: Contracts = entryContracts,
  ) {
    this.kinds = entryKindsOf(modules);
  }
}
