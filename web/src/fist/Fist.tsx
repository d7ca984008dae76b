import { useState } from "react";
import { Link, useLocation } from "wouter";
import { api } from "../api/client";
import { useCatalogue, useChange, useDrawer, useFist, useSettings } from "../api/queries";
import type { Bench, CreateRequest, FistRequest } from "../api/types.gen";
import { Alert } from "../ui/Alert";
import { SettingsMenu } from "../ui/SettingsMenu";
import { useKeys } from "../ui/useKeys";
import { useTitle } from "../ui/useTitle";
import { Answer } from "./Answer";
import { Asking } from "./Asking";
import { Chart } from "./Chart";
import { CoreDrawer } from "./CoreDrawer";

/** Fist answers the quick question about a ball and its core, with no piece open. */
export function Fist() {
  const usual = useCatalogue().data?.ball;
  const spools = useDrawer();
  useTitle("Balls and cores");
  if (!usual || spools.isPending) {
    return (
      <main className="p-6" role="status" data-wait>
        Drawing balls up…
      </main>
    );
  }
  return <Asked first={{ ...usual, stuff: spools.data?.[0]?.stuff ?? usual.stuff }} />;
}

function Asked({ first }: { first: FistRequest }) {
  const [ask, setAsk] = useState(first);
  const { units } = useSettings();
  const [, go] = useLocation();
  const answer = useFist(ask);
  // As the server took it: with a core that goes with how it is tied.
  const now = answer.data && !answer.isPlaceholderData ? answer.data.asked : ask;
  const hang = useChange((r: CreateRequest) => api.post<Bench>("/pieces", r), [["tags"]]);
  const set = (part: Partial<FistRequest>) => {
    setAsk({ ...now, ...part });
  };
  const a = answer.data;
  const tie = () => {
    if (!a?.ball || answer.isPlaceholderData || hang.isPending) return;
    hang.mutate({ document: a.piece }, { onSuccess: (b) => go(`/piece/${b.id}/tie`) });
  };
  useKeys({ t: tie });
  const failed = answer.error ?? hang.error;
  return (
    <div className="screen flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <h1 className="font-bold text-xl">
          Nimble Bight <span className="font-normal text-base opacity-80">balls and cores</span>
        </h1>
        <span className="flex-1" />
        <Link href="/" className="btn btn-ghost btn-sm">
          The rack
        </Link>
        <SettingsMenu />
        <button type="button" className="btn btn-primary btn-sm" disabled={!a?.ball} onClick={tie}>
          Tie this ball <kbd className="kbd kbd-xs border-primary-content bg-transparent text-primary-content">T</kbd>
        </button>
      </header>
      <main className="grid min-h-0 flex-1 content-start gap-4 overflow-y-auto p-4 md:grid-cols-[15rem_1fr] xl:grid-cols-[15rem_minmax(20rem,1fr)_27rem]">
        <Asking ask={now} answer={a} onSet={set} />
        <section aria-label="Cores and passes" className="flex min-w-0 flex-col gap-3">
          {failed && <Alert>{failed.message}</Alert>}
          {answer.isPending && (
            <p role="status" data-wait>
              Drawing balls up…
            </p>
          )}
          {a && <Chart ask={now} answer={a} units={units} onSet={set} />}
          {a && <CoreDrawer ask={now} judged={a.drawer} onSet={set} />}
        </section>
        <section aria-label="The ball" className="flex min-w-0 flex-col gap-3 md:col-span-2 xl:col-span-1">
          {a && <Answer ask={now} answer={a} settled={!answer.isPlaceholderData} onSet={set} />}
        </section>
      </main>
    </div>
  );
}
