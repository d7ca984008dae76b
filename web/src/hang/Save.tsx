import { useState } from "react";
import { useWork } from "../bench/work";
import { download, fine, png } from "../ui/picture";
import { around, type Side } from "./Hang";

/** Save keeps or copies the picture that is shown, as SVG at true scale or as PNG. */
export function Save({ side, turn, section }: { side: Side; turn: number; section: number }) {
  const { id, document, revision } = useWork();
  const [said, setSaid] = useState("");
  const angle = side === "turned" ? turn : side === "back" ? 180 : 0;
  const alone = around(side) ? `&look=${side}&section=${section}` : "";
  const url = `/api/pieces/${id}/picture.svg?turn=${angle}&scale=${fine}&of=${revision}${alone}`;
  const seen = {
    face: "",
    back: ", back",
    both: "",
    turned: `, turned ${angle}`,
    end: ", end",
    unrolled: ", unrolled",
  };
  const name = `${document.name || "piece"}${seen[side]}`;
  const run = async (act: () => Promise<string>) => {
    try {
      setSaid(await act());
    } catch (e) {
      setSaid(`It could not be done: ${e instanceof Error ? e.message : e}`);
    }
  };
  const text = async () => {
    const r = await fetch(url);
    if (!r.ok) throw new Error("the picture cannot be drawn");
    return r.text();
  };
  const ways: [string, () => Promise<string>][] = [
    ["PNG", async () => download(await png(await text()), `${name}.png`, "Saved as PNG.")],
    ["Copy SVG", async () => navigator.clipboard.writeText(await text()).then(() => "Copied as SVG.")],
    [
      "Copy PNG",
      () =>
        navigator.clipboard.write([new ClipboardItem({ "image/png": text().then(png) })]).then(() => "Copied as PNG."),
    ],
  ];
  return (
    <details className="dropdown dropdown-end dropdown-top absolute right-2 bottom-2">
      <summary className="btn btn-xs">
        Save {alone ? "picture" : angle === 0 ? "face" : angle === 180 ? "back" : "picture"}
      </summary>
      <ul className="menu dropdown-content z-20 w-44 rounded-box border border-base-300 bg-base-100 p-1">
        <li>
          <a href={url} download={`${name}.svg`}>
            SVG, true scale
          </a>
        </li>
        {ways.map(([what, act]) => (
          <li key={what}>
            <button type="button" onClick={() => run(act)}>
              {what}
            </button>
          </li>
        ))}
        <li>
          <p role="status" className="pointer-events-none text-sm empty:hidden">
            {said}
          </p>
        </li>
      </ul>
    </details>
  );
}
