import { settingsFrom } from './config.js';

describe('settings', () => {
  test('each has a default', () => {
    expect(settingsFrom({})).toMatchObject({ host: '127.0.0.1', port: 4170, timeZone: 'UTC' });
    expect(settingsFrom({}).dataDir).toMatch(/data$/);
    expect(settingsFrom({}).backupDir).toMatch(/data-backups$/);
    expect(settingsFrom({ ENTRETIEN_BACKUPS: 'no' })).not.toHaveProperty('backupDir');
    expect(settingsFrom({ ENTRETIEN_PHOTOS_GB: '0.5' }).mostPhotoBytes).toBe(500_000_000);
  });

  test.each([
    [{ ENTRETIEN_HOST: '0.0.0.0' }, /has to be encrypted/],
    [{ ENTRETIEN_HOST: '192.168.1.5' }, /has to be encrypted/],
    [{ ENTRETIEN_HOST: '192.168.1.5', ENTRETIEN_BEHIND_PROXY: 'no' }, /has to be encrypted/],
    [{ ENTRETIEN_HOST: '192.168.1.5', ENTRETIEN_BEHIND_PROXY: 'yes' }, /ENTRETIEN_PUBLIC_URL/],
    [{ ENTRETIEN_BEHIND_PROXY: 'perhaps' }, /must be yes or no/],
    [{ ENTRETIEN_CERTIFICATE: 'package.json' }, /ENTRETIEN_KEY is missing/],
    [{ ENTRETIEN_KEY: 'package.json' }, /ENTRETIEN_CERTIFICATE is missing/],
    [{ ENTRETIEN_CERTIFICATE: 'package.json', ENTRETIEN_KEY: 'nowhere.pem' }, /no such file/],
    [{ ENTRETIEN_PORT: 'http' }, /port number/],
    [{ ENTRETIEN_PORT: '70000' }, /port number/],
    [{ ENTRETIEN_TIME_ZONE: 'Haldris' }, /no time zone/],
    [{ ENTRETIEN_PUBLIC_URL: 'service' }, /whole address/],
    [{ ENTRETIEN_LOG_LEVEL: 'loud' }, /must be one of trace/],
    [{ ENTRETIEN_DATA_DIR: 'package.json' }, /is a file/],
    [{ ENTRETIEN_BACKUP_DIR: './data' }, /lost with it/],
    [{ ENTRETIEN_BACKUP_DIR: './data/backups' }, /lost with it/],
    [{ ENTRETIEN_BACKUPS: 'daily' }, /must be yes or no/],
    [{ ENTRETIEN_REQUESTS_A_MINUTE: '0' }, /from 100 to 1000000/],
    [{ ENTRETIEN_REQUESTS_A_MINUTE: '' }, /from 100 to/],
    [{ ENTRETIEN_PHOTOS_GB: 'much' }, /from 0.1 to 10000/],
    [{ ENTRETIEN_GATEWAY: 'perhaps' }, /must be yes or no/],
    [{ ENTRETIEN_GATEWAY: 'yes' }, /name in ENTRETIEN_DEVICES the addresses/],
    [{ ENTRETIEN_DEVICES: '192.0.2.7' }, /ENTRETIEN_GATEWAY is not yes/],
    [{ ENTRETIEN_GATEWAY: 'yes', ENTRETIEN_DEVICES: 'controller.local' }, /no address by numbers/],
  ])('%j is refused with a sentence', (environment, sentence) => {
    expect(() => settingsFrom(environment)).toThrow(sentence);
  });

  test('devices are asked only where that is said, and only at addresses that are named', () => {
    expect(settingsFrom({})).not.toHaveProperty('devicesAt');
    expect(settingsFrom({ ENTRETIEN_GATEWAY: 'yes', ENTRETIEN_DEVICES: '192.0.2.7:502' }).devicesAt).toEqual([
      { host: '192.0.2.7', port: 502 },
    ]);
  });

  test('beyond this machine with a certificate, or behind a proxy', () => {
    const host = { ENTRETIEN_HOST: '0.0.0.0', ENTRETIEN_PUBLIC_URL: 'https://service.example' };
    const tls = { ENTRETIEN_CERTIFICATE: 'package.json', ENTRETIEN_KEY: 'package.json' };
    expect(settingsFrom({ ...host, ...tls })).toMatchObject({
      host: '0.0.0.0',
      tls: { key: 'package.json' },
    });
    expect(settingsFrom({ ...host, ENTRETIEN_BEHIND_PROXY: 'yes' })).toMatchObject({ isBehindProxy: true });
  });

  test('loopback in any spelling is allowed', () => {
    for (const host of ['localhost', '127.0.0.1', '127.1.2.3', '::1']) {
      expect(settingsFrom({ ENTRETIEN_HOST: host }).host).toBe(host);
    }
  });
});
