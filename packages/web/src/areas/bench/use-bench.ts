import type { CompressorView, SiteView } from '@entretien/contracts';
import { ATMOSPHERE_BAR } from '@entretien/core/air';
import { BenchValues } from '@entretien/core/bench';
import type { FieldDefinition } from '@entretien/core/checks';
import { formatQuantity, unitByCode, type QuantityKind } from '@entretien/core/quantities';
import { useSearchParams } from 'react-router';
import { usePreferences } from '../../app/preferences.js';
import { useSites, useUnit } from '../../data/queries.js';
import { readTexts, type CheckTexts } from '../../parts/checks/check-entries.js';
import { atmosphereOf } from '../../parts/checks/use-judged.js';

/** Longest text that a field puts into the address. */
const LONGEST_TEXT = 200;

/** What a bench starts from, all of it in its address. */
export interface BenchAddress {
  readonly texts: CheckTexts;
  readonly setText: (code: string, text: string) => void;
  /** Several at once. */
  readonly setTexts: (texts: CheckTexts) => void;
  readonly unit: CompressorView | undefined;
  readonly site: SiteView | undefined;
  /** Pressure of the air: that of the site's height, or of a height typed. */
  readonly atmosphereBarAbs: number;
}

export function useBenchAddress(): BenchAddress {
  const [search, setSearch] = useSearchParams();
  const unitId = search.get('unit');
  const unit = useUnit(unitId ?? undefined);
  const { data: sites = [] } = useSites();
  const setTexts = (texts: CheckTexts) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [code, text] of Object.entries(texts)) {
          if (text === '') next.delete(code);
          else next.set(code, text.slice(0, LONGEST_TEXT));
        }
        return next;
      },
      { replace: true },
    );
  const known = unitId === null ? undefined : unit.data;
  const site = known && sites.find(({ id }) => id === known.siteId);
  return {
    texts: Object.fromEntries(search),
    setText: (code, text) => setTexts({ [code]: text }),
    setTexts,
    unit: known,
    site,
    atmosphereBarAbs: atmosphereOf(site).atmosphereBarAbs ?? ATMOSPHERE_BAR,
  };
}

/** What stands in the fields of a bench, understood. */
export function useBenchValues(fields: readonly FieldDefinition[], { texts, unit }: BenchAddress) {
  const units = usePreferences((preferences) => preferences.units);
  const { values, problems } = readTexts(fields, texts, units);
  return { values: new BenchValues(fields, values, unit), typed: values, problems };
}

/** Writes quantities in the units that the person reads in. */
export function useSay(): (value: number, kind: QuantityKind) => string {
  const units = usePreferences((preferences) => preferences.units);
  return (value, kind) => {
    const { figure, unit } = formatQuantity(value, kind, unitByCode(kind, units[kind]));
    return `${figure} ${unit}`;
  };
}
