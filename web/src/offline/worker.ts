/// <reference lib="webworker" />
import { keepsAnswer, type Build } from './rules';

/** What the build names: a word that is another for every build, and what a student's page is made of. */
declare const BUILD: Build;
declare const self: ServiceWorkerGlobalScope;

const CODE = `code ${BUILD.id}`;
/** What the server answered last, of the few answers that are worth having without it. */
const ANSWERS = 'answers';

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(CODE).then((cache) => cache.addAll(['/', ...BUILD.files])));
});

// A new build waits until the tabs of the old one are closed: until then their code is here.
self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((n) => n !== CODE && n !== ANSWERS).map((n) => caches.delete(n))),
      ),
  );
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') event.respondWith(page(request));
  else if (url.pathname.startsWith('/assets/')) event.respondWith(code(request));
  else if (keepsAnswer(url.pathname, request.headers.get('authorization')))
    event.respondWith(answer(request));
});

/** The server's page; without it the one that was kept, which is the same for every address. */
async function page(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch {
    return (await caches.match('/')) ?? Response.error();
  }
}

/** Files of a build never change: what is here is not asked for. */
async function code(request: Request): Promise<Response> {
  const kept = await caches.match(request);
  if (kept) return kept;
  const fresh = await fetch(request);
  if (fresh.ok) {
    const copy = fresh.clone();
    void caches.open(CODE).then((cache) => cache.put(request, copy));
  }
  return fresh;
}

/** Kept by whose link it is: one device may be several students'. */
const keyOf = (request: Request) =>
  `${request.url}?of=${encodeURIComponent(request.headers.get('authorization') ?? '')}`;

/** The server's answer, kept for when there is none; that one says when it was. */
async function answer(request: Request): Promise<Response> {
  const key = keyOf(request);
  try {
    const fresh = await fetch(request);
    const cache = await caches.open(ANSWERS);
    // Whoever may not read it any more does not read it here.
    if (fresh.status === 401 || fresh.status === 403 || fresh.status === 404) await cache.delete(key);
    if (fresh.status === 200) {
      const headers = new Headers(fresh.headers);
      headers.set('x-kept-at', String(Date.now()));
      const body = await fresh.clone().blob();
      await cache.put(key, new Response(body, { headers }));
    }
    return fresh;
  } catch (error) {
    const kept = await (await caches.open(ANSWERS)).match(key);
    if (kept) return kept;
    throw error;
  }
}
