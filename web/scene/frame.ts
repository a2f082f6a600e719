// frame.ts — how everything is framed: flat and solid agree, so that both sides of the divide line up from the front.
import { type Camera, OrthographicCamera, PerspectiveCamera, type Vector3 } from 'three';
import type { BuildView } from '../../core/index.ts';

export type Box = NonNullable<BuildView['box']>;

/** Room around what is framed, as a factor of its size. */
const MARGIN = 1.25;

/** From where a solid is looked at to be known: somewhat from the left and from above. */
export const THREE_QUARTER = [-0.5, 0.36, 0.79] as const;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Project units per pixel at which the box's front, seen straight on, fills `size`. */
export function unitsPerPixel({ min, max }: Box, { width, height }: Size): number {
  const scale = MARGIN * Math.max((max[0] - min[0]) / width, (max[1] - min[1]) / height);
  return scale > 0 ? scale : 1;
}

/** How much of the world, seen by a camera at a place, one pixel is. */
export function unitsPerPixelAt(camera: Camera, place: Vector3, height: number): number {
  if (camera instanceof OrthographicCamera) return 1 / camera.zoom;
  if (!(camera instanceof PerspectiveCamera)) return 1;
  return (2 * camera.position.distanceTo(place) * Math.tan((camera.fov * Math.PI) / 360)) / height;
}

/** The middle of the box. */
export function middleOf({ min, max }: Box): [x: number, y: number, z: number] {
  return [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2];
}

/** Length of the box's diagonal. */
export function diagonalOf({ min, max }: Box): number {
  return Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
}
