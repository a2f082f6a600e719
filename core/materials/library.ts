// library.ts — materials to begin with. Those of one certain colour bring it; all others keep what they are put on.
import { type Material, wholeOf } from './schema.ts';

export interface NamedMaterial {
  readonly id: string;
  readonly name: string;
  /** All but what is as by default; without a colour for one that keeps what it is put on. */
  readonly material: Omit<Material, 'colour'> & Partial<Pick<Material, 'colour'>>;
}

const SOLID = { opacity: 1, metalness: 0 } as const;

// Colours of metals are their reflectances at normal incidence; indices of refraction are those of handbooks (from memory).
export const LIBRARY = [
  { id: 'painted-wood', name: 'Painted wood', material: { ...SOLID, roughness: 0.62, coat: 0.15, coatRoughness: 0.5 } },
  { id: 'enamel', name: 'Enamel', material: { ...SOLID, roughness: 0.35, coat: 1, coatRoughness: 0.04 } },
  { id: 'lacquer', name: 'Lacquer', material: { ...SOLID, roughness: 0.12, coat: 1, coatRoughness: 0 } },
  { id: 'matt', name: 'Matt, no shine', material: { ...SOLID, roughness: 1, specular: 0 } },
  { id: 'paper', name: 'Paper', material: { ...SOLID, roughness: 0.95, specular: 0.3 } },
  { id: 'rubber', name: 'Rubber', material: { ...SOLID, roughness: 0.8, specular: 0.6 } },
  {
    id: 'felt',
    name: 'Felt',
    material: { ...SOLID, roughness: 1, specular: 0.2, sheen: '#ffffff', sheenRoughness: 0.6 },
  },
  { id: 'brass', name: 'Brushed brass', material: { opacity: 1, metalness: 1, roughness: 0.38, colour: '#e3c178' } },
  { id: 'gold', name: 'Gold leaf', material: { opacity: 1, metalness: 1, roughness: 0.22, colour: '#ffe29b' } },
  { id: 'copper', name: 'Copper', material: { opacity: 1, metalness: 1, roughness: 0.3, colour: '#fad0c0' } },
  { id: 'steel', name: 'Polished steel', material: { opacity: 1, metalness: 1, roughness: 0.12, colour: '#c9cdd0' } },
  {
    id: 'glass',
    name: 'Clear glass',
    material: { ...SOLID, roughness: 0, transmission: 1, ior: 1.5, thickness: 2, colour: '#ffffff' },
  },
  {
    id: 'frosted',
    name: 'Frosted glass',
    material: { ...SOLID, roughness: 0.45, transmission: 0.95, ior: 1.5, thickness: 2 },
  },
  {
    // Light goes straight through a sheet without thickness, and the more is mirrored the flatter it is looked at (Fresnel).
    id: 'film',
    name: 'Clear by angle',
    material: { ...SOLID, roughness: 0.03, transmission: 1, ior: 1.8 },
  },
  { id: 'neon', name: 'Neon', material: { ...SOLID, roughness: 0.4, glowStrength: 4 } },
] as const satisfies readonly NamedMaterial[];

/** Of a material that glows in its own colour. */
const GLOWS = 'glowStrength';

/**
 * What something becomes when a material is put on it: nothing of what it was before stays but, at most, its colour. Lengths of the
 * library are millimetres.
 */
export function madeOf({ material }: NamedMaterial, before: Pick<Material, 'colour'>, mmPerUnit = 1): Material {
  const colour = material.colour ?? before.colour;
  return {
    ...material,
    colour,
    ...(GLOWS in material && !material.glow ? { glow: colour } : {}),
    ...(material.thickness === undefined ? {} : { thickness: material.thickness / mmPerUnit }),
  };
}

/** The same without any shine. */
export const withoutShine = ({ colour, opacity, glow, glowStrength }: Material): Material => ({
  colour,
  opacity,
  roughness: 1,
  metalness: 0,
  specular: 0,
  ...(glow ? { glow } : {}),
  ...(glowStrength === undefined ? {} : { glowStrength }),
});

/** Whether one looks like another, whatever is spelt out. */
export const isAlike = (a: Material, b: Material): boolean => JSON.stringify(spelt(a)) === JSON.stringify(spelt(b));

const spelt = (material: Material) => {
  return Object.entries(wholeOf(material)).sort(([a], [b]) => (a < b ? -1 : 1));
};

/** Colours that go together, from dark to light. */
export const PALETTES = [
  { id: 'marsh', name: 'Marsh', colours: ['#16202f', '#1f5c57', '#5e7f4e', '#c9a24b', '#ece4d0'] },
  { id: 'dusk', name: 'Dusk', colours: ['#241a3a', '#6b2d5c', '#c0506a', '#f08a5d', '#fbe3b8'] },
  { id: 'signal', name: 'Signal', colours: ['#10151d', '#c0452b', '#e8b64c', '#f7f5ef'] },
  { id: 'ice', name: 'Ice', colours: ['#12324a', '#2f7ea0', '#8cc6d8', '#d9ecf2', '#ffffff'] },
  { id: 'ink', name: 'Ink', colours: ['#0e1116', '#39424e', '#7a8592', '#b9c0c7', '#f2f3f4'] },
] as const;

/**
 * A palette put on colours so that what is darker stays darker: the darkest gets the first, the lightest the last, those between what
 * lies between by their order.
 * @param lightness of each of the colours that are replaced
 */
export function swapped(palette: readonly string[], lightness: readonly number[]): string[] {
  const distinct = [...new Set(lightness)].sort((a, b) => a - b);
  const last = palette.length - 1;
  return lightness.map((v) => {
    const rank = distinct.indexOf(v);
    return palette[distinct.length === 1 ? 0 : Math.round((rank / (distinct.length - 1)) * last)]!;
  });
}
