// Stands between a seat's page and the line: where a page can't be fetched, it shows ours, with what
// is still on the device (elements/still-here.js), rather than the browser's own. Everything else it
// leaves alone. Browsers run it only where pages come by https, or from the machine itself.
const PAGE = "/seat/offline";
const KEEP = "roost.offline";

async function prepare() {
  const cache = await caches.open(KEEP);
  const page = await fetch(PAGE, { cache: "no-store" });
  const assets = (await page.clone().text()).match(/\/assets\/[\w.-]+/g) ?? [];
  for (const request of await cache.keys()) await cache.delete(request);
  await cache.put(PAGE, page);
  await cache.addAll([...new Set(assets)]);
}

// Of an assignment one is at work in, the page that was kept (ahead.js).
const orOurs = (request, ours) =>
  fetch(request).catch(async () => (await caches.match(request.url)) ?? (await caches.match(ours)) ?? Response.error());

// A picture that was kept in another width than is wanted now.
async function inAnyWidth(request) {
  const base = request.url.replace(/\.\d+\.webp$/, "");
  for (const name of await caches.keys()) {
    const cache = await caches.open(name);
    const kept = (await cache.keys()).find(({ url }) => url.startsWith(base));
    if (kept) return cache.match(kept);
  }
  return Response.error();
}

addEventListener("install", (event) => event.waitUntil(prepare().then(() => skipWaiting())));
addEventListener("activate", (event) => event.waitUntil(clients.claim()));
addEventListener("fetch", (event) => {
  const { request } = event;
  if (request.mode === "navigate") event.respondWith(orOurs(request, PAGE));
  else if (/^\/(?:assets|media)\//.test(new URL(request.url).pathname))
    event.respondWith(caches.match(request).then((kept) => kept ?? fetch(request).catch(() => inAnyWidth(request))));
});
