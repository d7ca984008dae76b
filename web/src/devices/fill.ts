import type { DeviceEvent } from "./useDevices";

/** What a field takes stands in this attribute: the unit of a reading. */
export const takes = "data-takes";

/** The field that had the focus last, outside of the panel of the stand-ins. */
let field: HTMLInputElement | null = null;

/** watch follows the focus till the returned function is called. */
export function watch() {
  const follow = (e: FocusEvent) => {
    const at = e.target as Element;
    if (!at.closest("[data-devices]")) field = at instanceof HTMLInputElement ? at : null;
  };
  document.addEventListener("focusin", follow);
  return () => document.removeEventListener("focusin", follow);
}

/** inFocus is the field that a reading goes into: the one in focus, or in focus before the panel was. */
function inFocus(): HTMLInputElement | null {
  const at = document.activeElement;
  const here = at?.closest("[data-devices]") || at === document.body || at === null ? field : at;
  return here instanceof HTMLInputElement && here.isConnected ? here : null;
}

const called = { mm: "a length", g: "a weight" } as Record<string, string>;

/** fill writes a reading into the field in focus, as if it were typed, and says what was done. */
export function fill(e: DeviceEvent): string {
  const value = e.value ?? 0;
  const unit = e.unit ?? "";
  const reads = `The ${e.name} reads ${value} ${unit}`;
  const into = inFocus();
  if (!into) return `${reads}. Go into a field for ${called[unit]} first, and measure once more.`;
  const name = into.labels?.[0]?.textContent ?? into.getAttribute("aria-label") ?? "the field";
  const wants = into.getAttribute(takes);
  if (wants !== unit)
    return wants
      ? `${reads}; “${name}” takes ${called[wants]}. It stays as it is.`
      : `${reads}; “${name}” takes no reading. It stays as it is.`;
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
  set?.call(into, unit === "mm" ? `${value} mm` : String(value));
  into.dispatchEvent(new Event("input", { bubbles: true }));
  into.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", code: "Enter", bubbles: true }));
  return `${reads}: written into “${name}”.`;
}

/** press does what the page keys do: a page pedal is a keyboard with two keys. */
export function press(which: string | undefined) {
  const key = which === "back" ? "PageUp" : "PageDown";
  const at = document.activeElement?.closest("[data-devices]") ? document.body : (document.activeElement ?? document);
  for (const type of ["keydown", "keyup"])
    at.dispatchEvent(new KeyboardEvent(type, { key, code: key, bubbles: true, cancelable: true }));
}
