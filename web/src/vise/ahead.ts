import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { alongSteps, type Look, pictureQuery, useSettings } from "../api/queries";
import { stepLook } from "./look";
import { pause } from "./putBy";

/** how long a move is looked at before the next is drawn ahead, ms */
const looked = 1500;

/** How long what was drawn ahead is kept where nobody comes to it, ms. */
const kept = 120_000;

/**
 * useAhead draws the frames of the move that is made at so many actions while the one before it is tied, so that it
 * then plays without a wait; undefined draws nothing.
 */
export function useAhead(id: number, revision: number, until: number | undefined, as: Pick<Look, "as" | "section">) {
  const client = useQueryClient();
  const { hand } = useSettings();
  const { as: from, section } = as;
  useEffect(() => {
    if (until === undefined || window.matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    const stop = new AbortController();
    const draw = async () => {
      await pause(looked, stop.signal);
      for (let along = 1; along <= alongSteps && !stop.signal.aborted; along++) {
        const look = { ...stepLook(until, along), as: from, section };
        await client.prefetchQuery({ ...pictureQuery(id, revision, hand, look), gcTime: kept });
      }
    };
    draw().catch(() => undefined); // out of reach: it is drawn when it is come to
    return () => stop.abort();
  }, [client, id, revision, hand, until, from, section]);
}
