import type { ReactNode } from "react";
import { Link } from "wouter";

/** Paper is a page to print, with the way back and the button that prints it; neither is printed. */
export function Paper({ back, children }: { back: string; children: ReactNode }) {
  return (
    <main className="mx-auto max-w-[190mm] bg-base-100 p-6 print:max-w-none print:p-0">
      <div className="no-print mb-4 flex gap-2">
        <Link href={back} className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Bench
        </Link>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => window.print()}>
          Print
        </button>
      </div>
      {children}
    </main>
  );
}
