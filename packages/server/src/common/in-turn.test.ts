import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { inTurn, onlyReading } from './in-turn.js';

/** What comes out at the end of handlers that follow each other, and who was asked. */
function course(method: string, ...handlers: readonly RequestHandler[]) {
  const asked: number[] = [];
  const noted = handlers.map((handler, place): RequestHandler => (request, response, next) => {
    asked.push(place);
    return handler(request, response, next);
  });
  return new Promise<{ asked: number[]; end: unknown }>((done) => {
    void inTurn(...noted)({ method } as Request, {} as Response, (end?: unknown) => done({ asked, end }));
  });
}

const goesOn = (_request: Request, _response: Response, next: NextFunction) => next();
const goesOnLater = (_request: Request, _response: Response, next: NextFunction) => void setImmediate(next);

test('handlers follow each other, those that wait too', async () => {
  expect(await course('GET', goesOn, goesOnLater, goesOn)).toEqual({ asked: [0, 1, 2], end: undefined });
});

test('what one refuses, the next do not see', async () => {
  const refuses: RequestHandler = (_request, _response, next) => next('no');
  expect(await course('POST', goesOnLater, refuses, goesOn)).toEqual({ asked: [0, 1], end: 'no' });
});

test('what one throws after another has waited is passed on, and ends no process', async () => {
  const breaks: RequestHandler = () => {
    throw new Error('broken');
  };
  const { asked, end } = await course('POST', goesOnLater, breaks, goesOn);
  expect([asked, (end as Error).message]).toEqual([[0, 1], 'broken']);
});

test('what is meant for readers is left out where something is written', async () => {
  const refuses: RequestHandler = (_request, _response, next) => next('read');
  expect((await course('GET', onlyReading(refuses))).end).toBe('read');
  expect((await course('POST', onlyReading(refuses))).end).toBeUndefined();
});
