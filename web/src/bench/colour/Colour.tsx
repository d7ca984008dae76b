import { useState } from "react";
import { Link } from "wouter";
import { useColourings, useDrawer } from "../../api/queries";
import type { Chosen, ColouringsRequest, Pair } from "../../api/types.gen";
import { eyeNames } from "../../hang/Hang";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { Problems } from "../../ui/Problems";
import { useWork } from "../work";
import { Along } from "./Along";
import { Chosens } from "./Chosens";
import { asked } from "./chosen";
import { type Eye, Ways } from "./Ways";

const sorts = [
  { id: "contrast", name: "bars that stand out most" },
  { id: "hidden", name: "a colour hidden inside" },
  { id: "stripes", name: "stripes across" },
  { id: "columns", name: "columns" },
  { id: "spirals", name: "spirals" },
  { id: "alike", name: "face and back alike" },
  { id: "most", name: "most of the first colour" },
  { id: "least", name: "least of the first colour" },
];

const eyes = Object.entries(eyeNames).map(([id, name]) => ({ id, name }));

/** Colour: every way in which the colours can fall, before anything is cut. */
export function Colour() {
  const { id, revision, document, eye, setEye } = useWork();
  const [chosen, setChosen] = useState<Chosen[]>([]);
  const [sort, setSort] = useState<NonNullable<ColouringsRequest["sort"]>>("contrast");
  const answer = useColourings(id, revision, { colours: chosen, sort });
  const ways = answer.data;
  return (
    <Panel
      title="Colour"
      lead="Every way in which the colours can fall, face and back. Choose one: the cords are put on and the rows begun so, and the cut follows."
    >
      <Chosens chosen={chosen} onSet={setChosen} />
      <div className="grid grid-cols-2 gap-2">
        <Choice label="First" value={sort} options={sorts} onSet={(v) => setSort(v as typeof sort)} />
        <Choice label="As seen by" value={eye} options={eyes} onSet={(v) => setEye(v as Eye)} />
      </div>
      <Along />
      <Problems error={answer.error} />
      {answer.isPending && (
        <p role="status" data-wait>
          Laying the colours out…
        </p>
      )}
      {ways && !answer.error && (
        <>
          {ways.close.map((p) => (
            <Close key={p.a + p.b} pair={p} enough={ways.enough} />
          ))}
          <p role="status" className="text-sm" data-testid="ways">
            {ways.different === 1
              ? "They fall in one way: mirrored or turned over, all others look like it."
              : `They fall in ${ways.different} ways that look different, of ${ways.all}.`}
            {ways.ways.length < ways.different ? ` The first ${ways.ways.length} are shown.` : ""}
          </p>
          <Link href={`/piece/${id}/colours?${chosen.map(asked).join("&")}`} className="btn btn-sm self-start">
            Sheet to choose from
          </Link>
          <Ways answer={ways} eye={eye} ids={document.cords.map((c) => c.id)} />
        </>
      )}
    </Panel>
  );
}

/** Close says of two cords that meet that they are hard to tell apart, with the nearest that is not. */
function Close({ pair, enough }: { pair: Pair; enough: number }) {
  const { edit } = useWork();
  const drawer = useDrawer().data ?? [];
  const instead = drawer.find((s) => s.stuff.colour === pair.instead);
  const take = () =>
    edit((d) => ({
      ...d,
      cords: d.cords.map((c) =>
        c.stuff.colour === pair.a && pair.instead
          ? { ...c, stuff: { ...c.stuff, colour: pair.instead, label: instead?.stuff.label ?? instead?.name } }
          : c,
      ),
    }));
  return (
    <div
      className="flex flex-wrap items-center gap-2 rounded-box border border-warning p-2 text-sm"
      data-testid="close"
    >
      <span className="min-w-0 flex-1">
        <Swatch colour={pair.a} /> {pair.name_a} and <Swatch colour={pair.b} /> {pair.name_b} meet, and{" "}
        {pair.eye === "usual" ? "any eyes" : eyeNames[pair.eye]} hardly tell them apart: they differ by{" "}
        {pair.difference.toFixed(0)}, and from {enough} on two cords are told apart at the table.
      </span>
      {instead && (
        <button type="button" className="btn btn-xs" onClick={take}>
          Take {instead.name} instead
        </button>
      )}
    </div>
  );
}
