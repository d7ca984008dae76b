import { Link } from "wouter";
import { SettingsMenu } from "../ui/SettingsMenu";
import { useTitle } from "../ui/useTitle";
import { Begin } from "./Begin";

/** NewPiece is the page on which a piece is begun. */
export function NewPiece() {
  useTitle("A new piece");
  return (
    <div className="screen flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <Link href="/" className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Rack
        </Link>
        <h1 className="font-bold text-xl">A new piece</h1>
        <span className="flex-1" />
        <SettingsMenu />
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto p-4">
        <Begin />
      </main>
    </div>
  );
}
