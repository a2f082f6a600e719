// names.ts — names that are not taken yet.

/** Letters of a name that is going to be numbered: leaves room for the number in the 120 that names may have. */
export const MOST_BEFORE_NUMBER = 110;

/** `name`, or `name 2`, `name 3` … whichever is not taken yet; it is then. */
export function uniqueName(name: string, taken: Set<string>): string {
  let unique = name;
  for (let n = 2; taken.has(unique); n++) unique = `${name} ${n}`;
  taken.add(unique);
  return unique;
}
