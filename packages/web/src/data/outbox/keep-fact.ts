import { currentInstant } from '../clock.js';
import { usePreferences } from '../preferences.js';
import { putInOutbox } from './outbox.js';
import type { OutboxItem } from './outbox-item.js';

/** What the tray says of a fact that waits for a connection. */
export interface Waiting extends Pick<OutboxItem, 'tag' | 'timeZone'> {
  readonly text: string;
  /** The page that it was recorded on. */
  readonly page: string;
}

/** Keeps a fact that the server could not be told of: it is sent as soon as there is a connection. */
export function keepFact(path: string, body: { readonly id: string }, waiting: Waiting): Promise<void> {
  return putInOutbox({
    id: body.id,
    kind: 'fact',
    compressorId: '',
    siteId: '',
    personId: usePreferences.getState().personId,
    path,
    body: body as unknown as Record<string, unknown>,
    queuedAt: currentInstant(),
    problem: null,
    ...waiting,
  });
}
