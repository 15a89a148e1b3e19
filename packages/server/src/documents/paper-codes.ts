import type { Request } from 'express';
import QRCode from 'qrcode';
import type { Settings } from '../config.js';

/** Where the page is, as the asker of a paper sees it. */
export function originOf(request: Request): string {
  return `${request.protocol}://${request.get('host') ?? 'localhost'}`;
}

/** What the codes of papers begin with: a fixed public address goes before where the asker is. */
export function baseOf({ publicUrl }: Pick<Settings, 'publicUrl'>, origin: string): string {
  return (publicUrl ?? origin).replace(/\/+$/, '');
}

/** A code to scan, as a picture with its quiet edge. */
export function codeOf(address: string): Promise<Buffer> {
  return QRCode.toBuffer(address, { errorCorrectionLevel: 'M', margin: 4, scale: 8 });
}
