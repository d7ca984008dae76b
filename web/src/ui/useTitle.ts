import { useEffect } from "react";

/** useTitle names the page: what it shows, and of which piece. */
export function useTitle(title: string) {
  useEffect(() => {
    document.title = title ? `${title} · Nimble Bight` : "Nimble Bight";
  }, [title]);
}
