import type { CompressorView, SiteView } from '@entretien/contracts';
import { airPressureAt } from '@entretien/core/air';
import { BenchValues } from '@entretien/core/bench';
import type { FieldDefinition } from '@entretien/core/checks';
import { formatQuantity, fromStored, unitByCode, type QuantityKind } from '@entretien/core/quantities';
import { useLayoutEffect, useState } from 'react';
import { usePreferences } from '../../data/preferences.js';
import { useSites, useCompressor } from '../../data/queries.js';
import { readTexts, type CheckTexts } from '../../components/checks/check-entries.js';

/** Longest text that a field puts into the address. */
const LONGEST_TEXT = 2000;

/** What a bench starts from, all of it in its address. */
export interface BenchAddress {
  readonly texts: CheckTexts;
  readonly setText: (code: string, text: string) => void;
  /** Several at once. */
  readonly setTexts: (texts: CheckTexts) => void;
  readonly unit: CompressorView | undefined;
  readonly site: SiteView | undefined;
  /** Pressure of the air: that of the site's height, or one standard atmosphere. */
  readonly atmosphereBarAbs: number;
}

export function useBenchAddress(): BenchAddress {
  const [texts, setState] = useState<CheckTexts>(() => textsOf(window.location.search));
  // Typed faster than the router moves, figures would overtake each other: the address follows by itself, before
  // anything else can happen to the page.
  useLayoutEffect(() => {
    const query = new URLSearchParams(texts).toString();
    const address = `${window.location.pathname}${query === '' ? '' : `?${query}`}`;
    window.history.replaceState(window.history.state, '', address);
  }, [texts]);
  const compressorId = texts['unit'];
  const unit = useCompressor(compressorId);
  const { data: sites = [] } = useSites();
  const setTexts = (more: CheckTexts) => setState((before) => withTexts(before, more));
  const known = compressorId === undefined ? undefined : unit.data;
  const site = known && sites.find(({ id }) => id === known.siteId);
  return {
    texts,
    setText: (code, text) => setTexts({ [code]: text }),
    setTexts,
    unit: known,
    site,
    atmosphereBarAbs: airPressureAt(site?.altitudeM),
  };
}

function textsOf(search: string): CheckTexts {
  return withTexts({}, Object.fromEntries(new URLSearchParams(search)));
}

/** What is empty leaves the address. */
function withTexts(before: CheckTexts, more: CheckTexts): CheckTexts {
  const all = Object.entries({ ...before, ...more });
  return Object.fromEntries(
    all.filter(([, text]) => text !== '').map(([code, text]) => [code, text.slice(0, LONGEST_TEXT)]),
  );
}

/** What stands in the fields of a bench, understood. */
export function useBenchValues(fields: readonly FieldDefinition[], { texts, unit }: BenchAddress) {
  const units = usePreferences((preferences) => preferences.units);
  const { values, problems } = readTexts(fields, texts, units);
  return { values: new BenchValues(fields, values, unit), typed: values, problems };
}

/** Writes quantities in the units that the person reads in. */
export function useFormat(): (value: number, kind: QuantityKind) => string {
  const units = usePreferences((preferences) => preferences.units);
  return (value, kind) => {
    const { figure, unit } = formatQuantity(value, kind, unitByCode(kind, units[kind]));
    return `${figure} ${unit}`;
  };
}

/** A scale in the unit that the person reads in. */
export function useScale(kind: QuantityKind): {
  readonly label: string;
  readonly of: (value: number) => number;
} {
  const units = usePreferences((preferences) => preferences.units);
  const unit = unitByCode(kind, units[kind]);
  return { label: unit.label, of: (value) => fromStored(value, kind, unit) };
}
