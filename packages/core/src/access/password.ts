import { err, ok, type Result } from '../basics/index.js';

/** Fewest and most letters of a password: long rather than odd (NIST SP 800-63B, section 5.1.1.2, asks for 8; 64 at least to be taken). */
export const passwordLimits = { fewest: 10, most: 200 } as const;

/** What is tried first by whoever guesses (common practice). */
const COMMON = [
  'password',
  'passwort',
  'motdepasse',
  'qwertz',
  'qwerty',
  'azerty',
  'iloveyou',
  'welcome',
  'compressor',
  'entretien',
  '1234567890',
  '0123456789',
  'abcdefghij',
];

/** A password as it is hashed: the same letters typed on another keyboard are the same password (NFKC). */
export function normalPassword(typed: string): string {
  return typed.normalize('NFKC');
}

/**
 * Whether a password is worth anything.
 *
 * @param own texts that it must not be made of: the name to sign in with, the person’s name
 */
export function admitPassword(typed: string, own: readonly string[]): Result<null> {
  const password = normalPassword(typed);
  const { fewest, most } = passwordLimits;
  const length = [...password].length;
  const refuse = (sentence: string) => err('weak-password', sentence, 'password');
  if (length < fewest)
    return refuse(`A password has at least ${fewest} letters. A few words in a row do well.`);
  if (length > most) return refuse(`A password has at most ${most} letters.`);
  if (new Set(password).size < 4)
    return refuse('That is nearly the same letter all along. Take other words.');
  const bare = password.toLowerCase().replace(/[\d\W_]+$/u, '');
  const plain = password.toLowerCase();
  if (COMMON.some((word) => bare === word || plain === word))
    return refuse('That is among the first that somebody would try. Take a few words of your own.');
  const mine = own.map((text) => text.trim().toLowerCase()).filter((text) => text.length > 2);
  if (mine.some((text) => bare === text || plain === text || plain === text + text))
    return refuse('That is your own name. Take a few words that nobody knows of.');
  return ok(null);
}

/** A name to sign in with as it is compared: without case, and without blanks at its ends. */
export function normalLogin(typed: string): string {
  return typed.normalize('NFKC').trim().toLowerCase();
}
