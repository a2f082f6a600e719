// ball.ts — a ball of a material, small, lit from the upper left before light and dark ground: enough to tell materials apart in a
// list. Diffuse by Lambert, shine by GGX (Walter et al. 2007) with Schlick's Fresnel (1994), surroundings by a sky, a floor and a window.
import { dot, unit } from '../geometry/vectors.ts';
import { rgbOfHex, toEncoded, toLinear } from '../picture/colour.ts';
import { type Material, type WholeMaterial, wholeOf } from './schema.ts';

/** Linear red, green and blue; directions as well. */
type Triple = readonly [number, number, number];

const linearOf = (hex: string): Triple => rgbOfHex(hex).map((v) => toLinear(v / 255)) as unknown as Triple;

const LIGHT = unit([-0.5, 0.7, 0.55]);
const EYE: Triple = [0, 0, 1];
const HALF = unit([LIGHT[0], LIGHT[1], LIGHT[2] + 1]);

/** What is seen in a direction: sky above, floor below, a window where the light comes from; blurred by roughness. */
function surroundings([x, y, z]: Triple, roughness: number): number {
  const soft = 0.08 + roughness;
  const sky = 0.12 + 0.5 / (1 + Math.exp(-(y + 0.05) / (0.4 * soft)));
  const window = Math.exp(-(1 - dot([x, y, z], LIGHT)) / (0.05 * soft + 0.4 * roughness * roughness));
  return sky + window * (2.4 - 2 * roughness);
}

/** RGBA, clear around the ball. @param size pixels along a side */
export function ballPicture(material: Material, size: number): Uint8ClampedArray<ArrayBuffer> {
  const whole = wholeOf(material);
  const look = {
    base: linearOf(whole.colour),
    sheen: linearOf(whole.sheen),
    glow: linearOf(whole.glow).map((v) => v * Math.min(whole.glowStrength, 2)) as unknown as Triple,
    whole,
  };
  const pixels = new Uint8ClampedArray(4 * size * size);
  const radius = size / 2 - 0.5;
  for (let row = 0; row < size; row++) {
    for (let column = 0; column < size; column++) {
      const [x, y] = [(column + 0.5 - size / 2) / radius, (size / 2 - row - 0.5) / radius];
      const squared = x * x + y * y;
      // A pixel at the rim is covered in part.
      const cover = Math.min(1, Math.max(0, (1 - Math.sqrt(squared)) * radius + 0.5));
      if (cover === 0) continue;
      const normal = unit([x, y, Math.sqrt(Math.max(0, 1 - squared))]);
      const at = 4 * (row * size + column);
      for (const [k, v] of shaded(normal, look).entries()) pixels[at + k] = 255 * toEncoded(Math.min(1, v));
      pixels[at + 3] = 255 * cover * whole.opacity;
    }
  }
  return pixels;
}

interface Look {
  readonly base: Triple;
  readonly sheen: Triple;
  readonly glow: Triple;
  readonly whole: WholeMaterial;
}

function shaded(normal: Triple, { base, sheen, glow, whole }: Look): Triple {
  const { metalness, roughness, specular, ior, transmission, thickness, coat, coatRoughness } = whole;
  const facing = Math.max(0, dot(normal, EYE));
  const lit = Math.max(0, dot(normal, LIGHT));
  const mirrored: Triple = [2 * facing * normal[0], 2 * facing * normal[1], 2 * facing * normal[2] - 1];
  const grazing = (1 - facing) ** 5;
  const dielectric = ((ior - 1) / (ior + 1)) ** 2 * specular;
  const ambient = 0.3 + 0.18 * normal[1];
  // Ground seen through glass: dark and light, upside down as a ball shows it.
  const through = transmission > 0 ? seenThrough(normal, thickness > 0 ? ior : 1, roughness) : 0;
  const coated = coat * (0.04 + 0.96 * grazing);
  const coatLight = coated * surroundings(mirrored, coatRoughness) + coat * 0.04 * gloss(normal, coatRoughness);
  return [0, 1, 2].map((k) => {
    const f0 = dielectric * (1 - metalness) + base[k]! * metalness;
    const fresnel = f0 + (1 - f0) * grazing * (metalness > 0 ? 1 : specular);
    const body = base[k]! * (1 - metalness) * ((1 - transmission) * (0.9 * lit + ambient) + transmission * through);
    const shine =
      fresnel * surroundings(mirrored, roughness) * (1 - 0.5 * roughness * (1 - metalness)) +
      f0 * gloss(normal, roughness);
    const fibres = sheen[k]! * 0.5 * (1 - facing) ** 2 * (lit + 0.4);
    return (body * (1 - fresnel) + shine + fibres) * (1 - coated) + coatLight + glow[k]!;
  }) as unknown as Triple;
}

/** The light itself in the shine: GGX with the usual visibility term left at 1 ⁄ 4. */
function gloss(normal: Triple, roughness: number): number {
  const alpha = Math.max(0.05, roughness * roughness);
  const half = Math.max(0, dot(normal, HALF));
  const d = half * half * (alpha * alpha - 1) + 1;
  const lit = Math.max(0, dot(normal, LIGHT));
  return (lit * (alpha * alpha)) / (4 * d * d);
}

function seenThrough([x, y]: Triple, ior: number, roughness: number): number {
  const bend = ior > 1 ? -0.8 : 1;
  const soft = 0.05 + 0.6 * roughness;
  const stripe = 1 / (1 + Math.exp(Math.sin(7 * (bend * (x + y))) / soft));
  return 0.25 + 0.6 * (roughness > 0.3 ? 0.5 + 0.3 * (stripe - 0.5) : stripe);
}
