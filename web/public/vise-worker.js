// Answers for the page at the vise from what that page has put by, where the server is out of
// reach. It keeps nothing itself (src/vise/putBy.ts does), and answers nothing else.

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));

const vise = /^\/piece\/\d+\/vise$/;

self.addEventListener("fetch", (e) => {
  const { request } = e;
  const { pathname } = new URL(request.url);
  const page = request.mode === "navigate" && vise.test(pathname);
  const part = pathname.startsWith("/assets/") || request.headers.get("Keep") === "vise";
  if (request.method !== "GET" || !(page || part)) return;
  e.respondWith(
    fetch(request).catch(async (lost) => {
      // Every page of the bench is one file.
      const kept = await caches.match(page ? "/" : request, { ignoreVary: true });
      if (kept) return kept;
      throw lost;
    }),
  );
});
