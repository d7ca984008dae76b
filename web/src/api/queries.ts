import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, told } from "./client";
import { moveFrames } from "./facts.gen";
import { lines } from "./lines";
import { fetchPicture } from "./plates";
import type {
  Along,
  Card,
  Catalogue,
  CatalogueKnot,
  Change,
  ChangedRequest,
  Colourings,
  ColouringsRequest,
  Document,
  DrawerCore,
  End,
  Entry,
  FistAnswer,
  FistRequest,
  Folder,
  Grown,
  Inspect,
  JudgeRequest,
  Kept,
  Leading,
  Offer,
  Pace,
  Pair,
  Palette,
  Phone,
  Picture,
  PlaceAnswer,
  Plan,
  Planned,
  Revision,
  Settings,
  SlipAt,
  Spool,
  StartOffer,
  StartRequest,
  State,
  Suggested,
  Swatch,
  Tag,
  Thing,
  ThroughAnswer,
  ThroughRequest,
  Trained,
  Verdict,
} from "./types.gen";

export function useTags(bin = false) {
  return useQuery({
    queryKey: ["tags", bin],
    queryFn: () => api.get<Tag[]>(bin ? "/bin" : "/pieces"),
    staleTime: 0,
    // Figures that are still being worked out are asked for again.
    refetchInterval: (q) => (q.state.data?.some((t) => t.pending) ? 700 : false),
  });
}

export function useCatalogue() {
  return useQuery({ queryKey: ["catalogue"], queryFn: () => api.get<Catalogue>("/catalogue"), staleTime: Infinity });
}

/** useKnots are the knots of the catalogue by their ids. */
export function useKnots(): ReadonlyMap<string, CatalogueKnot> {
  return (
    useQuery({
      queryKey: ["catalogue"],
      queryFn: () => api.get<Catalogue>("/catalogue"),
      staleTime: Infinity,
      select: byId,
    }).data ?? none
  );
}

const none: ReadonlyMap<string, CatalogueKnot> = new Map();
const byId = (c: Catalogue) => new Map(c.knots.map((k) => [k.id, k]));

/** useOffers are all knots as something to add where so many strands hang and these cords are not used yet. */
export function useOffers(hanging: number, free: string[]) {
  const asked = new URLSearchParams([["hanging", String(hanging)], ...free.map((id) => ["free", id])]).toString();
  return useQuery({
    queryKey: ["offers", asked],
    queryFn: () => api.get<Offer[]>(`/offers?${asked}`),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
}

/** useEnds are the ends of a piece with their finishes, also while it cannot be planned with them. */
export function useEnds(id: number, revision: number | undefined) {
  return useQuery({
    queryKey: ["ends", id, revision],
    queryFn: () => api.get<End[]>(`/pieces/${id}/ends`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useLimits are the most knots of a section and strands of a piece, as the server knows them. */
export function useLimits() {
  const known = useCatalogue().data;
  const none = Number.MAX_SAFE_INTEGER;
  return { knots: known?.most_knots ?? none, strands: known?.most_strands ?? none };
}

/** useTurnStep is by how much a piece is turned at once, degrees: the server draws these steps. */
export function useTurnStep() {
  return useCatalogue().data?.turn_step ?? 1;
}

const usual: Settings = {
  units: "mm",
  hand: "right",
  theme: "auto",
  one_in: 20,
  hold: "fingers",
  rest_min: 0,
  single_keys: "on",
  devices: { scale: "", caliper: "", pedal: "", printer: "" },
};

export function useSettings(): Settings {
  return (
    useQuery({ queryKey: ["settings"], queryFn: () => api.get<Settings>("/settings"), staleTime: Infinity }).data ??
    usual
  );
}

/** SettingsPart is some of the settings; what it does not name stays. */
export type SettingsPart = Partial<Omit<Settings, "devices">> & { devices?: Partial<Settings["devices"]> };

/**
 * useChangeSettings keeps some of the settings. They count once the server has them: a picture that was
 * asked for before would be drawn for the old hand and be kept as the new one's.
 */
export function useChangeSettings() {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "settings" },
    mutationFn: (part: SettingsPart) => api.patch<Settings>("/settings", part),
    onSuccess: (s) => client.setQueryData(["settings"], s),
    onError: () => client.invalidateQueries({ queryKey: ["settings"] }),
  });
}

export function usePlan(id: number, revision: number | undefined) {
  const { hand, units, one_in, hold } = useSettings();
  return useQuery({
    queryKey: ["plan", id, revision, hand, units, one_in, hold],
    queryFn: () => api.get<Plan>(`/pieces/${id}/plan`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/**
 * useDrawing has what a piece still wants drawn up, as long as the page is open, and asks for its figures again
 * when it is there. It gives a word about how far it has come, null where nothing is wanted.
 */
export function useDrawing(id: number, revision: number | undefined, rough: string[] | undefined): string | null {
  const client = useQueryClient();
  const [far, setFar] = useState<string | null>(null);
  const wanted = rough && rough.length > 0 ? rough.join() : "";
  useEffect(() => {
    if (wanted === "" || revision === undefined) {
      setFar(null);
      return;
    }
    const stop = new AbortController();
    setFar("waiting its turn");
    const read = async () => {
      const answer = await fetch(`/api/live/${id}`, { signal: stop.signal });
      for await (const s of lines<Partial<State> & { all?: boolean }>(answer)) {
        if (s.error) setFar(`it does not come to rest, so the near shape stays`);
        else if (s.step !== undefined && !s.done) setFar(`step ${s.step} of at most ${s.most}`);
        if (s.all) {
          await client.invalidateQueries({ queryKey: ["plan", id] });
          await client.invalidateQueries({ queryKey: ["picture", id] });
          client.invalidateQueries({ queryKey: ["tags"] });
        }
      }
    };
    read().catch(() => undefined); // the page went on, or the server is away: it is asked again with the next plan
    return () => stop.abort();
  }, [id, revision, wanted, client]);
  return far;
}

export interface Look {
  /** how far the piece is turned, degrees: 0 shows its face, 180 its back; best shows its shape best */
  turn: number | "best";
  /** pixels a millimetre the picture is meant for */
  scale: number;
  /** actions done, for the picture at the vise */
  until?: number;
  /** how far the last of them has come, in its frames; 0 for the strand led and nothing drawn up */
  along?: number;
  /** one section alone, from its working end or with its outside rolled off */
  as?: "end" | "unrolled";
  section?: number;
}

export const alongSteps = moveFrames;

const lookedAs = (look: Look) => (look.as ? `&look=${look.as}&section=${look.section ?? 0}` : "");

/** pictureKey is what a picture is kept by. */
export function pictureKey(id: number, revision: number | undefined, hand: string, look: Look) {
  return ["picture", id, revision, hand, look.turn, look.scale, look.until ?? 0, look.along ?? 0, lookedAs(look)];
}

/** picturePath is where a picture is asked for. */
export function picturePath(id: number, look: Look): string {
  const along = look.along ? `&along=${look.along / alongSteps}` : "";
  const until = look.until ? `&until=${look.until}${along}` : "";
  return `/pieces/${id}/picture?turn=${look.turn}&scale=${look.scale}${until}${lookedAs(look)}`;
}

/** pictureQuery asks for a picture. */
export function pictureQuery(id: number, revision: number | undefined, hand: string, look: Look) {
  return {
    queryKey: pictureKey(id, revision, hand, look),
    queryFn: () => fetchPicture(`${id} ${look.turn} ${look.scale}${lookedAs(look)}`, picturePath(id, look)),
    staleTime: Infinity,
  };
}

export function usePicture(id: number, revision: number | undefined, look: Look, seen = true) {
  const { hand } = useSettings();
  return useQuery({
    ...pictureQuery(id, revision, hand, look),
    enabled: revision !== undefined && seen,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export function useKnotPicture(id: string) {
  return useQuery({
    queryKey: ["knot", id],
    queryFn: () => api.get<Picture>(`/knots/${id}/picture`),
    staleTime: Infinity,
  });
}

export function useFolder() {
  return useQuery({ queryKey: ["folder"], queryFn: () => api.get<Folder>("/folder"), staleTime: Infinity });
}

export function useRevisions(id: number, revision: number | undefined) {
  return useQuery({
    queryKey: ["revisions", id, revision],
    queryFn: () => api.get<Revision[]>(`/pieces/${id}/revisions`),
  });
}

/** useToWanted are the counts that bring a piece nearest to its wanted length. */
export function useToWanted(id: number, revision: number | undefined) {
  return useQuery({
    queryKey: ["to-wanted", id, revision],
    queryFn: () => api.get<Grown[]>(`/pieces/${id}/to-wanted`),
    enabled: revision !== undefined,
    placeholderData: keepPreviousData,
  });
}

/** useStarts are the pieces that can be begun; they come one after the other. */
export function useStarts(ask: StartRequest) {
  const client = useQueryClient();
  const queryKey = ["starts", ask];
  return useQuery({
    queryKey,
    queryFn: async ({ signal }) => {
      let all: StartOffer[] = [];
      for await (const o of told<StartOffer>("/start", ask, signal)) {
        all = [...all, o];
        client.setQueryData(queryKey, all);
      }
      return all;
    },
    staleTime: 60_000,
    retry: false,
  });
}

export function useDrawer() {
  return useQuery({ queryKey: ["drawer"], queryFn: () => api.get<Spool[]>("/drawer") });
}

/** useSwatches are all swatches and weighings that are kept. */
export function useSwatches() {
  return useQuery({ queryKey: ["swatches"], queryFn: () => api.get<Kept[]>("/swatches") });
}

/** learnt are the queries whose answers change with what is known of the maker's cords and hand. */
export const learnt = [["swatches"], ["plan"], ["card"], ["picture"], ["tags"], ["inspect"], ["judged"]];

/** usePlanned is what a swatch is planned to measure before anything is known. */
export function usePlanned(swatch: Swatch | null) {
  return useQuery({
    queryKey: ["planned", swatch],
    queryFn: () => api.post<Planned>("/swatches/plan", swatch),
    enabled: swatch !== null,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useDraw is the picture of a document that is not kept. */
export function useDraw(document: Document) {
  return useQuery({
    queryKey: ["draw", document],
    queryFn: () => api.post<Picture>("/draw?scale=3", { document }),
    staleTime: Infinity,
    retry: false,
  });
}

/** useCard is what lies on the table for a piece. */
export function useCard(id: number, revision: number | undefined) {
  const { hand, units, one_in, hold } = useSettings();
  return useQuery({
    queryKey: ["card", id, revision, hand, units, one_in, hold],
    queryFn: () => api.get<Card>(`/pieces/${id}/card`),
    enabled: revision !== undefined,
    retry: false,
  });
}

export function useLog(id: number) {
  return useQuery({ queryKey: ["log", id], queryFn: () => api.get<Entry[]>(`/pieces/${id}/log`) });
}

/**
 * useChange runs a request and has the named queries read again. What is on its way already was asked for
 * before the change, so it is given up: without data to its name it would be taken for the answer. done is
 * called as soon as the request has succeeded.
 */
export function useChange<T, R = void>(run: (v: T) => Promise<R>, again: unknown[][], done?: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: run,
    onSuccess: () => {
      done?.(); // before what follows is read: what is typed then is already the next
      return Promise.all(
        again.map(async (queryKey) => {
          await client.cancelQueries({ queryKey });
          await client.invalidateQueries({ queryKey });
        }),
      );
    },
  });
}

/** useFist asks about a ball; what was said before stays while the next answer comes. */
export function useFist(ask: FistRequest) {
  return useQuery({
    queryKey: ["fist", ask],
    queryFn: () => api.post<FistAnswer>("/fist", ask),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useFistPicture is the ball as it hangs, turned and tilted by degrees, or one of its six faces from 1. */
export function useFistPicture(ask: FistRequest, face: number, enabled: boolean, turn = 0, tilt = 0) {
  return useQuery({
    queryKey: ["fist picture", ask, face, turn, tilt],
    queryFn: () => api.post<Picture>("/fist/picture", { ...ask, face, turn, tilt }),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    enabled,
    retry: false,
  });
}

/** useCautionsRead are the cautions that were read in full once; undefined while that is not known. */
export function useCautionsRead() {
  return useQuery({ queryKey: ["cautions"], queryFn: () => api.get<string[]>("/cautions"), staleTime: Infinity }).data;
}

/** useReadCaution notes that a caution was read. */
export function useReadCaution() {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "cautions" },
    mutationFn: (id: string) => api.post<string[]>(`/cautions/${id}`, {}),
    onSuccess: (all) => client.setQueryData(["cautions"], all),
  });
}

/** useThrough is how cords pass a hole together. */
export function useThrough(request: ThroughRequest) {
  return useQuery({
    queryKey: ["through", request],
    queryFn: () => api.post<ThroughAnswer>("/through", request),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useChanged is what no longer holds of a piece as it was; null asks nothing. */
export function useChanged(request: ChangedRequest | null) {
  return useQuery({
    queryKey: ["changed", request],
    queryFn: () => api.post<Change[]>("/changed", request),
    enabled: request !== null,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useInspect is what to inspect on a tied piece, and its sizes. */
export function useInspect(id: number, revision: number | undefined) {
  const { hand, units } = useSettings();
  return useQuery({
    queryKey: ["inspect", id, revision, hand, units],
    queryFn: () => api.get<Inspect>(`/pieces/${id}/inspect`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useSlips are the likeliest wrong states of a piece when so many actions are done; undefined asks nothing. */
export function useSlips(id: number, revision: number | undefined, done: number) {
  const { hand } = useSettings();
  return useQuery({
    queryKey: ["slips", id, revision, hand, done],
    queryFn: () => api.get<SlipAt[]>(`/pieces/${id}/slips?done=${done}`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}

/** useInspected is the picture of the right or the wrong state of something to inspect. */
export function useInspected(id: number, revision: number | undefined, item: string, state: "right" | "wrong") {
  const { hand } = useSettings();
  return useQuery({
    queryKey: ["inspected", id, revision, hand, item, state],
    queryFn: () => api.get<Picture>(`/pieces/${id}/inspect/${item}/${state}?scale=4`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}

/** useJudged is what measured sizes of a piece mean. */
export function useJudged(id: number, revision: number | undefined, measured: JudgeRequest) {
  return useQuery({
    queryKey: ["judged", id, revision, measured],
    queryFn: () => api.post<Verdict[]>(`/pieces/${id}/judge`, measured),
    enabled: revision !== undefined && (measured.length_mm !== undefined || measured.width_mm !== undefined),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useThings are the beads, the hardware or the tools of the drawer. */
export function useThings(shelf: "beads" | "hardware" | "tools") {
  return useQuery({ queryKey: ["things", shelf], queryFn: () => api.get<Thing[]>(`/${shelf}`) });
}

/** useCores are the cores of the drawer. */
export function useCores() {
  return useQuery({ queryKey: ["cores"], queryFn: () => api.get<DrawerCore[]>("/cores") });
}

/** useColourings are the ways in which the colours of a piece can fall. */
export function useColourings(id: number, revision: number | undefined, request: ColouringsRequest) {
  const { hand } = useSettings();
  return useQuery({
    queryKey: ["colourings", id, revision, hand, request],
    queryFn: () => api.post<Colourings>(`/pieces/${id}/colourings`, request),
    enabled: revision !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useAlong is what changes along the cords of a piece. */
export function useAlong(id: number, revision: number | undefined) {
  const { hand } = useSettings();
  return useQuery({
    queryKey: ["along", id, revision, hand],
    queryFn: () => api.get<Along>(`/pieces/${id}/along`),
    enabled: revision !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** useEyes are colours as an eye sees them, by their hex; the usual eye asks nothing. */
export function useEyes(eye: Pair["eye"], colours: string[]) {
  const asked = [...new Set(colours)].sort();
  return useQuery({
    queryKey: ["eyes", eye, asked],
    queryFn: () =>
      api.get<Record<string, string>>(
        `/eyes?eye=${eye}&${asked.map((c) => `colour=${encodeURIComponent(c)}`).join("&")}`,
      ),
    enabled: eye !== "usual" && asked.length > 0,
    staleTime: Infinity,
  }).data;
}

/** useTrained are the knots that can be led, and how surely each is known. */
export function useTrained() {
  return useQuery({ queryKey: ["trained"], queryFn: () => api.get<Trained[]>("/trainer"), staleTime: 0 });
}

/**
 * useLeading is a knot that is led up to a crossing, or drawn up so far once it is led; slips are the crossings that
 * were passed the wrong way.
 */
export function useLeading(knot: string, at: number, drawn: number, slips: number[]) {
  return useQuery({
    queryKey: ["leading", knot, at, drawn, slips],
    queryFn: () => api.get<Leading>(`/trainer/${knot}?at=${at}&drawn=${drawn}&slips=${slips.join(",")}`),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** usePaces are how long the maker takes for each knot. */
export function usePaces() {
  return useQuery({ queryKey: ["paces"], queryFn: () => api.get<Pace[]>("/paces"), staleTime: 0 });
}

/** useTimes are how long a piece has taken at the vise. */
export function useTimes(id: number) {
  return useQuery({
    queryKey: ["times", id],
    queryFn: () => api.get<PlaceAnswer>(`/pieces/${id}/place`),
    select: (a) => a.times,
    staleTime: 0,
  });
}

/** usePhone is how a piece is opened at the vise on another device. */
export function usePhone(id: number) {
  return useQuery({ queryKey: ["phone", id], queryFn: () => api.get<Phone>(`/pieces/${id}/phone`), retry: false });
}

/** usePalettes are colours that are kept together by a name. */
export function usePalettes() {
  return useQuery({ queryKey: ["palettes"], queryFn: () => api.get<Palette[]>("/palettes") });
}

/** useGoesWith are the cords of the drawer that go with a colour; "" asks nothing. */
export function useGoesWith(colour: string) {
  return useQuery({
    queryKey: ["goes-with", colour],
    queryFn: () => api.get<Suggested[]>(`/goes-with?colour=${encodeURIComponent(colour)}`),
    enabled: colour !== "",
    placeholderData: keepPreviousData,
  });
}
