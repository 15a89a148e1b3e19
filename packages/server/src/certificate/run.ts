import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { systemClock } from '../common/system-clock.js';
import { SettingsProblem, settingsFrom } from '../config.js';
import { CertificateProblem, makeCertificate } from './certificate.js';

/** `run.js name`: an authority and a certificate in the data folder that the environment names. */
async function run([name]: readonly string[]): Promise<string> {
  if (name === undefined)
    throw new CertificateProblem(
      'Say by which name it is reached: npm run certificate -- compressors.workshop.home',
    );
  const { dataDir } = settingsFrom({ ...process.env, ENTRETIEN_HOST: '127.0.0.1' });
  const { authority, certificate, key, until } = await makeCertificate(
    join(dataDir, 'certificates'),
    name,
    new Date(systemClock()),
  );
  return [
    `A certificate for ${name}, until ${until.toISOString().slice(0, 10)}. Start the server with`,
    `  ENTRETIEN_HOST=0.0.0.0 ENTRETIEN_PUBLIC_URL=https://${name}:4170 \\`,
    `  ENTRETIEN_CERTIFICATE=${certificate} ENTRETIEN_KEY=${key} npm start`,
    `Phones trust it once they trust ${authority}: the page “On your phone” leads through it, at https://${name}:4170/phone. Its fingerprint there must be`,
    `  ${new X509Certificate(readFileSync(authority)).fingerprint256}`,
    'Give nobody the .key files.',
  ].join('\n');
}

run(process.argv.slice(2)).then(
  (text) => process.stdout.write(`${text}\n`),
  (problem: unknown) => {
    if (!(problem instanceof CertificateProblem) && !(problem instanceof SettingsProblem)) throw problem;
    process.stderr.write(`${problem.message}\n`);
    process.exitCode = 1;
  },
);
