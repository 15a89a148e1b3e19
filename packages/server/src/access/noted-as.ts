import { SetMetadata } from '@nestjs/common';

/** What the audit tells of. */
export type Audited =
  | 'signed in'
  | 'sign-in refused'
  | 'signed out'
  | 'first lead'
  | 'invited'
  | 'invitation withdrawn'
  | 'account made'
  | 'rights changed'
  | 'account closed'
  | 'session ended'
  | 'password changed'
  | 'passkey added'
  | 'passkey removed'
  | 'customer changed'
  | 'site changed'
  | 'plan changed'
  | 'stock changed'
  | 'device changed'
  | 'people changed'
  | 'settings changed'
  | 'exported'
  | 'backed up'
  | 'name removed'
  | 'restored';

export const AUDITED = 'entretien:audited';

/** What of a route the audit tells, once it was done: what it was about is found by the ids in its address. */
export function NotedAs(what: Audited) {
  return SetMetadata(AUDITED, what);
}
