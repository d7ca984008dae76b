import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { api } from "../api/client";
import type { Bench } from "../api/types.gen";
import { Alert } from "../ui/Alert";

/** OpenFile hangs a piece that was saved to a file. */
export function OpenFile({ name }: { name: string }) {
  const [, go] = useLocation();
  const client = useQueryClient();
  const [failed, setFailed] = useState("");
  const open = async (input: HTMLInputElement) => {
    const file = input.files?.[0];
    input.value = "";
    if (!file) return;
    setFailed("");
    if (file.size > 1_000_000) {
      setFailed(`${file.name} is larger than 1 MB; that is no piece.`);
      return;
    }
    let document: unknown;
    try {
      document = JSON.parse(await file.text());
    } catch (e) {
      setFailed(`${file.name} is no piece: ${e instanceof Error ? e.message : "it is not JSON"}.`);
      return;
    }
    try {
      const b = await api.post<Bench>("/pieces", { document, name: name.trim() || undefined });
      client.invalidateQueries({ queryKey: ["tags"] });
      go(`/piece/${b.id}/tie`);
    } catch (e) {
      setFailed(`${file.name}: ${e instanceof Error ? e.message : "it could not be opened."}`);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label className="btn btn-sm focus-within:outline-2 focus-within:outline-secondary">
        Open a piece from a file
        <input type="file" accept=".json,application/json" className="sr-only" onChange={(e) => open(e.target)} />
      </label>
      {failed && <Alert>{failed}</Alert>}
    </div>
  );
}
