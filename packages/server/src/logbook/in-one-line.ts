import type { LogbookEntryView } from '@entretien/contracts';

type Led = LogbookEntryView & { readonly lead: string | null };

/**
 * Lines that follow each other on one unit, by one person, and begin alike become one: a machine is isolated in six
 * steps, and that is one thing to read. The latest comes first in a list, and what happened is read forward.
 */
export function inOneLine(entries: readonly Led[]): LogbookEntryView[] {
  const lines: Led[] = [];
  for (const entry of entries) {
    const later = lines.at(-1);
    if (later === undefined || !belongTogether(later, entry)) {
      lines.push(entry);
      continue;
    }
    const rest = later.text.slice(`${entry.lead}: `.length);
    lines[lines.length - 1] = { ...entry, text: `${entry.text}; ${rest}` };
  }
  return lines.map(({ lead: _lead, ...entry }) => entry);
}

function belongTogether(later: Led, entry: Led): boolean {
  return (
    entry.lead !== null &&
    entry.lead === later.lead &&
    entry.compressorId === later.compressorId &&
    entry.by === later.by &&
    !entry.voided &&
    !later.voided
  );
}
