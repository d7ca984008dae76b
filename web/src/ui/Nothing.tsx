import { Link } from "wouter";

/** Nothing is the designed state of a page that has nothing to show. */
export function Nothing(p: { title: string; text: string; again?: () => void }) {
  return (
    <main className="flex h-full flex-col items-center justify-center gap-4 p-8 text-center">
      <svg width="72" height="96" viewBox="0 0 72 96" aria-hidden="true">
        <path d="M8 6h56" stroke="currentColor" strokeWidth="4" />
        <path d="M36 6v40a12 12 0 1 0 12 12" fill="none" stroke="currentColor" strokeWidth="3" />
      </svg>
      <h1 className="text-2xl font-semibold">{p.title}</h1>
      <p className="max-w-md">{p.text}</p>
      <div className="flex gap-2">
        {p.again && (
          <button type="button" className="btn btn-primary" onClick={p.again}>
            Try again
          </button>
        )}
        <Link href="/" className="btn">
          To the rack
        </Link>
      </div>
    </main>
  );
}
