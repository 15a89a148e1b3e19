import { SetMetadata } from '@nestjs/common';
import type { Right } from '@entretien/core/access';
import type { Request } from 'express';

/** What a route is about, where a customer may ask for their own only: the parameter that names it. */
export interface Own {
  readonly kind: 'compressor' | 'visit' | 'repair';
  readonly parameter: string;
}

export interface Demand {
  /** The right, or what tells it of a request. */
  readonly right: Right | ((request: Request) => Right);
  readonly own?: Own;
}

export const DEMAND = 'entretien:demand';

/** What a route, or every route of a controller, asks of whoever calls. A route without it is refused. */
export function May(right: Demand['right'], own?: Own) {
  return SetMetadata(DEMAND, { right, ...(own ? { own } : {}) } satisfies Demand);
}

/** Reading asks for one right, everything else for another. */
export function ReadsAndWrites(read: Right, write: Right) {
  return May(({ method }) => (method === 'GET' || method === 'HEAD' ? read : write));
}
