import { randomBytes, randomUUID } from 'node:crypto';
import { cpSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Accounts, createApp, hashPassword, SESSION_COOKIE, Sessions } from '@entretien/server';
import { byTurns, report } from './measure.js';
import { DAY, lastFigures, seed } from './seed.js';
import { BenchServer } from './servers.js';

const PASSWORD = 'drain the old tank';
const [BLOCK, ROUNDS] = [100, 15];
const FORGED = 10_000;

/** Sessions of one account: one that is good, one that was ended, one too old by the server’s clock. */
interface Secrets {
  readonly good: string;
  readonly ended: string;
  readonly expired: string;
}

async function withAccounts(dataDir: string, now: number): Promise<Secrets> {
  let clock = now - 40 * DAY;
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC' };
  const app = await createApp({ settings, clock: () => clock });
  await app.init();
  const accounts = app.get(Accounts);
  const sessions = app.get(Sessions);
  const code = accounts.codeOfFirst()!;
  const { id } = await accounts.first({ code, name: 'Lena Orvik', login: 'lena', password: PASSWORD });
  const expired = sessions.begin(id, 'bench').secret;
  clock = now;
  const ended = sessions.begin(id, 'bench');
  sessions.end(ended.session.id);
  const good = sessions.begin(id, 'bench').secret;
  await app.close();
  return { good, ended: ended.secret, expired };
}

/** What signing in costs, and what it keeps out. */
export async function accessBench(dataDir: string, now: number): Promise<void> {
  const [ruled, opened] = [join(dataDir, 'ruled'), join(dataDir, 'opened')];
  mkdirSync(ruled);
  await seed(ruled, 20, 100, now);
  cpSync(ruled, opened, { recursive: true });
  const secrets = await withAccounts(ruled, now);
  const withRights = await BenchServer.start('app', ruled, now);
  const without = await BenchServer.start('app', opened, now);
  await postingWithSession(withRights, without, ruled, secrets, now);
  await signingIn(withRights);
  await forged(withRights, secrets);
  await withRights.stop();
  await without.stop();
}

async function postingWithSession(
  withRights: BenchServer,
  without: BenchServer,
  dataDir: string,
  { good }: Secrets,
  now: number,
): Promise<void> {
  const figures = lastFigures(dataDir);
  const units = [...figures.keys()];
  const cookie = { Cookie: `${SESSION_COOKIE}=${good}` };
  let count = 0;
  const block = async (server: BenchServer, headers: Readonly<Record<string, string>>) => {
    const start = performance.now();
    for (let index = 0; index < BLOCK; index++) {
      count += 1;
      const unit = units[index % units.length]!;
      const takenAt = new Date(now - 2 * DAY + count * 10_000).toISOString();
      const hours = figures.get(unit)! + count / 1000;
      const reading = { id: randomUUID(), takenAt, hours, counts: 'total', source: 'typed' };
      const { status, text } = await server.call(
        'POST',
        `/api/compressors/${unit}/readings`,
        reading,
        headers,
      );
      if (status !== 201) throw new Error(`${status}: ${text}`);
    }
    return performance.now() - start;
  };
  const [ours, theirs] = [() => block(withRights, cookie), () => block(without, {})];
  await ours();
  await theirs();
  const { first: bareTime, second: ourTime, ratio } = await byTurns(ROUNDS, theirs, ours);
  const rate = (time: number) => ((BLOCK / time) * 1000).toFixed(0);
  report(
    'Posting readings with a session over without accounts',
    ratio,
    ratio >= 0.9,
    '≥ 0.9',
    `${rate(ourTime)} readings a second over ${rate(bareTime)} (medians of ${ROUNDS} blocks of ${BLOCK} by turns).`,
  );
}

/** A login over HTTP against the hash alone, each in the process that would do it. */
async function signingIn(server: BenchServer): Promise<void> {
  const login = async () => {
    const start = performance.now();
    const { status, text } = await server.call('POST', '/api/sign-in', { login: 'lena', password: PASSWORD });
    if (status !== 201) throw new Error(`${status}: ${text}`);
    return performance.now() - start;
  };
  const hash = async () => {
    const start = performance.now();
    await hashPassword(PASSWORD);
    return performance.now() - start;
  };
  await login();
  await hash();
  const { first: hashTime, second: loginTime, ratio } = await byTurns(31, hash, login);
  report(
    'A login over HTTP over the hash alone',
    1 / ratio,
    1 / ratio <= 1.5,
    '≤ 1.5',
    `${loginTime.toFixed(1)} ms over ${hashTime.toFixed(1)} ms (medians of 31 by turns; Argon2id, 19 MiB, two rounds).`,
  );
}

const PATHS = ['/api/sites', '/api/standings', '/api/accounts', '/api/audit', '/api/own', '/api/me/sessions'];

/** Made up, of a kind that nearly is one, ended, too old, in the wrong place: none of them lets anybody in. */
async function forged(server: BenchServer, { good, ended, expired }: Secrets): Promise<void> {
  const flipped = () => {
    const at = Math.floor(Math.random() * good.length);
    return good.slice(0, at) + (good[at] === 'A' ? 'B' : 'A') + good.slice(at + 1);
  };
  const tries: readonly (() => Readonly<Record<string, string>>)[] = [
    () => ({}),
    () => ({ Cookie: `${SESSION_COOKIE}=${randomBytes(32).toString('base64url')}` }),
    () => ({ Cookie: `${SESSION_COOKIE}=${flipped()}` }),
    () => ({ Cookie: `${SESSION_COOKIE}=${good.slice(0, -1)}` }),
    () => ({ Cookie: `${SESSION_COOKIE}=${ended}` }),
    () => ({ Cookie: `${SESSION_COOKIE}=${expired}` }),
    () => ({ Cookie: `session=${good}` }),
    () => ({ Authorization: `Bearer ${good}` }),
    () => ({ 'Entretien-Person': randomUUID(), 'X-Forwarded-For': '127.0.0.1' }),
  ];
  let letIn = 0;
  for (let index = 0; index < FORGED; index++) {
    const headers = tries[index % tries.length]!();
    const { status } = await server.call('GET', PATHS[index % PATHS.length]!, undefined, headers);
    if (status !== 401) letIn += 1;
  }
  const { status } = await server.call('GET', PATHS[0]!, undefined, { Cookie: `${SESSION_COOKIE}=${good}` });
  if (status !== 200) throw new Error(`The good one was refused too: ${status}.`);
  report(
    'Forged, ended and expired sessions that were let in',
    letIn,
    letIn === 0,
    '0',
    `${FORGED} requests.`,
  );
}
