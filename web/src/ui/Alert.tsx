import type { ReactNode } from "react";

/** Alert says what went wrong, or what to beware of, where it happened. */
export function Alert(p: { kind?: "error" | "warning"; children: ReactNode; id?: string }) {
  return (
    <div
      role="alert"
      id={p.id}
      className={`alert alert-outline ${p.kind === "warning" ? "alert-warning" : "alert-error"} px-3 py-1.5 text-sm`}
    >
      <span className="min-w-0 [overflow-wrap:anywhere]">{p.children}</span>
    </div>
  );
}
