import { lazy, type ComponentType } from 'react';
import { benches as list, type BenchEntry } from '@entretien/core/bench';

const pages = import.meta.glob<Readonly<Record<string, ComponentType>>>('./tools/*.tsx');

function withPage({ code, name, page }: BenchEntry) {
  const Tool = lazy(async () => ({ default: (await pages[`./tools/${page}.tsx`]!())[page]! }));
  return { code, name, Tool };
}

const [first, ...others] = list;

/** Every bench with its page, fetched when it is opened. */
export const benches = [withPage(first), ...others.map(withPage)] as const;
