import { stepContracts, type Contracts } from '@entretien/contracts';
import { stepKindsOf, stepModules, type StepKinds, type StepModule } from '@entretien/core/visit';

/** The kinds of step that an application takes, and what each carries. */
export class StepRegistry {
  readonly kinds: StepKinds;

  constructor(
    modules: readonly StepModule[] = stepModules,
    readonly contracts: Contracts = stepContracts,
  ) {
    this.kinds = stepKindsOf(modules);
  }
}
