/*
 * What fields and codes were called up to release 0.3. For one release more they are read as what they are called
 * now: devices that stayed behind send them, and plan files that somebody keeps hold them.
 */

/** Fields by their former names. */
const formerFields: Readonly<Record<string, string>> = {
  words: 'text',
  told: 'informed',
  putOffAt: 'deferredAt',
  holdingBar: 'maintainingValveBar',
  takesG: 'moistureCapacityG',
  cartridgeTakesG: 'moistureCapacityG',
};

/** Codes of checks by their former names. */
export const formerChecks: Readonly<Record<string, string>> = {
  'loaded-share': 'leak-load-cycle',
  'loaded-hours': 'load-factor',
};

/** Parts of the paths of the API by their former names: answered with where they are now. */
export const formerPaths: Readonly<Record<string, string>> = { 'put-offs': 'deferrals' };

/** Fields that hold the code of a check, or a list of them. */
const holdCheck = new Set(['check', 'verifiedBy']);

/**
 * Whatever was sent, in today's names: fields at any depth, and codes of checks where one stands. What has both
 * names keeps what stands under the one of today.
 */
export function inNamesOfToday(sent: unknown, field = ''): unknown {
  if (Array.isArray(sent)) return sent.map((one) => inNamesOfToday(one, field));
  if (typeof sent === 'string') return holdCheck.has(field) ? nameOfToday(formerChecks, sent) : sent;
  if (typeof sent !== 'object' || sent === null) return sent;
  const known = Object.keys(sent);
  return Object.fromEntries(
    Object.entries(sent).flatMap(([name, value]) => {
      const today = nameOfToday(formerFields, name);
      return today !== name && known.includes(today) ? [] : [[today, inNamesOfToday(value, today)]];
    }),
  );
}

function nameOfToday(former: Readonly<Record<string, string>>, name: string): string {
  return Object.hasOwn(former, name) ? former[name]! : name;
}
