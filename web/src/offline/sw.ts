/// <reference lib="webworker" />
import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { registerRoute, setDefaultHandler } from "workbox-routing";
import { NetworkFirst, NetworkOnly } from "workbox-strategies";
import { asKept, isKept, KEPT_CACHE, stamp } from "./kept";

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] };

/** Answers that are kept: more than a season's stations, and not a history. */
const MOST_KEPT = 200;
/** How long the kitchen is waited for before the shell opens without it. */
const PATIENCE_S = 3;

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);

// The page is the kitchen's own while it is there, so that it never is older than what it asks.
const shell = createHandlerBoundToURL("/index.html");
const fresh = new NetworkOnly({ networkTimeoutSeconds: PATIENCE_S });
registerRoute(
  ({ request, url }) => request.mode === "navigate" && !url.pathname.startsWith("/api/"),
  async (asked) => {
    try {
      return await fresh.handle(asked);
    } catch {
      return await shell(asked);
    }
  },
);

// What the stations showed last, told from what they show now by its header.
registerRoute(
  ({ request, url }) => request.method === "GET" && isKept(url.pathname),
  new NetworkFirst({
    cacheName: KEPT_CACHE,
    plugins: [
      new ExpirationPlugin({ maxEntries: MOST_KEPT, purgeOnQuotaError: true }),
      {
        cacheWillUpdate: async ({ response }) => {
          // Whoever is signed out keeps nothing.
          if (response.status === 401) await caches.delete(KEPT_CACHE);
          return response.ok ? await stamp(response, Date.now()) : null;
        },
        cachedResponseWillBeUsed: async ({ cachedResponse }) =>
          cachedResponse == null ? null : await asKept(cachedResponse, Date.now()),
      },
    ],
  }),
);
setDefaultHandler(new NetworkOnly());

// A touch on a notice brings the kitchen to the front.
self.addEventListener("notificationclick", (event) => {
  event.notification.close();
  const front = async () => {
    const open = await self.clients.matchAll({ type: "window", includeUncontrolled: true });
    const [page] = open;
    await (page === undefined ? self.clients.openWindow("/canner") : page.focus());
  };
  event.waitUntil(front());
});
