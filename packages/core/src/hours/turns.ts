/** A set on a network that several feed. */
export interface NetworkSet {
  readonly id: string;
  readonly tag: string;
  readonly turn: 'lead' | 'standby' | null;
  /** Continuous run hours; null where nobody knows. */
  readonly runHours: number | null;
  /** Whether it must not be used now. */
  readonly isStopped: boolean;
}

/** How the sets of a network share its hours. */
export interface NetworkTurns {
  /** Which should run first next; null where the one that leads goes on, or where it cannot be said. */
  readonly next: string | null;
  readonly sentence: string;
}

/** Apart by less than the larger of these, hours are even: a change every day wears switches and belts (common practice). */
const APART = { hours: 100, share: 0.05 } as const;

/**
 * Which set of a network runs first, so that their hours stay even. A set that is out of service leads nothing.
 *
 * @returns null for a network of one
 */
export function networkTurns(sets: readonly NetworkSet[]): NetworkTurns | null {
  if (sets.length < 2) return null;
  const leads = sets.filter(({ turn }) => turn === 'lead');
  const [lead] = leads;
  if (leads.length > 1)
    return {
      next: null,
      sentence: `${leads.map(({ tag }) => tag).join(' and ')} are both set down as lead: only one starts first.`,
    };
  const fit = sets.filter(({ isStopped }) => !isStopped);
  if (fit.length === 0) return { next: null, sentence: 'None of its sets may run.' };
  if (lead?.isStopped) {
    const least = leastRun(fit) ?? fit[0]!;
    return { next: least.id, sentence: `${lead.tag} leads, and is out of service: ${least.tag} takes over.` };
  }
  if (fit.length === 1) return { next: null, sentence: `${fit[0]!.tag} is the only one that may run.` };
  const unknown = fit.find(({ runHours }) => runHours === null);
  if (unknown) return { next: null, sentence: `Nobody knows the hours of ${unknown.tag}: read them first.` };
  const least = leastRun(fit)!;
  if (!lead) return { next: least.id, sentence: `No lead is set down: ${least.tag} has run least.` };
  const apart = lead.runHours! - least.runHours!;
  const isEven = apart <= Math.max(APART.hours, APART.share * lead.runHours!);
  return isEven
    ? { next: null, sentence: `${lead.tag} leads: their hours are even.` }
    : {
        next: least.id,
        sentence: `${least.tag} leads next: it has run ${Math.round(apart)} h less than ${lead.tag}.`,
      };
}

function leastRun(sets: readonly NetworkSet[]): NetworkSet | undefined {
  return sets
    .filter(({ runHours }) => runHours !== null)
    .sort((one, other) => one.runHours! - other.runHours! || (one.tag < other.tag ? -1 : 1))[0];
}

/** Whether two names are those of one network, however they were typed. */
export function isSameNetwork(one: string | null | undefined, other: string | null | undefined): boolean {
  const plain = (name: string | null | undefined) =>
    (name ?? '')
      .trim()
      .toLowerCase()
      .replace(/[\s-]+/g, ' ');
  return plain(one) !== '' && plain(one) === plain(other);
}
