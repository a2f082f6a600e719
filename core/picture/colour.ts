// colour.ts — sRGB and OKLab, fast enough for every pixel. sRGB transfer after IEC 61966-2-1; OKLab after Björn Ottosson,
// "A perceptual color space for image processing" (2020).

/** A colour in OKLab: lightness 0 … 1, green–red, blue–yellow. */
export type Lab = readonly [l: number, a: number, b: number];
/** Encoded sRGB, 0 … 255 each. */
export type Rgb = readonly [r: number, g: number, b: number];

/** Encoded sRGB 0 … 1 to linear light 0 … 1. */
export function toLinear(v: number): number {
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
}

/** Linear light 0 … 1 to encoded sRGB 0 … 1. */
export function toEncoded(v: number): number {
  return v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055;
}

/** Linear light of each of the 256 encoded values. */
export const LINEAR = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** Grey of an encoded colour, 0 … 1: luma with the weights of ITU-R BT.709, in encoded values as renderers blend them. */
export function luma(r: number, g: number, b: number): number {
  return (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;
}

/** @param r,g,b linear light 0 … 1 */
export function labOfLinear(r: number, g: number, b: number): Lab {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** @param r,g,b encoded sRGB, whole numbers 0 … 255 */
export function labOf(r: number, g: number, b: number): Lab {
  return labOfLinear(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!);
}

/** The nearest encoded sRGB colour; what lies outside the gamut is clipped. */
export function rgbOf([l, a, b]: Lab): Rgb {
  const x = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const y = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const z = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const encoded = (v: number) => Math.round(255 * toEncoded(Math.min(1, Math.max(0, v))));
  return [
    encoded(4.0767416621 * x - 3.3077115913 * y + 0.2309699292 * z),
    encoded(-1.2684380046 * x + 2.6097574011 * y - 0.3413193965 * z),
    encoded(-0.0041960863 * x - 0.7034186147 * y + 1.707614701 * z),
  ];
}

/** Distance of two colours in OKLab; about 0.02 is just seen side by side. */
export function labDistance(p: Lab, q: Lab): number {
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

/** `#rrggbb` */
export function hexOf([r, g, b]: Rgb): string {
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`;
}

/** @param hex `#rrggbb` */
export function rgbOfHex(hex: string): Rgb {
  const v = Number.parseInt(hex.slice(1), 16);
  return [v >> 16, (v >> 8) & 255, v & 255];
}

/** Linear red, green and blue of `#rrggbb`, 0 … 1. */
export const linearOfHex = (hex: string): number[] => rgbOfHex(hex).map((v) => LINEAR[v]!);

/** OKLab lightness of `#rrggbb`, 0 … 1. */
export const lightnessOfHex = (hex: string): number => labOf(...rgbOfHex(hex))[0];
