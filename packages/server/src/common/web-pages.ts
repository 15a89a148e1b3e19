import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import express, { type NextFunction, type Request, type Response } from 'express';

const A_YEAR_MS = 365 * 24 * 3600 * 1000;

/** Serves the built page: its files as they are, and every other address outside /api as the page itself. */
export function serveWebPages(app: NestExpressApplication, webDir: string): void {
  const page = join(webDir, 'index.html');
  if (!existsSync(page)) return;
  // Files under assets/ carry a hash of their content in their name; the page itself must be asked for anew.
  app.use('/assets', express.static(join(webDir, 'assets'), { immutable: true, maxAge: A_YEAR_MS }));
  app.use(express.static(webDir, { index: false, maxAge: 0 }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || /^\/api(\/|$)/.test(request.path)) return next();
    // A page must never come in place of a script: an old page asking for an old file would break oddly.
    if (request.path.startsWith('/assets/')) response.status(404).type('text').send('There is no such file.');
    else response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}
