/// <reference lib="webworker" />
import { answerTo, type Kept } from './answer-to.js';

declare const self: ServiceWorkerGlobalScope;

/** Filled in by the build: the files of the page, and a name that changes with any of them. */
declare const SHELL_FILES: readonly string[];
declare const SHELL_NAME: string;

/** Another name when answers change their shape: what was kept of the old one goes. */
const DATA = 'entretien-data-2';
/** Answers of the server that are kept at most; the oldest go first. */
const MOST_ANSWERS = 300;

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(SHELL_NAME)
      .then((shell) => shell.addAll(['/', ...SHELL_FILES]))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(
          names.filter((name) => name !== SHELL_NAME && name !== DATA).map((name) => caches.delete(name)),
        ),
      )
      .then(() => self.clients.claim()),
  );
});

const kept: Kept = {
  shell: async (path) => (await caches.open(SHELL_NAME)).match(path),
  data: async (request) => (await caches.open(DATA)).match(request),
  keep: async (request, response) => {
    const cache = await caches.open(DATA);
    await cache.put(request, response);
    const all = await cache.keys();
    await Promise.all(all.slice(0, Math.max(0, all.length - MOST_ANSWERS)).map((old) => cache.delete(old)));
  },
};

self.addEventListener('fetch', (event) => {
  const answer = answerTo(event.request, self.location.origin, kept, (request) => fetch(request));
  if (answer) event.respondWith(answer);
});
