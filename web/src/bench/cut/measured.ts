/** measured are the lengths of a form that were said, without those that were left empty. */
export function measured(form: Record<string, number | undefined>): Record<string, number> {
  return Object.fromEntries(Object.entries(form).filter((e): e is [string, number] => e[1] !== undefined));
}
