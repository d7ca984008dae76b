import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { alongSteps, type Look, pictureQuery, useSettings } from "../api/queries";
import { stepLook } from "./look";
import { pause } from "./putBy";

/** How long a move is looked at, once its film has ended, before the next is drawn ahead, ms. */
const looked = 500;

/** How many frames of a film that plays are drawn ahead, beside the one that is seen. */
const soon = 2;

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

/**
 * useSoon draws the frames that a film comes to next while one of it is seen, so that they are there then: each so
 * many frames on; of a move that does not play, with 0, none.
 */
export function useSoon(id: number, revision: number, look: Look, step: number) {
  const client = useQueryClient();
  const { hand } = useSettings();
  const { turn, scale, until, along, as, section } = look;
  useEffect(() => {
    if (step === 0 || along === undefined) return;
    for (let n = along + step; n <= Math.min(along + soon * step, alongSteps); n += step)
      client.prefetchQuery(pictureQuery(id, revision, hand, { turn, scale, until, along: n, as, section }));
  }, [client, id, revision, hand, turn, scale, until, along, as, section, step]);
}
