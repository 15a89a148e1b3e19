import { randomBytes } from 'node:crypto';
import type { Options } from '@node-rs/argon2';
import { normalPassword } from '@entretien/core/access';

/** Argon2id, 19 MiB, two rounds, one lane: the least that OWASP's cheat sheet on storing passwords names (memory). */
const COSTS: Options = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Loaded when somebody first signs in: most starts of the server are for those who are signed in already. */
const hasher = () => import('@node-rs/argon2');

export async function hashPassword(typed: string): Promise<string> {
  return (await hasher()).hash(normalPassword(typed), COSTS);
}

let nobodys: Promise<string> | null = null;

/**
 * Whether it is the password; takes as long where there is no account, so that nobody learns which names there are.
 *
 * @param hashed null: of nobody
 */
export async function isPassword(hashed: string | null, typed: string): Promise<boolean> {
  const { hash, verify } = await hasher();
  const against = hashed ?? (await (nobodys ??= hash(randomBytes(32), COSTS)));
  const isRight = await verify(against, normalPassword(typed));
  return isRight && hashed !== null;
}
