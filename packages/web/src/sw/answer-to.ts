/** What is kept on the device: the page itself, and what the server last answered. */
export interface Kept {
  shell(path: string): Promise<Response | undefined>;
  data(request: Request): Promise<Response | undefined>;
  keep(request: Request, response: Response): Promise<void>;
}

/** Says in an answer that it was kept, and is not the server's present word. */
export const KEPT_HEADER = 'Entretien-Kept';

/**
 * How the service worker answers: files from the device, for they never change under their name; the page and
 * the data from the server, and only when that cannot be reached from the device. What is sent is never
 * touched: the outbox sees to that.
 *
 * @returns null for what is none of its business
 */
export function answerTo(
  request: Request,
  origin: string,
  kept: Kept,
  ask: (request: Request) => Promise<Response>,
): Promise<Response> | null {
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== origin) return null;
  if (url.pathname.startsWith('/api/')) return isKeptData(url) ? freshOrKept(request, kept, ask) : null;
  if (request.mode === 'navigate') return pageOrKept(request, kept, ask);
  return fileOf(url, request, kept, ask);
}

/** Lists to be saved and the pages for programs are asked for when they are wanted. */
function isKeptData({ pathname }: URL): boolean {
  return (
    !/\.(pdf|crt|zip)$/.test(pathname) &&
    !/^\/api\/(docs|openapi|readings\/export|logbook\/export|health)/.test(pathname)
  );
}

async function freshOrKept(
  request: Request,
  kept: Kept,
  ask: (request: Request) => Promise<Response>,
): Promise<Response> {
  const asked = ask(request).then(async (response) => {
    if (response.ok) await kept.keep(request, response.clone());
    return response;
  });
  try {
    const inTime = await Promise.race([asked, patience()]);
    if (inTime) return inTime;
  } catch {
    // No connection: what was answered last must do.
  }
  const known = await kept.data(request);
  // Nothing to fall back on: then it is the connection's own answer, however long it takes.
  if (!known) return asked;
  const headers = new Headers(known.headers);
  headers.set(KEPT_HEADER, 'yes');
  return new Response(known.body, { status: known.status, headers });
}

/** In a valley a connection often is one in name only: after so long what is kept will do. */
const PATIENCE_MS = 6000;

function patience(): Promise<null> {
  return new Promise((resolve) => setTimeout(() => resolve(null), PATIENCE_MS));
}

async function pageOrKept(
  request: Request,
  kept: Kept,
  ask: (request: Request) => Promise<Response>,
): Promise<Response> {
  try {
    return await ask(request);
  } catch (error) {
    const page = await kept.shell('/');
    if (!page) throw error;
    return page;
  }
}

async function fileOf(
  url: URL,
  request: Request,
  kept: Kept,
  ask: (request: Request) => Promise<Response>,
): Promise<Response> {
  return (await kept.shell(url.pathname)) ?? ask(request);
}
