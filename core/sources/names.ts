// names.ts — plain names for colours, so that layers can be told apart in a list.
import { colorsNamed, converter } from 'culori';

const oklab = converter('oklab');
const NAMED = Object.keys(colorsNamed).map((name) => ({ name, ...oklab(name)! }));

/** The CSS colour nearest in OKLab. */
function nameOf(hex: string): string {
  const colour = oklab(hex);
  if (!colour) return hex;
  let [nearest, least] = [hex, Infinity];
  for (const { name, l, a, b } of NAMED) {
    const distance = (l - colour.l) ** 2 + (a - colour.a) ** 2 + (b - colour.b) ** 2;
    if (distance < least) [nearest, least] = [name, distance];
  }
  return nearest;
}

const PREFIX =
  /^(light|dark|medium|pale|deep|dim|hot|blue|green|yellow|orange|indian|rosy|sandy|saddle|slate|royal|forest|lawn|olive|lime|spring|sea|steel|midnight|cadet|powder|sky|dodger|cornflower|alice|ghost|white|floral|antique|old|navajo|misty|papaya|peach|lemon|corn|honey|mint|burly|golden|fire|lavender|rebecca)(?=[a-z])/;

/** The CSS colour name nearest in OKLab, in words: `Dark slate gray`. */
export function colourName(hex: string): string {
  let rest = nameOf(hex);
  const words: string[] = [];
  for (let match = PREFIX.exec(rest); match; match = PREFIX.exec(rest)) {
    words.push(match[0]);
    rest = rest.slice(match[0].length);
  }
  const text = [...words, rest].join(' ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}
