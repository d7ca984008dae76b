/** finds tells whether every word that is looked for begins a word of the text. */
export function finds(looked: string, text: string): boolean {
  const words = text.toLowerCase().split(/[^\p{L}\p{N}#]+/u);
  return looked
    .toLowerCase()
    .split(/[^\p{L}\p{N}#]+/u)
    .filter(Boolean)
    .every((w) => words.some((t) => t.startsWith(w)));
}
