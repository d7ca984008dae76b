// Not every browser gives a button the focus when it is pressed; so what was pressed last is remembered.

let pressed: Element | null = null;
document.addEventListener(
  "click",
  (e) => {
    pressed = e.target instanceof Element ? e.target.closest("button, a, summary") : null;
  },
  true,
);

/** opener is from where what opens now was opened: what has the focus, or what was pressed last. */
export function opener(): HTMLElement | null {
  const at = document.activeElement;
  const from = at && at !== document.body ? at : pressed;
  return from instanceof HTMLElement ? from : null;
}
