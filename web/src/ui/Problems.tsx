import { Failed } from "../api/client";
import { useSettings } from "../api/queries";
import { Alert } from "./Alert";
import { said } from "./units";

/** Problems are what a request was refused for, in the maker's units. */
export function Problems({ error }: { error: Error | null }) {
  const { units } = useSettings();
  if (!error) return null;
  const all = error instanceof Failed && error.problem.code !== "doubtful" ? (error.problem.errors ?? []) : [];
  if (all.length === 0) return <Alert>{said(error.message, units)}</Alert>;
  return (
    <Alert>
      {all.map((p) => (
        <span key={p.path + p.message} className="block">
          <strong>{spoken(p.path)}</strong> {said(p.message, units)}.
        </span>
      ))}
    </Alert>
  );
}

/** spoken is the last part of a path as it is said. */
function spoken(path: string): string {
  const words = path
    .replace(/\[(\d+)\]/g, (_, n: string) => ` ${Number(n) + 1}`)
    .replace(/_mm/g, "")
    .split(".")
    .map((w) => w.replaceAll("_", " "));
  return words.join(" ").replace(/^./, (c) => c.toUpperCase());
}
