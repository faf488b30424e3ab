/// <reference lib="webworker" />
import { matchPrecache, precacheAndRoute, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { shellFor } from "./shells";

declare const self: ServiceWorkerGlobalScope;
/** Set by the build: the files of the application, and the content security policy of each kept page. */
declare const KEPT_FILES: readonly PrecacheEntry[];
declare const POLICIES: Readonly<Record<string, string>>;

/** Answers from the kept build alone, so that pages and files of two builds never mix. */
async function answer({ request, url }: { request: Request; url: URL }): Promise<Response> {
  const { file } = shellFor(url.pathname);
  const kept = await matchPrecache(`/${file}`);
  if (!kept) return fetch(request);
  const headers = {
    "Content-Type": "text/html; charset=utf-8",
    "Content-Security-Policy": POLICIES[file]!,
    "Cross-Origin-Opener-Policy": "same-origin",
    "Referrer-Policy": "no-referrer",
    "X-Content-Type-Options": "nosniff",
  };
  return new Response(kept.body, { status: file === "shells/nowhere.html" ? 404 : 200, headers });
}

precacheAndRoute([...KEPT_FILES], { cleanURLs: false, directoryIndex: "" });
registerRoute(
  // Other pages, such as files of notices and the game to link, are not part of the application.
  new NavigationRoute(answer, { denylist: [/\.\w+$/, /^\/game(\/|$)/, /[?&]offline=off/] }),
);

/** A new build replaces the present one when a page that has just started, and no other, is open. */
self.addEventListener("message", event => {
  if (event.data !== "start if alone") return;
  event.waitUntil(
    self.clients.matchAll({ type: "window", includeUncontrolled: true }).then(async pages => {
      const isAlone = pages.length <= 1;
      event.ports[0]?.postMessage(isAlone);
      if (isAlone) await self.skipWaiting();
    }),
  );
});
