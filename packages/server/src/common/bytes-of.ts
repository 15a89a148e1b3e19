import type { Request } from 'express';

/**
 * Reads a body as it was sent. What is longer than `most` is read to its end and thrown away, so that the
 * answer reaches the sender; only its first bytes are kept.
 */
export async function bytesOf(request: Request, most: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    if (length < most) parts.push(part.subarray(0, most - length));
    length += part.length;
    if (length > 10 * most) throw Object.assign(new Error('body too large'), { status: 413 });
  }
  return Buffer.concat(parts);
}
