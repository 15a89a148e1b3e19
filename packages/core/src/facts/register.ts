import type { Instant } from '../basics/index.js';
import { listed } from '../visit/index.js';
import { factKind } from './fact-kind.js';

/** What becomes known of sites, compressors, plans and parts: on record, and in no line of the logbook. */
function papers<Fact extends object>(kind: string, content: readonly (keyof Fact & string)[]) {
  return factKind<Fact>({ kind, content, at: ({ recordedAt }) => recordedAt });
}

const compressor = papers<{ plate: object }>('compressor', ['plate']);

const site = papers<{
  name: string;
  timeZone: string;
  altitudeM: number | null;
  address: string | null;
  contact: string | null;
}>('site', ['name', 'timeZone', 'altitudeM', 'address', 'contact']);

/** Somebody whose machines are looked after. */
const customer = papers<{ name: string }>('customer', ['name']);

const siteChange = papers<{ siteId: string; changes: object }>('site-change', ['siteId', 'changes']);

const part = papers<{
  number: string;
  name: string;
  class: string;
  answers: string;
  fits: readonly string[];
  figures: object;
  priceCents: number | null;
  supplier: string | null;
  contents: string | null;
  leadDays: number | null;
  secondSource: string | null;
}>('part', [
  ...(['number', 'name', 'class', 'answers', 'fits', 'figures', 'priceCents', 'supplier'] as const),
  ...(['contents', 'leadDays', 'secondSource'] as const),
]);

const partChange = papers<{ partId: string; changes: object }>('part-change', ['partId', 'changes']);

const partMove = factKind<{
  partId: string;
  movedAt: Instant;
  thousandths: number;
  usedIn: string | null;
}>({
  kind: 'part-move',
  content: ['partId', 'movedAt', 'thousandths', 'usedIn'],
  at: ({ movedAt }) => movedAt,
});

interface PlateChange {
  readonly compressorId: string;
  readonly changedAt: Instant;
  readonly changes: object;
}

/** `workingPressureBar` → “working pressure bar” */
function fieldName(field: string): string {
  return field.replace(/([A-Z])/g, ' $1').toLowerCase();
}

const plateChange = factKind<PlateChange>({
  kind: 'plate-change',
  title: 'Data plate',
  content: ['compressorId', 'changedAt', 'changes'],
  at: ({ changedAt }) => changedAt,
  text: ({ changes }) =>
    `Data plate: ${listed(
      Object.entries(changes).map(
        ([field, value]) => `${fieldName(field)} ${value === null ? 'unknown' : String(value)}`,
      ),
    )}`,
});

interface Withdrawal {
  readonly compressorId: string;
  readonly factId: string;
  readonly reason: string;
}

const withdrawal = factKind<Withdrawal>({
  kind: 'withdrawal',
  title: 'Withdrawn',
  content: ['compressorId', 'factId', 'reason'],
  at: ({ recordedAt }) => recordedAt,
  text: ({ reason }) => `Withdrawn: ${reason}`,
});

/** What is known of the machines, the sites and the parts. */
export const registerFacts = {
  compressor,
  site,
  customer,
  siteChange,
  part,
  partChange,
  partMove,
  plateChange,
  withdrawal,
} as const;
