import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import staticFiles from 'express-static-gzip';

const A_YEAR_MS = 365 * 24 * 3600 * 1000;

/** Files as the build has left them, small where whoever asks can unpack them. */
function files(folder: string, caching: object): RequestHandler {
  return staticFiles(folder, {
    enableBrotli: true,
    orderPreference: ['br'],
    index: false,
    serveStatic: caching,
  }) as RequestHandler;
}

/** Serves the built page: its files as they are, and every other address outside /api as the page itself. */
export function serveWebPages(app: NestExpressApplication, webDir: string): void {
  const page = join(webDir, 'index.html');
  if (!existsSync(page)) return;
  // Files under assets/ carry a hash of their content in their name; the page itself must be asked for anew.
  const kept = files(join(webDir, 'assets'), { immutable: true, maxAge: A_YEAR_MS });
  const others = files(webDir, { maxAge: 0 });
  app.use('/assets', kept);
  app.use((request: Request, response: Response, next: NextFunction) => {
    // Data are never looked for among the files: that would wait for the disk behind every picture.
    if (request.method !== 'GET' || /^\/api(\/|$)/.test(request.path)) return next();
    others(request, response, () => {
      // A page must never come in place of a script: an old page asking for an old file would break oddly.
      if (request.path.startsWith('/assets/'))
        response.status(404).type('text').send('There is no such file.');
      else response.set('Cache-Control', 'no-cache').sendFile(page);
    });
  });
}
