/** lines reads an answer that comes a line of JSON at a time; empty lines say that it still stands. */
export async function* lines<T>(answer: Response): AsyncGenerator<T> {
  const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  while (reader) {
    const { value, done } = await reader.read();
    if (done) return;
    rest += value;
    const all = rest.split("\n");
    rest = all.pop() ?? "";
    for (const line of all) if (line !== "") yield JSON.parse(line) as T;
  }
}
