import type { RequestHandler } from 'express';

/** Handlers that follow each other, as one; what one of them refuses, the next do not see. */
export function inTurn(...handlers: readonly RequestHandler[]): RequestHandler {
  return (request, response, next) => {
    const from = (place: number): void => {
      const handler = handlers[place];
      if (!handler) return next();
      try {
        void handler(request, response, (refused?: unknown) =>
          refused === undefined ? from(place + 1) : next(refused),
        );
      } catch (thrown) {
        next(thrown);
      }
    };
    from(0);
  };
}

/** Leaves out requests that write. */
export function onlyReading(handler: RequestHandler): RequestHandler {
  return (request, response, next) => (request.method === 'GET' ? handler(request, response, next) : next());
}
