import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { pino } from 'pino';
import { createApp, settingsFrom } from './index.js';

try {
  const settings = settingsFrom(process.env);
  const logger = pino({ level: settings.logLevel ?? 'warn' });
  const built = resolve(import.meta.dirname, '../../web/dist');
  const app = await createApp({
    settings: existsSync(built) ? { ...settings, webDir: built } : settings,
    logger,
  });
  await app.listen(settings.port, settings.host);
  const { port } = app.getHttpServer().address() as { port: number };
  console.log(`Entretien is ready on http://${settings.host}:${port}`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
