import { RecordReading } from '@entretien/contracts';
import { idOf } from '../testing/facts.js';
import { ApiProblem, getJson, postJson, putJson, sentenceOf, Unreachable } from './api.js';
import { refuseMalformed } from './refuse-malformed.js';

interface Asked {
  readonly url: string;
  readonly init: RequestInit;
}

function serverThat(answers: (asked: Asked) => Response | Promise<Response>): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = (async (url: string, init: RequestInit) => {
    asked.push({ url, init });
    return answers({ url, init });
  }) as unknown as typeof fetch;
  return asked;
}

const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });

test('what is asked goes to the API, and comes back as it is', async () => {
  const asked = serverThat(() => json({ items: [1] }));
  expect(await getJson('/sites')).toEqual({ items: [1] });
  expect(asked[0]!.url).toBe('/api/sites');
});

test('a refusal is the server’s sentence, field by field', async () => {
  const problem = {
    status: 422,
    title: 'That cannot be.',
    detail: 'It goes backwards.',
    errors: [{ field: 'hours', message: 'It goes backwards.' }],
  };
  serverThat(() => json(problem, 422));
  const error = await postJson('/x', {}).catch((one: unknown) => one);
  expect(error).toBeInstanceOf(ApiProblem);
  expect(sentenceOf(error)).toBe('It goes backwards.');
  expect((error as ApiProblem).forField('hours')).toBe('It goes backwards.');
  expect((error as ApiProblem).forField('note')).toBeUndefined();
});

test('an answer that is no JSON is still an answer', async () => {
  serverThat(() => new Response('<html>', { status: 502 }));
  const error = (await getJson('/sites').catch((one: unknown) => one)) as ApiProblem;
  expect(error.problem).toMatchObject({ status: 502, title: 'Something went wrong.' });
});

test('a server that cannot be reached is said to be so, and nothing is lost', async () => {
  serverThat(() => Promise.reject(new TypeError('no connection')));
  const error = await getJson('/sites').catch((one: unknown) => one);
  expect(error).toBeInstanceOf(Unreachable);
  expect(sentenceOf(error)).toMatch(/What you typed is still here/);
});

test('who is at work, and what it was based on, go with it', async () => {
  const asked = serverThat(() => json({}));
  await postJson('/x', { a: 1 }, 'mara');
  await putJson('/plan', {}, 4);
  expect(new Headers(asked[0]!.init.headers).get('Entretien-Person')).toBe('mara');
  expect(new Headers(asked[1]!.init.headers).get('If-Match')).toBe('"4"');
});

describe('what is not as its contract has it', () => {
  const reading = {
    id: idOf(1),
    takenAt: '2026-11-24T09:00:00Z',
    hours: 1200,
    counts: 'total',
    source: 'typed',
  };
  const refused = (more: object) => {
    try {
      refuseMalformed(RecordReading, { ...reading, ...more });
      return null;
    } catch (error) {
      return (error as ApiProblem).problem.errors!.map(({ field }) => field);
    }
  };

  test('is refused before it is sent, in the server’s words', () => {
    expect(refused({})).toBeNull();
    expect(refused({ hours: -1 })).toEqual(['hours']);
    expect(refused({ hours: '1200' })).toEqual(['hours']);
    expect(refused({ takenAt: 'today' })).toEqual(['takenAt']);
    expect(refused({ hours: Number.NaN, source: 'guessed' })!.sort()).toEqual(['hours', 'source']);
    expect(refused({ more: 1 })).toEqual(['more']);
  });

  test('what is undefined is not sent, and not refused', () => {
    expect(refused({ note: undefined })).toBeNull();
  });
});
