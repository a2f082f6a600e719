// names.ts — plain names for colours, so that layers can be told apart in a list.
import { colorsNamed, differenceEuclidean, nearest } from 'culori';

const nameOf = nearest(Object.keys(colorsNamed), differenceEuclidean('oklab'));
const PREFIX =
  /^(light|dark|medium|pale|deep|dim|hot|blue|green|yellow|orange|indian|rosy|sandy|saddle|slate|royal|forest|lawn|olive|lime|spring|sea|steel|midnight|cadet|powder|sky|dodger|cornflower|alice|ghost|white|floral|antique|old|navajo|misty|papaya|peach|lemon|corn|honey|mint|burly|golden|fire|lavender|rebecca)(?=[a-z])/;

/** The CSS colour name nearest in OKLab, in words: `Dark slate gray`. */
export function colourName(hex: string): string {
  let rest = nameOf(hex, 1)[0] ?? hex;
  const words: string[] = [];
  for (let match = PREFIX.exec(rest); match; match = PREFIX.exec(rest)) {
    words.push(match[0]);
    rest = rest.slice(match[0].length);
  }
  const text = [...words, rest].join(' ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** `name`, or `name 2`, `name 3` … whichever is not taken yet; it is then. */
export function uniqueName(name: string, taken: Set<string>): string {
  let unique = name;
  for (let n = 2; taken.has(unique); n++) unique = `${name} ${n}`;
  taken.add(unique);
  return unique;
}
