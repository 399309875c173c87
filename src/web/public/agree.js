// Part of the service worker: a new version waits until every open tab has agreed to it, so that no tab is ever served two builds at once.
const agreed = new Set();

self.addEventListener('message', (event) => {
  if (event.data?.what !== 'agree') return;
  agreed.add(event.source.id);
  event.waitUntil(count());
});

async function count() {
  const open = await self.clients.matchAll({ type: 'window', includeUncontrolled: true });
  const missing = open.filter((client) => !agreed.has(client.id));
  for (const client of missing) client.postMessage({ what: 'asked' });
  for (const client of open) client.postMessage({ what: 'missing', count: missing.length });
  if (missing.length === 0) await self.skipWaiting();
}
