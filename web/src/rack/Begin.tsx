import { useState } from "react";
import { useLocation } from "wouter";
import { api, Failed } from "../api/client";
import { useCatalogue, useChange, useStarts, useTags } from "../api/queries";
import type { Bench, CreateRequest, StartOffer, StartRequest } from "../api/types.gen";
import { useWalk } from "../bench/walk";
import { Alert } from "../ui/Alert";
import { Choice } from "../ui/fields";
import { useKept } from "../ui/kept";
import { LengthInput } from "../ui/LengthInput";
import { Problems } from "../ui/Problems";
import { Refusals } from "../ui/refusals";
import { Have } from "./Have";
import { Offer } from "./Offer";
import { OpenFile } from "./OpenFile";

/** Begin asks what a maker knows before a piece is begun, and shows what can be tied: in those cords, that long. */
export function Begin() {
  const [ask, setAsk] = useKept<StartRequest>("begin", { cords: [] });
  const [name, setName] = useState("");
  const kinds = useCatalogue().data?.kinds ?? [];
  const offers = useStarts(ask);
  const [, go] = useLocation();
  const first = useTags().data?.length === 0;
  const [walk, setWalk] = useWalk();
  const make = useChange((r: CreateRequest) => api.post<Bench>("/pieces", r), [["tags"]]);
  // The rack may be drawn anew before the piece is there, so the answer is awaited here; a refusal is said below.
  const take = (o: StartOffer) =>
    make.mutateAsync({ document: o.document, name: name.trim() || undefined } as CreateRequest).then(
      (b) => {
        if (first && !walk) setWalk({ piece: b.id }); // once, with the first piece of all
        go(`/piece/${b.id}/purpose`);
      },
      () => undefined,
    );
  const refused = offers.error instanceof Failed ? (offers.error.problem.errors ?? []) : [];
  const atFields = refused.length > 0 && refused.every((r) => r.path === "kind" || r.path === "length_mm");
  const all = offers.data ?? [];
  const can = all.filter((o) => !o.why);
  const cannot = all.filter((o) => o.why);
  const of = all[0]?.of ?? 0;
  return (
    <div className="grid gap-4 lg:grid-cols-[20rem_minmax(0,1fr)]">
      <Refusals.Provider value={refused}>
        <section aria-label="What you know" className="flex flex-col gap-3">
          <label className="flex flex-col gap-1">
            Its name, if you know it
            <input
              className="input input-sm w-full"
              value={name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <Choice
            label="What is it for?"
            path="kind"
            value={ask.kind ?? ""}
            options={[{ id: "", name: "anything" }, ...kinds]}
            onSet={(kind) => setAsk({ ...ask, kind: kind || undefined })}
          />
          <LengthInput
            label="How long?"
            path="length_mm"
            mm={ask.length_mm}
            optional
            hint="From the middle of the wire to the lowest tip. Leave it empty if the count decides."
            onSet={(length_mm) => setAsk({ ...ask, length_mm })}
          />
          <Have cords={ask.cords} onSet={(cords) => setAsk({ ...ask, cords })} />
          <OpenFile name={name} />
        </section>
      </Refusals.Provider>
      <section aria-label="What you can begin" className="flex min-w-0 flex-col gap-3" aria-busy={offers.isFetching}>
        {make.error && <Alert>{make.error.message}</Alert>}
        {!atFields && <Problems error={offers.error} />}
        <p role="status" data-testid="offers" className="text-sm" data-wait={offers.isFetching || undefined}>
          {offers.isFetching
            ? `Planning${of > 0 ? ` ${all.length} of ${of}` : ""}…`
            : offers.error
              ? "Nothing is planned."
              : `${can.length} ${can.length === 1 ? "piece" : "pieces"} to begin with${ask.cords.length > 0 ? " in your cords" : ""}.`}
        </p>
        {offers.isFetching && of > 0 && (
          <progress className="progress" value={all.length} max={of} aria-label="Planned" />
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(16rem,1fr))] gap-2" aria-label="Pieces to begin with">
          {can.map((o) => (
            <Offer key={o.pattern} offer={o} waits={make.isPending} onTake={() => take(o)} />
          ))}
        </ul>
        {cannot.length > 0 && (
          <details>
            <summary className="cursor-pointer">{cannot.length} more cannot be tied of these cords</summary>
            <ul className="mt-2 flex flex-col gap-1 text-sm">
              {cannot.map((o) => (
                <li key={o.pattern}>
                  <strong>{o.name}:</strong> {o.why}
                </li>
              ))}
            </ul>
          </details>
        )}
      </section>
    </div>
  );
}
