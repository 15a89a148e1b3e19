import { settingsFrom } from './config.js';

describe('settings', () => {
  test('each has a default', () => {
    expect(settingsFrom({})).toMatchObject({ host: '127.0.0.1', port: 4170, timeZone: 'UTC' });
    expect(settingsFrom({}).dataDir).toMatch(/data$/);
  });

  test.each([
    [{ ENTRETIEN_HOST: '0.0.0.0' }, /no accounts yet/],
    [{ ENTRETIEN_HOST: '192.168.1.5' }, /no accounts yet/],
    [{ ENTRETIEN_PORT: 'http' }, /port number/],
    [{ ENTRETIEN_PORT: '70000' }, /port number/],
    [{ ENTRETIEN_TIME_ZONE: 'Haldris' }, /no time zone/],
    [{ ENTRETIEN_PUBLIC_URL: 'service' }, /whole address/],
    [{ ENTRETIEN_LOG_LEVEL: 'loud' }, /must be one of trace/],
    [{ ENTRETIEN_DATA_DIR: 'package.json' }, /is a file/],
  ])('%j is refused with a sentence', (environment, sentence) => {
    expect(() => settingsFrom(environment)).toThrow(sentence);
  });

  test('loopback in any spelling is allowed', () => {
    for (const host of ['localhost', '127.0.0.1', '127.1.2.3', '::1']) {
      expect(settingsFrom({ ENTRETIEN_HOST: host }).host).toBe(host);
    }
  });
});
