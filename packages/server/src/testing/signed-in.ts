import { randomUUID } from 'node:crypto';
import type { Role } from '@entretien/core/access';
import { Accounts } from '../access/accounts.js';
import { expectStatus, type Answer, type TestServer } from './test-server.js';

export const PASSWORD = 'drain the old tank';

/** What a browser that is signed in sends along. */
export type Cookie = Record<string, string>;

/** The cookie that an answer sets. */
export function cookieOf({ headers }: Answer): Cookie {
  const [set] = [(headers as unknown as { 'set-cookie'?: string[] })['set-cookie'] ?? []].flat();
  return { Cookie: (set ?? '').split(';')[0]! };
}

/** Turns rights on, and signs the first lead in. */
export async function firstLead(server: TestServer, name = 'Lena Orvik'): Promise<Cookie> {
  const code = server.get(Accounts).codeOfFirst()!;
  const answer = await server.post('/api/accounts/first', {
    code,
    name,
    login: loginOf(name),
    password: PASSWORD,
  });
  expectStatus(201, answer);
  return cookieOf(answer);
}

/** Somebody is invited by a lead, takes it, and is signed in. */
export async function invited(
  server: TestServer,
  lead: Cookie,
  role: Role,
  more: {
    readonly name?: string;
    readonly customerId?: string;
    readonly seesPrices?: boolean;
    readonly personId?: string;
  } = {},
): Promise<{ readonly cookie: Cookie; readonly account: Answer['body'] }> {
  const name = more.name ?? `Some ${role} ${randomUUID().slice(0, 6)}`;
  const invitation = await server.post('/api/invitations', { id: randomUUID(), role, ...more, name }, lead);
  expectStatus(201, invitation);
  const { code } = invitation.body;
  const answer = await server.post('/api/invitations/accept', {
    code,
    login: loginOf(name),
    password: PASSWORD,
  });
  expectStatus(201, answer);
  return { cookie: cookieOf(answer), account: answer.body };
}

export function loginOf(name: string): string {
  return name.toLowerCase().replaceAll(' ', '.');
}
