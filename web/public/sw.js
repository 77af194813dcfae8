// Keeps the pages of a trial at hand where the line to the server breaks: what was loaded once opens again without it.
// Only what is the same for everybody (scripts, styles, fonts, the page itself) and who is signed in; what was typed is in the page's own shelf.
const KEPT = "arrow-bench-1";

self.addEventListener("install", () => self.skipWaiting());

self.addEventListener("activate", (event) => {
  const others = caches
    .keys()
    .then((names) => Promise.all(names.filter((name) => name !== KEPT).map((name) => caches.delete(name))));
  event.waitUntil(others.then(() => self.clients.claim()));
});

self.addEventListener("message", (event) => {
  if (event.data.forget) event.waitUntil(caches.delete(KEPT));
  if (event.data.keep)
    event.waitUntil(
      caches
        .open(KEPT)
        .then((kept) => Promise.all(event.data.keep.map((path) => kept.add(path).catch(() => undefined)))),
    );
});

async function fresh(request, key) {
  try {
    const answer = await fetch(request);
    if (answer.ok) (await caches.open(KEPT)).put(key, answer.clone());
    return answer;
  } catch (reason) {
    const kept = await caches.match(key);
    if (kept) return kept;
    throw reason;
  }
}

async function kept(request) {
  return (await caches.match(request)) ?? fresh(request, request);
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const place = new URL(request.url);
  if (request.method !== "GET" || place.origin !== self.location.origin) return;
  if (request.mode === "navigate" && place.pathname === "/") event.respondWith(fresh(request, "/"));
  else if (place.pathname === "/api/session") event.respondWith(fresh(request, "/api/session"));
  else if (place.pathname.startsWith("/static/")) event.respondWith(kept(request));
});
