import { onlineManager } from "@tanstack/react-query";
import { pause } from "./client";

// Whether the server is within reach is found out by saving, not asked of the browser: it may well run on this
// machine without a network. While it is out of reach saves wait; they are tried again after growing pauses.

let failures = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

onlineManager.setEventListener(() => {
  window.addEventListener("online", tryNow);
  return () => window.removeEventListener("online", tryNow);
});

/** away says that a save did not get through; after is how long the server asked to wait, ms. */
export function away(after: number) {
  onlineManager.setOnline(false);
  clearTimeout(timer);
  timer = setTimeout(tryNow, Math.max(pause(failures++), Math.min(after, 30_000)));
}

/** reached says that a save got through. */
export function reached() {
  failures = 0;
}

/** tryNow sends at once what waits. */
export function tryNow() {
  clearTimeout(timer);
  onlineManager.setOnline(true);
}
