import type { QueryClient } from "@tanstack/react-query";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { pictureKey, picturePath, useSettings } from "../api/queries";
import type { Picture, Plan } from "../api/types.gen";
import { stillLook } from "./look";

// What the vise needs is put by while the server is there, so that the steps go on without it: in the page, and,
// where the browser may, on the device, for a page that is loaded anew. A worker hands it out (vise-worker.js).

/** So many moves ahead are put by. */
const ahead = 200;

/** How many pieces a device keeps the steps of. */
const mostPieces = 5;

/** how long the page is left alone before anything is put by, and between two pictures, ms */
const quiet = 2500;
const between = 60;

const mine = (id: number) => `vise-${id}-`;

/** shelf is the device's cache of a piece at a revision, where there may be one; those of other revisions go. */
async function shelf(id: number, revision: number): Promise<Cache | null> {
  if (!window.isSecureContext || !("caches" in window)) return null;
  const name = `${mine(id)}${revision}`;
  const all = (await caches.keys()).filter((k) => k.startsWith("vise-"));
  const old = all.filter((k) => k.startsWith(mine(id)) && k !== name);
  const others = all.filter((k) => !k.startsWith(mine(id)));
  old.push(...others.slice(0, Math.max(0, others.length - mostPieces + 1)));
  await Promise.all(old.map((k) => caches.delete(k)));
  return caches.open(name);
}

/** forget takes everything off this device that was put by. */
export async function forget() {
  if (!("caches" in window)) return;
  const all = await caches.keys();
  await Promise.all(all.map((k) => caches.delete(k)));
}

/** placePutBy writes the place into what was put by of a piece, so that a page without the network begins there. */
export async function placePutBy(id: number, revision: number, done: number) {
  const name = `${mine(id)}${revision}`;
  if (!window.isSecureContext || !("caches" in window) || !(await caches.has(name))) return;
  const kept = await caches.open(name);
  const path = `/api/pieces/${id}`;
  const was = await kept.match(path);
  if (!was) return;
  const now = JSON.stringify({ ...(await was.json()), done });
  await kept.put(path, new Response(now, { headers: { "Content-Type": "application/json" } }));
}

/** parts are the files that the page is made of. */
function parts(): string[] {
  const files = performance.getEntriesByType("resource").map((r) => new URL(r.name));
  return files.filter((u) => u.origin === location.origin && u.pathname.startsWith("/assets/")).map((u) => u.pathname);
}

/** pause waits, or goes on at once when it is to stop. */
export const pause = (ms: number, stop: AbortSignal) =>
  new Promise<void>((go) => {
    const timer = setTimeout(go, ms);
    stop.addEventListener("abort", () => {
      clearTimeout(timer);
      go();
    });
  });

async function putBy(
  client: QueryClient,
  o: { id: number; revision: number; hand: string; plan: Plan; from: number; to: number; stop: AbortSignal },
) {
  const { id, revision, hand, stop } = o;
  await pause(quiet, stop);
  if (stop.aborted) return;
  const kept = await shelf(id, revision);
  const put = async (path: string) => {
    if (kept && !(await kept.match(path))) {
      const answer = await fetch(path, { signal: stop });
      if (answer.ok) await kept.put(path, answer);
    }
  };
  for (const path of ["/", ...parts(), ...["", "/plan"].map((p) => `/api/pieces/${id}${p}`), "/api/settings"])
    await put(path);
  for (let until = o.from + 1; until <= o.to && !stop.aborted; until++) {
    const look = stillLook(o.plan, until);
    const key = pictureKey(id, revision, hand, look);
    const path = `/api${picturePath(id, look)}`;
    if (client.getQueryData(key) !== undefined && (!kept || (await kept.match(path)))) continue;
    const answer = await fetch(path, { signal: stop });
    if (!answer.ok) throw new Error("a step cannot be drawn");
    await kept?.put(path, answer.clone());
    const picture = (await answer.json()) as Picture;
    // Kept as long as the page is: what nobody looks at would be thrown out after a while.
    client.setQueryDefaults(key, { gcTime: Number.POSITIVE_INFINITY });
    client.setQueryData(key, picture);
    await pause(between, stop);
  }
}

/** usePutBy puts the steps from here on by, and tells whether all of them are there without the network. */
export function usePutBy(id: number, revision: number, done: number, plan: Plan) {
  const client = useQueryClient();
  const { hand } = useSettings();
  const [there, setThere] = useState(false);
  const from = Math.max(0, done); // on the table the page draws by itself
  useEffect(() => {
    // Only pages of this machine, or over TLS, may have a worker.
    navigator.serviceWorker?.register("/vise-worker.js").catch(() => undefined);
  }, []);
  useEffect(() => {
    const stop = new AbortController();
    const to = Math.min(plan.actions, from + ahead);
    putBy(client, { id, revision, hand, plan, from, to, stop: stop.signal }).then(
      () => !stop.signal.aborted && setThere(to === plan.actions),
      () => undefined, // out of reach, or the page went on: what is there is there
    );
    return () => stop.abort();
  }, [client, id, revision, hand, from, plan]);
  return there;
}
