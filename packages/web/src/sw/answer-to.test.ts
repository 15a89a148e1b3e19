import { jest } from '@jest/globals';
import { answerTo, KEPT_HEADER, type Kept } from './answer-to.js';

const ORIGIN = 'http://127.0.0.1:4170';

function device(shell: Record<string, string> = {}) {
  const data = new Map<string, Response>();
  const kept: Kept = {
    shell: (path) => Promise.resolve(path in shell ? new Response(shell[path]) : undefined),
    data: (request) => Promise.resolve(data.get(request.url)?.clone()),
    keep: (request, response) => Promise.resolve(void data.set(request.url, response)),
  };
  return kept;
}

function get(path: string, mode: RequestMode = 'cors'): Request {
  // A navigation cannot be made by hand: what it is called by is all that counts.
  return Object.defineProperty(new Request(ORIGIN + path), 'mode', { value: mode });
}

const online = (text: string) => () => Promise.resolve(new Response(text));
const offline = () => Promise.reject(new TypeError('no connection'));
const text = async (answer: Promise<Response> | null) => (await answer!).text();

describe('the service worker', () => {
  test('lets data come from the server, and keeps them for when it cannot be reached', async () => {
    const kept = device();
    expect(await text(answerTo(get('/api/sites'), ORIGIN, kept, online('fresh')))).toBe('fresh');
    const answer = await answerTo(get('/api/sites'), ORIGIN, kept, offline)!;
    expect([await answer.text(), answer.headers.get(KEPT_HEADER)]).toEqual(['fresh', 'yes']);
    await expect(answerTo(get('/api/people'), ORIGIN, kept, offline)).rejects.toThrow('no connection');
  });

  test('does not keep a refusal', async () => {
    const kept = device();
    const refusal = () => Promise.resolve(new Response('no', { status: 404 }));
    await answerTo(get('/api/sites/x'), ORIGIN, kept, refusal);
    await expect(answerTo(get('/api/sites/x'), ORIGIN, kept, offline)).rejects.toThrow();
  });

  test('does not wait for ever on a connection in name only', async () => {
    jest.useFakeTimers();
    const kept = device();
    await answerTo(get('/api/sites'), ORIGIN, kept, online('known'));
    const never = () => new Promise<Response>(() => undefined);
    const answer = answerTo(get('/api/sites'), ORIGIN, kept, never)!;
    await jest.advanceTimersByTimeAsync(6001);
    expect(await (await answer).text()).toBe('known');
    jest.useRealTimers();
  });

  test('opens any page without a connection, and prefers the server’s', async () => {
    const kept = device({ '/': 'page' });
    expect(await text(answerTo(get('/sites/x/walk', 'navigate'), ORIGIN, kept, offline))).toBe('page');
    expect(await text(answerTo(get('/units', 'navigate'), ORIGIN, kept, online('newer')))).toBe('newer');
  });

  test('takes files from the device', async () => {
    const kept = device({ '/assets/a.js': 'code' });
    expect(await text(answerTo(get('/assets/a.js'), ORIGIN, kept, offline))).toBe('code');
    expect(await text(answerTo(get('/assets/b.js'), ORIGIN, kept, online('other')))).toBe('other');
  });

  test.each([
    ['what is sent', new Request(`${ORIGIN}/api/readings/batch`, { method: 'POST' })],
    ['lists to be saved', get('/api/readings/export')],
    ['other places', new Request('http://127.0.0.1:9/api/sites')],
  ])('keeps out of %s', (_name, request) => {
    expect(answerTo(request, ORIGIN, device(), offline)).toBeNull();
  });
});
