// vary.ts — values that can be varied: each as a command that sets it, so that a variant is a document like any other, and taking one
// is a change like any other.
import { MM_PER_UNIT, type Unit } from '../base/units.ts';
import { heightOf } from '../builds/index.ts';
import { LIBRARY, madeOf, PALETTES, swapped } from '../materials/library.ts';
import { lightnessOfHex } from '../picture/colour.ts';
import { CORNERS } from '../solid/edge/corners.ts';
import { FACE_MESHES } from '../solid/front/front.ts';
import { PROFILES } from '../solid/profile.ts';
import type { LayerChange } from './commands/change-layers.ts';
import { applyCommand, type Command } from './commands/index.ts';
import { UNPLACED } from './placement.ts';
import type { Layer, Project } from './schema.ts';

interface VariedBase {
  readonly id: string;
  /** What a menu calls it. */
  readonly word: string;
}

/** A number of each of the layers. */
export interface VariedNumber extends VariedBase {
  readonly is: 'length' | 'angle' | 'count' | 'share' | 'number';
  /** Null for a layer that has none. */
  readonly of: (layer: Layer) => number | null;
  readonly to: (layers: readonly Layer[], value: number) => Command;
}

export interface VariedChoice extends VariedBase {
  readonly is: 'choice';
  readonly choices: readonly (readonly [value: string, words: string])[];
  /** Lengths of the library are millimetres. */
  readonly to: (layers: readonly Layer[], value: string, unit: Unit) => Command;
}

export type Varied = VariedNumber | VariedChoice;

const ids = (layers: readonly Layer[]) => layers.map(({ id }) => id);
const changing =
  (change: (value: never) => LayerChange) =>
  (layers: readonly Layer[], value: number | string): Command => ({
    do: 'change-layers',
    layers: ids(layers),
    change: change(value as never),
  });

const edgeOf = ({ build }: Layer) => (build.kind === 'slab' ? build.edge : null);

const number = (
  id: string,
  word: string,
  is: VariedNumber['is'],
  of: VariedNumber['of'],
  change: (value: number) => LayerChange,
): VariedNumber => ({ id, word, is, of, to: changing(change) });

const choice = (
  id: string,
  word: string,
  choices: VariedChoice['choices'],
  change: (value: never) => LayerChange,
): VariedChoice => ({ id, word, is: 'choice', choices, to: changing(change) });

const same = (values: readonly string[]) => values.map((value) => [value, value] as const);

const turnAbout = (axis: 0 | 1 | 2, name: string): VariedNumber => ({
  id: `turn-${name}`,
  word: `turn about ${name}`,
  is: 'angle',
  of: ({ placement }) => placement?.turn[axis] ?? 0,
  to: (layers, value) => ({
    do: 'place',
    places: layers.map(({ id, placement = UNPLACED }) => {
      const turn = placement.turn.map((v, k) => (k === axis ? value : v)) as [number, number, number];
      return { id, placement: { ...placement, turn } };
    }),
  }),
});

/** Each with values that show what it is. */
const FRONTS = {
  flat: { is: 'flat' },
  slanted: { is: 'slanted', degrees: 4, towardsDeg: 90 },
  crowned: { is: 'crowned', height: 2, dome: 'soft' },
} as const;

export const VARIED: readonly Varied[] = [
  number(
    'depth',
    'depth',
    'length',
    ({ build }) => heightOf(build),
    (depth) => ({ build: { depth } }),
  ),
  number(
    'base',
    'base',
    'length',
    ({ base }) => base,
    (base) => ({ base }),
  ),
  choice('profile', 'edge profile', same(PROFILES), (profile) => ({ build: { edge: { profile } } })),
  number(
    'reach',
    'reach of the edge',
    'length',
    (layer) => edgeOf(layer)?.reach ?? null,
    (reach) => ({ build: { edge: { reach } } }),
  ),
  number(
    'rise',
    'rise of the edge',
    'length',
    (layer) => edgeOf(layer)?.rise ?? edgeOf(layer)?.reach ?? null,
    (rise) => ({ build: { edge: { rise } } }),
  ),
  number(
    'steps',
    'steps of the edge',
    'count',
    (layer) => edgeOf(layer)?.steps ?? null,
    (steps) => ({ build: { edge: { steps } } }),
  ),
  {
    id: 'front',
    word: 'form of the front',
    is: 'choice',
    choices: same(Object.keys(FRONTS)),
    to: changing((is: keyof typeof FRONTS) => ({ build: { front: FRONTS[is] } })),
  },
  choice('edge-on', 'rims with an edge', same(['none', 'front', 'back', 'both']), (on) => ({
    build: { edge: { on } },
  })),
  choice('corners', 'corners of the edge', same(CORNERS), (corners) => ({ build: { edge: { corners } } })),
  choice('faces', 'face mesh', same(FACE_MESHES), (faces) => ({ build: { faces } })),
  number(
    'crease',
    'crease',
    'angle',
    ({ shading }) => shading.crease,
    (crease) => ({ shading: { crease } }),
  ),
  {
    id: 'material',
    word: 'material',
    is: 'choice',
    choices: LIBRARY.map(({ id, name }) => [id, name] as const),
    to: (layers, value, unit) => {
      const named = LIBRARY.find(({ id }) => id === value)!;
      const made = (layer: Layer) => madeOf(named, layer.material, MM_PER_UNIT[unit]);
      const paints = layers.map((layer) => ({ layer: layer.id, side: null, material: made(layer) }));
      return { do: 'paint', paints };
    },
  },
  {
    id: 'palette',
    word: 'palette',
    is: 'choice',
    choices: PALETTES.map(({ id, name }) => [id, name] as const),
    to: (layers, value) => {
      const { colours } = PALETTES.find(({ id }) => id === value)!;
      const own = swapped(
        colours,
        layers.map(({ material }) => lightnessOfHex(material.colour)),
      );
      const paints = layers.map(({ id, material }, i) => ({
        layer: id,
        side: null,
        material: { ...material, colour: own[i]! },
      }));
      return { do: 'paint', paints };
    },
  },
  number(
    'roughness',
    'roughness',
    'share',
    ({ material }) => material.roughness,
    (roughness) => ({ material: { roughness } }),
  ),
  number(
    'metalness',
    'metalness',
    'share',
    ({ material }) => material.metalness,
    (metalness) => ({ material: { metalness } }),
  ),
  number(
    'coat',
    'clear coat',
    'share',
    ({ material }) => material.coat ?? 0,
    (coat) => ({ material: { coat } }),
  ),
  turnAbout(0, 'x'),
  turnAbout(1, 'y'),
  turnAbout(2, 'z'),
];

/** Three values to begin with, from what is there. */
export function startValues(varied: Varied, layers: readonly Layer[]): (number | string)[] {
  if (varied.is === 'choice') return varied.choices.slice(0, 3).map(([value]) => value);
  const now = layers.map(varied.of).find((value) => value !== null) ?? 1;
  switch (varied.is) {
    case 'length':
      return [now / 2 || 1, now || 2, 2 * now || 4].map((v) => Number(v.toPrecision(3)));
    case 'angle':
      return [0, 30, 60];
    case 'count':
      return [1, 3, 8];
    case 'share':
      return [0.1, 0.5, 0.9];
    case 'number':
      return [now, 1.5 * now, 2 * now];
  }
}

export interface Variation {
  readonly varied: Varied;
  readonly value: number | string;
}

/** What sets a value of layers. */
export const commandOf = ({ varied, value }: Variation, layers: readonly Layer[], unit: Unit): Command =>
  varied.is === 'choice' ? varied.to(layers, String(value), unit) : varied.to(layers, Number(value));

/** The document with some values set. @throws {GeometryError} where it would be no valid one */
export function variant(project: Project, layers: readonly string[], variations: readonly Variation[]): Project {
  return variations.reduce((now, variation) => {
    const own = now.layers.filter(({ id }) => layers.includes(id));
    return applyCommand(now, commandOf(variation, own, now.unit));
  }, project);
}
