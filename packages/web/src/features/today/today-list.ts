import { describeDay, formatNumber } from '@entretien/core/basics';
import type { FleetStandingView, FleetCompressorView } from '@entretien/contracts';
import type { TaskState } from '@entretien/core/plan';

export interface SiteGroup {
  readonly siteId: string;
  readonly siteName: string;
  readonly units: readonly FleetCompressorView[];
}

/** Units under their sites, each in the order of urgency that the fleet came in. */
export function groupBySite(units: readonly FleetCompressorView[]): SiteGroup[] {
  const groups = new Map<string, FleetCompressorView[]>();
  for (const unit of units) {
    const group = groups.get(unit.siteId);
    if (group) group.push(unit);
    else groups.set(unit.siteId, [unit]);
  }
  return [...groups].map(([siteId, of]) => ({ siteId, siteName: of[0]!.siteName, units: of }));
}

/** The day in two sentences: what is late, what comes, and where to go first. */
export function headline(
  { compressorsByState, overdueSites }: Pick<FleetStandingView, 'compressorsByState' | 'overdueSites'>,
  firstSite: string,
): { readonly lead: string; readonly rest: string } {
  const { overdue, due, nearing } = compressorsByState;
  const parts = [due > 0 ? `${due} due` : '', nearing > 0 ? `${nearing} nearing` : ''].filter(Boolean);
  if (overdue === 0)
    return { lead: 'Nothing is late.', rest: parts.length > 0 ? `${parts.join(', ')}.` : '' };
  const lead = overdue === 1 ? '1 unit is late' : `${formatNumber(overdue)} units are late`;
  const where = overdueSites === 1 ? 'at one site' : `at ${formatNumber(overdueSites)} sites`;
  const others = parts.length > 0 ? `, ${parts.join(', ')}` : '';
  return { lead, rest: `${where}${others}. ${firstSite} comes first.` };
}

const MOST_STALE = 6;

/** Machines whose dates have grown vague for want of a reading, the vaguest first; never read comes before all. */
export function compressorsToRead(units: readonly FleetCompressorView[]): FleetCompressorView[] {
  const doubt = ({ readingNeed }: FleetCompressorView) =>
    readingNeed?.daysSince === null ? Infinity : (readingNeed?.spreadDays ?? readingNeed?.daysSince ?? 0);
  return units
    .filter(({ readingNeed }) => readingNeed !== null)
    .sort((a, b) => doubt(b) - doubt(a))
    .slice(0, MOST_STALE);
}

/** Why a machine's hours should be read: "no reading for 41 days; forecast has become ±12 days". */
export function describeReadingNeed({
  daysSince,
  spreadDays,
}: NonNullable<FleetCompressorView['readingNeed']>): string {
  if (daysSince === null) return 'never read';
  const since = `no reading for ${Math.floor(daysSince)} days`;
  return spreadDays === null ? since : `${since}; forecast has become ±${Math.round(spreadDays)} days`;
}

export interface WaitingWork {
  readonly name: string;
  /** The most pressing state that it has anywhere. */
  readonly state: TaskState;
  /** On how many units it waits. */
  readonly count: number;
}

const pressing: readonly TaskState[] = ['overdue', 'due', 'nearing'];
const MOST_WORK = 9;

/** The kinds of work that are late, due or nearing, the most pressing and then the most frequent first. */
export function waitingWork(units: readonly FleetCompressorView[]): WaitingWork[] {
  const kinds = new Map<string, WaitingWork>();
  for (const { name, state, coveredBy } of units.flatMap((unit) => unit.tasks)) {
    if (!pressing.includes(state) || coveredBy !== null) continue;
    const known = kinds.get(name);
    const worse = known && pressing.indexOf(known.state) < pressing.indexOf(state) ? known.state : state;
    kinds.set(name, { name, state: worse, count: (known?.count ?? 0) + 1 });
  }
  return [...kinds.values()]
    .sort((a, b) => pressing.indexOf(a.state) - pressing.indexOf(b.state) || b.count - a.count)
    .slice(0, MOST_WORK);
}

/** Machines whose use changed of late so that something falls due sooner, the soonest first. */
export function compressorsUsedMore(units: readonly FleetCompressorView[]): FleetCompressorView[] {
  return units
    .filter(({ useWarning }) => useWarning?.pulls)
    .sort((a, b) => (a.useWarning!.pulls!.likelyOn < b.useWarning!.pulls!.likelyOn ? -1 : 1));
}

/** What a change of use pulls nearer. */
export function describeUseWarning({ text, pulls }: NonNullable<FleetCompressorView['useWarning']>): string {
  if (!pulls) return `${text}.`;
  const { name, likelyOn, wouldBeOn } = pulls;
  return `${text}: ${name} about ${describeDay(likelyOn)}, not ${describeDay(wouldBeOn)}.`;
}
