import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { Accounts, createApp, isLoopback, openLog, settingsFrom, SettingsProblem } from './index.js';

/** What is under way when the server is told to end has so long; what was acknowledged is on the disk anyway. */
const LONGEST_END_MS = 10_000;

try {
  const settings = settingsFrom(process.env);
  const { log: logger } = await openLog({
    level: settings.logLevel ?? 'warn',
    folder: settings.logDir ?? null,
  });
  const built = resolve(import.meta.dirname, '../../web/dist');
  const app = await createApp({
    settings: existsSync(built) ? { ...settings, webDir: built } : settings,
    logger,
  });
  const code = app.get(Accounts).codeOfFirst();
  const way = !isLoopback(settings.host)
    ? `ENTRETIEN_HOST is ${settings.host}`
    : settings.isBehindProxy
      ? 'ENTRETIEN_BEHIND_PROXY is yes'
      : null;
  if (code !== null && way !== null)
    throw new SettingsProblem(
      `${way}, and there are no accounts: anybody could write. Start it on 127.0.0.1 and without a proxy first, and make yourself the first lead.`,
    );
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      setTimeout(() => {
        logger.error(`It did not end within ${LONGEST_END_MS / 1000} s, and was cut off.`);
        process.exit(1);
      }, LONGEST_END_MS).unref();
    });
  await app.listen(settings.port, settings.host);
  const { port } = app.getHttpServer().address() as { port: number };
  const here = `${settings.tls ? 'https' : 'http'}://${settings.host}:${port}`;
  const address = settings.publicUrl ?? here;
  if (code !== null)
    console.log(
      // By its public name nobody is answered before there are accounts.
      `There are no accounts: everybody at this machine may do everything. To sign in with names, open ${here}/welcome#${code} once.`,
    );
  if (code === null && settings.wantsNewLead)
    console.log(
      `To come in as another lead, open ${address}/join#${app.get(Accounts).newLead()} once, within a week.`,
    );
  console.log(`Entretien is ready on ${address}`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
