// sides.ts — what the sides of a body are made of.
import { isAlike } from './library.ts';
import type { Material, SideMaterials } from './schema.ts';

/** A material and the sides that are made of it. */
export interface MadeSides {
  readonly material: Material;
  /** Names; null for all that are not named. */
  readonly sides: readonly string[] | null;
}

/** The layer's own material first, then every other one once. */
export function materialsOf(own: Material, sides: SideMaterials | undefined): MadeSides[] {
  const others: { material: Material; sides: string[] }[] = [];
  for (const [side, material] of Object.entries(sides ?? {})) {
    if (isAlike(material, own)) continue;
    const known = others.find((other) => isAlike(other.material, material));
    if (known) known.sides.push(side);
    else others.push({ material, sides: [side] });
  }
  return [{ material: own, sides: null }, ...others];
}

/** For each of the sides, the number of the material it is made of. @param names of the sides, in order */
export const numberedSides = (made: readonly MadeSides[], names: readonly string[]): number[] =>
  names.map((name) =>
    Math.max(
      0,
      made.findIndex(({ sides }) => sides?.includes(name)),
    ),
  );
