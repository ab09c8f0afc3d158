import { clientsClaim } from "workbox-core";
import { cleanupOutdatedCaches, precacheAndRoute, type PrecacheEntry } from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { SHARED } from "./shared.js";

/** The service worker of the page: it opens without a network, and what other programs share is kept until it is collected. */

/** The files of the page, each with what its bytes come to; the build says. */
declare const FILES: PrecacheEntry[];

clientsClaim();
precacheAndRoute(FILES, { ignoreURLParametersMatching: [/^shared$/] });
cleanupOutdatedCaches();

registerRoute(
  ({ url }) => url.pathname.endsWith("/share"),
  async ({ request }) => {
    const cache = await caches.open(SHARED.cache);
    await cache.put(`${SHARED.path}${crypto.randomUUID()}`, new Response(await request.formData()));
    return Response.redirect("./?shared", 303);
  },
  "POST",
);
