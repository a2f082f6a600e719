// choosing.ts — ways to choose shapes, over what the worker has told about them.
import type { Layer, OutlineShape } from '../../core/index.ts';

/** Layers of a source by the shapes they hold. */
export const layersByShape = (layers: readonly Layer[], source: string): Map<string, Layer> =>
  new Map(
    layers.flatMap((layer) => (layer.source === source ? layer.members.map((member) => [member, layer] as const) : [])),
  );

/** Whether a shape goes on to the build. */
export function isOn(id: string, layerOf: ReadonlyMap<string, Layer>): boolean {
  const layer = layerOf.get(id);
  return layer?.shown === true && !layer.skipped.includes(id);
}

export interface Place {
  readonly x: number;
  readonly y: number;
}

export type Area = OutlineShape['box'];

export const areaBetween = (a: Place, b: Place): Area => ({
  minX: Math.min(a.x, b.x),
  minY: Math.min(a.y, b.y),
  maxX: Math.max(a.x, b.x),
  maxY: Math.max(a.y, b.y),
});

/** The area round all of them; null for none. */
export function areaOf(shapes: readonly OutlineShape[]): Area | null {
  if (shapes.length === 0) return null;
  const edge = (pick: (box: Area) => number, best: (a: number, b: number) => number) =>
    shapes.map(({ box }) => pick(box)).reduce((a, b) => best(a, b));
  return {
    minX: edge((box) => box.minX, Math.min),
    minY: edge((box) => box.minY, Math.min),
    maxX: edge((box) => box.maxX, Math.max),
    maxY: edge((box) => box.maxY, Math.max),
  };
}

/** Shapes that lie whole in a box. */
export const inBox = (shapes: readonly OutlineShape[], box: Area): string[] =>
  shapes.flatMap(({ id, box: own }) =>
    own.minX >= box.minX && own.maxX <= box.maxX && own.minY >= box.minY && own.maxY <= box.maxY ? [id] : [],
  );

/** Shapes whose middle lies inside a line drawn round them. */
export function inLasso(shapes: readonly OutlineShape[], line: readonly Place[]): string[] {
  return shapes.flatMap(({ id, box }) => {
    const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    let isInside = false;
    for (const [i, p] of line.entries()) {
      const q = line.at(i - 1)!;
      if (p.y > y !== q.y > y && x < ((q.x - p.x) * (y - p.y)) / (q.y - p.y) + p.x) isInside = !isInside;
    }
    return isInside ? [id] : [];
  });
}

const longest = ({ box }: OutlineShape) => Math.max(box.maxX - box.minX, box.maxY - box.minY);

/** Rounding does not make a shape larger than its like. */
const SAME_SIZE = 1.001;

/** Shapes no larger than the largest of those chosen. */
export function upToSize(shapes: readonly OutlineShape[], chosen: ReadonlySet<string>): string[] {
  const sizes = shapes.filter(({ id }) => chosen.has(id)).map(longest);
  const most = SAME_SIZE * sizes.reduce((a, b) => Math.max(a, b), 0);
  return shapes.filter((shape) => longest(shape) <= most).map(({ id }) => id);
}

/** Shapes of the colours of those chosen, as their layers show them. */
export function ofColour(
  shapes: readonly OutlineShape[],
  chosen: ReadonlySet<string>,
  layerOf: ReadonlyMap<string, Layer>,
): string[] {
  const colour = ({ id, colour: own }: OutlineShape) => layerOf.get(id)?.material.colour ?? own;
  const wanted = new Set(shapes.filter(({ id }) => chosen.has(id)).map(colour));
  return shapes.filter((shape) => wanted.has(colour(shape))).map(({ id }) => id);
}

/** Thicknesses that differ by this share are of one kind. */
const SAME_THICKNESS = 1.25;

/** Shapes about as thick as one of those chosen. */
export function asThick(shapes: readonly OutlineShape[], chosen: ReadonlySet<string>): string[] {
  const wanted = shapes.filter(({ id }) => chosen.has(id)).map(({ thickness }) => thickness);
  const isAlike = (a: number, b: number) => Math.max(a, b) <= SAME_THICKNESS * Math.min(a, b);
  return shapes.filter(({ thickness }) => wanted.some((each) => isAlike(each, thickness))).map(({ id }) => id);
}

/** Shapes in the layers of those chosen. */
export function ofLayer(
  shapes: readonly OutlineShape[],
  chosen: ReadonlySet<string>,
  layerOf: ReadonlyMap<string, Layer>,
): string[] {
  const wanted = new Set([...chosen].map((id) => layerOf.get(id)));
  return shapes.filter(({ id }) => wanted.has(layerOf.get(id))).map(({ id }) => id);
}
