import { useEffect, useRef } from "react";
import { useLocation } from "wouter";

/** heading is the heading of what is on the page now: that of its work, or of all of it. */
export function heading(): HTMLElement | null {
  const h = document.querySelector<HTMLElement>("[data-heading]") ?? document.querySelector<HTMLElement>("h1");
  h?.setAttribute("tabindex", "-1");
  return h;
}

/** useHeading moves the focus to the heading when another page or stage has come. */
export function useHeading() {
  const [at] = useLocation();
  const was = useRef(at);
  useEffect(() => {
    if (was.current === at) return;
    was.current = at;
    if (location.hash) return; // the place that is named takes it
    // What the page asks for first may stand in for it for a moment.
    let tries = 0;
    const look = () => {
      const taken = document.activeElement;
      // A field that took the focus by itself keeps it.
      if (taken instanceof HTMLInputElement || taken instanceof HTMLTextAreaElement || document.querySelector("dialog"))
        return;
      const h = heading();
      if (h) h.focus({ preventScroll: true });
      else if (tries++ < 60) requestAnimationFrame(look);
    };
    const frame = requestAnimationFrame(look);
    return () => cancelAnimationFrame(frame);
  }, [at]);
}
