import { X509Certificate } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { ReachView } from '@entretien/contracts';
import { DAY_MS, formatInstant } from '@entretien/core/basics';
import { isLoopback } from '../common/request-guards.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';

/** Time to make another and to start the server again. */
const SOON_MS = 30 * DAY_MS;

/** By which address others reach the server, and what their devices have to trust. */
@Injectable()
export class Reach {
  private readonly certificate: X509Certificate | null;
  /** Our own authority, where the certificate in use is one of its. */
  private readonly authority: { readonly certificate: X509Certificate; readonly pem: string } | null;

  constructor(
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {
    const { tls, dataDir } = settings;
    this.certificate = tls ? new X509Certificate(readFileSync(tls.certificate)) : null;
    const file = join(dataDir, 'certificates', 'authority.crt');
    const pem = this.certificate && existsSync(file) ? readFileSync(file, 'utf8') : null;
    const authority = pem === null ? null : new X509Certificate(pem);
    this.authority =
      pem !== null && authority && this.certificate!.checkIssued(authority)
        ? { certificate: authority, pem }
        : null;
  }

  view(): ReachView {
    const { publicUrl } = this.settings;
    const isBeyond = publicUrl !== undefined && !isLoopback(new URL(publicUrl).hostname);
    return {
      address: publicUrl === undefined ? null : new URL(publicUrl).origin,
      isBeyondThisMachine: isBeyond,
      authority: this.authority && {
        fingerprint: this.authority.certificate.fingerprint256,
        until: dayOf(this.authority.certificate),
      },
    };
  }

  /** What phones are told to trust; null where there is nothing of ours to trust. */
  get authorityPem(): string | null {
    return this.authority?.pem ?? null;
  }

  /** What everybody should read of the certificate; null where all is well. */
  doubt(): string | null {
    if (this.certificate === null) return null;
    const ends = Date.parse(this.certificate.validTo);
    const now = this.clock();
    if (ends - now > SOON_MS) return null;
    const when = `${ends < now ? 'ended' : 'ends'} on ${dayOf(this.certificate)}`;
    return `The server’s certificate ${when}; then browsers refuse to come here. Make another, and start the server again.`;
  }
}

function dayOf({ validTo }: X509Certificate): string {
  return formatInstant(Date.parse(validTo)).slice(0, 10);
}
