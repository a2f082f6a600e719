// colours.ts — the 255 indexed colours of DXF. Indices 10 to 249 step through 24 hues, each in five shades, plain and pale.

const NAMED: Readonly<Record<number, string>> = {
  1: '#ff0000',
  2: '#ffff00',
  3: '#00ff00',
  4: '#00ffff',
  5: '#0000ff',
  6: '#ff00ff',
  // Black on paper, white on a dark screen.
  7: '#000000',
  8: '#808080',
  9: '#c0c0c0',
  250: '#333333',
  251: '#505050',
  252: '#696969',
  253: '#828282',
  254: '#bebebe',
  255: '#ffffff',
};
/** From memory. */
const SHADES = [1, 0.65, 0.5, 0.3, 0.15];

/** `#rrggbb` of an index; black for what is none. */
export function indexedColour(index: number): string {
  const named = NAMED[index];
  if (named || !(index >= 10 && index <= 249)) return named ?? '#000000';
  const hue = Math.floor((index - 10) / 10) * 15;
  const value = SHADES[Math.floor((index % 10) / 2)]!;
  const pale = index % 2 === 1 ? 0.5 : 0;
  const channel = (shift: number) => {
    const k = (shift + hue / 60) % 6;
    const full = 1 - Math.max(0, Math.min(k, 4 - k, 1));
    return Math.round(255 * value * (full * (1 - pale) + pale));
  };
  return hexOf(channel(5), channel(3), channel(1));
}

const hexOf = (...channels: number[]) => `#${channels.map((v) => v.toString(16).padStart(2, '0')).join('')}`;

const rgb = (hex: string) => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));

/** The index whose colour is nearest. */
export function nearestIndex(hex: string): number {
  const wanted = rgb(hex);
  let [best, least] = [7, Infinity];
  for (let index = 1; index <= 255; index++) {
    const distance = rgb(indexedColour(index)).reduce((sum, v, i) => sum + (v - wanted[i]!) ** 2, 0);
    if (distance < least) [best, least] = [index, distance];
  }
  return best;
}

/** A 24-bit colour as group code 420 has it. */
export const trueColour = (value: number): string => hexOf((value >> 16) & 255, (value >> 8) & 255, value & 255);
