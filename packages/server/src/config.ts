import { existsSync, statSync } from 'node:fs';
import { join, resolve, sep } from 'node:path';
import { isTimeZone } from '@entretien/core/basics';
import { readAllowed, type AllowedAddress } from '@entretien/core/gateway';
import { isLoopback } from './common/request-guards.js';

/** How an installation is set up. */
export interface Settings {
  readonly host: string;
  readonly port: number;
  /** Folder of the database and, later, photos. */
  readonly dataDir: string;
  /** Time zone of a site for which none is given. */
  readonly timeZone: string;
  /** What a tag's code opens, when that is not this machine's own address. */
  readonly publicUrl?: string;
  /** What is written of what happens; `warn` where nothing is said. */
  readonly logLevel?: string;
  /** What encrypts what is sent: a certificate and its key, as files. */
  readonly tls?: { readonly certificate: string; readonly key: string };
  /** Whether somebody else encrypts before it: a proxy on the same machine or network. */
  readonly isBehindProxy?: boolean;
  /** Whether an address is printed that makes another lead: for whoever locked themselves out. */
  readonly wantsNewLead?: boolean;
  /** Where a backup is made each day; left out, none is. */
  readonly backupDir?: string;
  /** Folder of the logs, which are kept to a size; left out, they are only printed. */
  readonly logDir?: string;
  /** Most requests of an account in a minute; a tenth of it from an address where nobody is signed in. */
  readonly requestsAMinute?: number;
  /** What all photos together may take, bytes. */
  readonly mostPhotoBytes?: number;
  /** Addresses at which devices are asked; left out, none is: the gateway is off. */
  readonly devicesAt?: readonly AllowedAddress[];
  /** Folder of the built page; left out, only the API is served. */
  readonly webDir?: string;
}

const LOG_LEVELS = ['trace', 'debug', 'info', 'warn', 'error', 'fatal', 'silent'];

/** A setting that makes no sense; the sentence is for whoever starts the server. */
export class SettingsProblem extends Error {}

/** Reads the settings from the environment; a sentence says what is wrong with one. */
export function settingsFrom(environment: NodeJS.ProcessEnv): Settings {
  const port = Number(environment['ENTRETIEN_PORT'] ?? 4170);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new SettingsProblem('ENTRETIEN_PORT must be a port number from 0 to 65535.');
  }
  const host = environment['ENTRETIEN_HOST'] ?? '127.0.0.1';
  const timeZone = environment['ENTRETIEN_TIME_ZONE'] ?? 'UTC';
  if (!isTimeZone(timeZone)) throw new SettingsProblem(`ENTRETIEN_TIME_ZONE is no time zone: ${timeZone}.`);
  const publicUrl = environment['ENTRETIEN_PUBLIC_URL'];
  if (publicUrl !== undefined && !URL.canParse(publicUrl)) {
    throw new SettingsProblem('ENTRETIEN_PUBLIC_URL must be a whole address, like https://service.example.');
  }
  const tls = tlsFrom(environment);
  const isBehindProxy = flagOf(environment, 'ENTRETIEN_BEHIND_PROXY');
  if (!isLoopback(host)) {
    if (tls === undefined && !isBehindProxy)
      throw new SettingsProblem(
        `ENTRETIEN_HOST is ${host}: beyond this machine everything has to be encrypted. Name a certificate in ENTRETIEN_CERTIFICATE and ENTRETIEN_KEY, or set ENTRETIEN_BEHIND_PROXY=yes where a proxy does it.`,
      );
    if (publicUrl === undefined)
      throw new SettingsProblem(
        `ENTRETIEN_HOST is ${host}: say in ENTRETIEN_PUBLIC_URL by which address it is reached, like https://service.example.`,
      );
  }
  const logLevel = environment['ENTRETIEN_LOG_LEVEL'] ?? 'warn';
  if (!LOG_LEVELS.includes(logLevel)) {
    throw new SettingsProblem(
      `ENTRETIEN_LOG_LEVEL is ${logLevel}; it must be one of ${LOG_LEVELS.join(', ')}.`,
    );
  }
  const dataDir = resolve(environment['ENTRETIEN_DATA_DIR'] ?? './data');
  if (existsSync(dataDir) && !statSync(dataDir).isDirectory()) {
    throw new SettingsProblem(`ENTRETIEN_DATA_DIR is ${dataDir}, which is a file. It must be a folder.`);
  }
  return {
    host,
    port,
    timeZone,
    dataDir,
    logLevel,
    logDir: resolve(environment['ENTRETIEN_LOG_DIR'] ?? join(dataDir, 'logs')),
    requestsAMinute: figureOf(environment, 'ENTRETIEN_REQUESTS_A_MINUTE', REQUESTS_A_MINUTE),
    mostPhotoBytes: figureOf(environment, 'ENTRETIEN_PHOTOS_GB', PHOTOS_GB) * 1_000_000_000,
    // Beside the data folder, not within: what puts a backup back moves that away.
    ...(flagOf(environment, 'ENTRETIEN_BACKUPS', 'yes')
      ? { backupDir: backupDirOf(environment['ENTRETIEN_BACKUP_DIR'], dataDir) }
      : {}),
    ...(publicUrl === undefined ? {} : { publicUrl }),
    ...(tls === undefined ? {} : { tls }),
    ...(isBehindProxy ? { isBehindProxy } : {}),
    ...(flagOf(environment, 'ENTRETIEN_NEW_LEAD') ? { wantsNewLead: true } : {}),
    ...devicesOf(environment),
  };
}

/** Off unless it is asked for, and then only at addresses that are named. */
function devicesOf(environment: NodeJS.ProcessEnv): Pick<Settings, 'devicesAt'> {
  const addresses = environment['ENTRETIEN_DEVICES'];
  if (!flagOf(environment, 'ENTRETIEN_GATEWAY')) {
    if (addresses !== undefined && addresses.trim() !== '')
      throw new SettingsProblem('ENTRETIEN_DEVICES names addresses, and ENTRETIEN_GATEWAY is not yes.');
    return {};
  }
  const read = readAllowed(addresses ?? '');
  if (!read.ok) throw new SettingsProblem(`ENTRETIEN_DEVICES: ${read.problem.sentence}`);
  if (read.value.length === 0)
    throw new SettingsProblem(
      'ENTRETIEN_GATEWAY is yes: name in ENTRETIEN_DEVICES the addresses that may be asked, like 192.0.2.7:502.',
    );
  return { devicesAt: read.value };
}

function tlsFrom(environment: NodeJS.ProcessEnv): Settings['tls'] {
  const files = { certificate: 'ENTRETIEN_CERTIFICATE', key: 'ENTRETIEN_KEY' } as const;
  const [certificate, key] = [environment[files.certificate], environment[files.key]];
  if (certificate === undefined && key === undefined) return undefined;
  for (const [name, file] of [
    [files.certificate, certificate],
    [files.key, key],
  ] as const) {
    if (file === undefined) throw new SettingsProblem(`A certificate needs its key: ${name} is missing.`);
    if (!existsSync(file)) throw new SettingsProblem(`${name} is ${file}, and there is no such file.`);
  }
  return { certificate: certificate!, key: key! };
}

function backupDirOf(text: string | undefined, dataDir: string): string {
  const folder = resolve(text ?? `${dataDir}-backups`);
  if (folder === dataDir || folder.startsWith(dataDir + sep))
    throw new SettingsProblem(
      `ENTRETIEN_BACKUP_DIR is ${folder}: a backup within the data folder is lost with it. Name another, best on another disk.`,
    );
  return folder;
}

interface FigureBounds {
  readonly usual: number;
  readonly least: number;
  readonly most: number;
}

/** More than the busiest page asks; few enough that one device gone wild leaves room for the others. */
const REQUESTS_A_MINUTE: FigureBounds = { usual: 3000, least: 100, most: 1_000_000 };
/** About forty thousand pictures. */
const PHOTOS_GB: FigureBounds = { usual: 20, least: 0.1, most: 10_000 };

function figureOf(
  environment: NodeJS.ProcessEnv,
  name: string,
  { usual, least, most }: FigureBounds,
): number {
  const figure = Number(environment[name] ?? usual);
  if (environment[name]?.trim() === '' || !(figure >= least && figure <= most))
    throw new SettingsProblem(`${name} must be a figure from ${least} to ${most}.`);
  return figure;
}

function flagOf(environment: NodeJS.ProcessEnv, name: string, usual: 'yes' | 'no' = 'no'): boolean {
  const text = environment[name] ?? usual;
  if (text !== 'yes' && text !== 'no') throw new SettingsProblem(`${name} is ${text}; it must be yes or no.`);
  return text === 'yes';
}
