import 'reflect-metadata';
import { webcrypto } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';
import {
  AuthorityKeyIdentifierExtension,
  BasicConstraintsExtension,
  cryptoProvider,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509';
import { DAY_MS } from '@entretien/core/basics';

/** What stands against making one; the sentence is for whoever asked. */
export class CertificateProblem extends Error {}

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
/** How long each holds: phones take no server’s for longer than 825 days, and many for no longer than 398 (memory). */
const [AUTHORITY_MS, SERVER_MS] = [10 * 365 * DAY_MS, 397 * DAY_MS];
const NAME = /^(?=.{1,253}$)(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)*[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/;

export interface CertificateFiles {
  /** What phones are told to trust. */
  readonly authority: string;
  readonly certificate: string;
  readonly key: string;
  readonly until: Date;
}

interface Authority {
  readonly certificate: X509Certificate;
  readonly keys: CryptoKeyPair;
}

type CryptoKeyPair = webcrypto.CryptoKeyPair;

/**
 * A certificate for a name, by an authority of our own: made at the first time and kept, so that phones that trust it
 * trust the next certificate too.
 *
 * @param name what the server is reached by, like `compressors.workshop.home`; no bare address
 */
export async function makeCertificate(folder: string, name: string, now: Date): Promise<CertificateFiles> {
  const host = name.trim().toLowerCase();
  if (isIP(host) !== 0)
    throw new CertificateProblem('A certificate is for a name: passkeys know no bare address.');
  if (!NAME.test(host)) throw new CertificateProblem(`“${name.slice(0, 80)}” is no name of a server.`);
  cryptoProvider.set(webcrypto as never);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = (of: string) => join(folder, of);
  const authority = await authorityOf(file('authority.crt'), file('authority.key'), now);
  const keys = await newKeys();
  const until = new Date(now.getTime() + SERVER_MS);
  const certificate = await X509CertificateGenerator.create({
    subject: `CN=${host}`,
    issuer: authority.certificate.subject,
    notBefore: new Date(now.getTime() - DAY_MS),
    notAfter: until,
    publicKey: keys.publicKey,
    signingKey: authority.keys.privateKey,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      new SubjectAlternativeNameExtension([{ type: 'dns', value: host }]),
      await AuthorityKeyIdentifierExtension.create(authority.keys.publicKey),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  write(file('server.crt'), certificate.toString('pem'));
  write(file('server.key'), await pemOfKey(keys.privateKey));
  return {
    authority: file('authority.crt'),
    certificate: file('server.crt'),
    key: file('server.key'),
    until,
  };
}

/** The authority of this installation: the one that is there, or a new one. */
async function authorityOf(certificateFile: string, keyFile: string, now: Date): Promise<Authority> {
  if (existsSync(certificateFile) !== existsSync(keyFile))
    throw new CertificateProblem(
      `Of the authority only one half is there: ${certificateFile} and ${keyFile} belong together.`,
    );
  if (existsSync(certificateFile)) {
    const certificate = new X509Certificate(readFileSync(certificateFile, 'utf8'));
    if (certificate.notAfter.getTime() - now.getTime() < SERVER_MS)
      throw new CertificateProblem(
        `The authority in ${certificateFile} ends on ${certificate.notAfter.toISOString().slice(0, 10)}, before a new certificate would: move both files away, and let phones trust a new one.`,
      );
    return { certificate, keys: await readKeys(certificate, keyFile) };
  }
  const keys = await newKeys();
  const certificate = await X509CertificateGenerator.createSelfSigned({
    name: 'CN=Entretien of this workshop',
    notBefore: new Date(now.getTime() - DAY_MS),
    notAfter: new Date(now.getTime() + AUTHORITY_MS),
    keys,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  write(certificateFile, certificate.toString('pem'));
  write(keyFile, await pemOfKey(keys.privateKey));
  return { certificate, keys };
}

function newKeys(): Promise<CryptoKeyPair> {
  return webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
}

async function readKeys(certificate: X509Certificate, keyFile: string): Promise<CryptoKeyPair> {
  const [bytes] = PemConverter.decode(readFileSync(keyFile, 'utf8'));
  if (bytes === undefined) throw new CertificateProblem(`${keyFile} is no key.`);
  const privateKey = await webcrypto.subtle.importKey('pkcs8', bytes, ALGORITHM, true, ['sign']);
  return { privateKey, publicKey: (await certificate.publicKey.export()) as webcrypto.CryptoKey };
}

async function pemOfKey(key: webcrypto.CryptoKey): Promise<string> {
  return PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
}

/** Keys are nobody else’s on this machine. */
function write(file: string, text: string): void {
  writeFileSync(file, `${text}\n`, { mode: 0o600 });
}
