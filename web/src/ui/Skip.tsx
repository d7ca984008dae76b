/** Skip is the first stop of the Tab key: past what stands on every page, to its work. */
export function Skip() {
  return (
    <button
      type="button"
      className="btn btn-sm sr-only focus:not-sr-only focus:absolute focus:top-1 focus:left-1 focus:z-50"
      onClick={() => {
        const work = document.querySelector<HTMLElement>("main");
        work?.setAttribute("tabindex", "-1");
        work?.focus();
      }}
    >
      Skip to the work
    </button>
  );
}
