import { createHash, randomBytes } from 'node:crypto';

/** A secret that nobody guesses: 256 bits. */
export function newSecret(): string {
  return randomBytes(32).toString('base64url');
}

/** What is stored of a secret. It is as random as it is long: a plain hash cannot be searched for it. */
export function hashOfSecret(secret: string): string {
  return createHash('sha256').update(secret).digest('base64url');
}
