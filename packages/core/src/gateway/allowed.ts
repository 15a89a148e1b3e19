import { err, ok, type Result } from '../basics/index.js';

/** An address that devices may be asked at; any port where none is named. */
export interface AllowedAddress {
  readonly host: string;
  readonly port: number | null;
}

const MOST_ADDRESSES = 500;
const IPV4 = /^(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/;

/** An address by numbers. Names are not taken: whoever answers for a name may change its mind. */
export function isHostAddress(text: string): boolean {
  const parts = IPV4.exec(text)?.slice(1).map(Number);
  return parts !== undefined && parts.every((part) => part <= 255) && parts[0] !== 0;
}

/** Reads a list of addresses: `192.0.2.7, 192.0.2.8:502`. */
export function readAllowed(text: string): Result<readonly AllowedAddress[]> {
  const found: AllowedAddress[] = [];
  for (const one of text.split(',').map((part) => part.trim())) {
    if (one === '') continue;
    const [host = '', port, more] = one.split(':');
    const number = port === undefined ? null : Number(port);
    const isPort = number === null || (/^\d{1,5}$/.test(port!) && number >= 1 && number <= 65_535);
    if (more !== undefined || !isHostAddress(host) || !isPort)
      return err(
        'bad-address',
        `${one.slice(0, 60)} is no address by numbers, like 192.0.2.7 or 192.0.2.7:502.`,
      );
    found.push({ host, port: number });
  }
  if (found.length > MOST_ADDRESSES)
    return err('too-many', `No more than ${MOST_ADDRESSES} addresses may be named.`);
  return ok(found);
}

export function isAllowed(allowed: readonly AllowedAddress[], host: string, port: number): boolean {
  return allowed.some((one) => one.host === host && (one.port === null || one.port === port));
}
