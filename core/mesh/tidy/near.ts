// near.ts — points that lie close together become one: a spatial hash of cells as large as the distance.
import type { Face, Step } from './faces.ts';

/**
 * Every point goes to the first one, in order, that stays within the distance; so nothing moves further than that, and the
 * same mesh always welds alike. Faces lose the corners that fell together; those with fewer than three left go.
 * @param positions flat x, y, z
 * @param distance ≥ 0; 0 welds only what lies in the very same place
 */
export function weldNear(faces: readonly Face[], positions: Float64Array, distance: number): Step {
  const target = targetsOf(positions, distance);
  const used = new Set(faces.flatMap(({ corners }) => corners));
  let changed = 0;
  let farthest = 0;
  for (const point of used) {
    if (target[point] === point) continue;
    changed++;
    farthest = Math.max(farthest, apart(positions, point, target[point]!));
  }
  if (changed === 0) return { faces, changed };
  const welded = faces.flatMap((face) => {
    const moved = face.corners.map((point) => target[point]!);
    const corners = moved.filter((point, k) => point !== moved.at(k - 1));
    return corners.length >= 3 ? [{ ...face, corners }] : [];
  });
  return { faces: welded, changed, farthest };
}

function targetsOf(positions: Float64Array, distance: number): Uint32Array {
  const count = positions.length / 3;
  const target = new Uint32Array(count);
  // Cells of no size would be no cells; any size does where points must coincide.
  const cell = distance > 0 ? distance : 1;
  const cells = new Map<string, number[]>();
  const cellOf = (point: number, axis: number) => Math.floor(positions[3 * point + axis]! / cell);
  for (let point = 0; point < count; point++) {
    const [cx, cy, cz] = [cellOf(point, 0), cellOf(point, 1), cellOf(point, 2)];
    let first = point;
    for (let dx = -1; dx <= 1; dx++) {
      for (let dy = -1; dy <= 1; dy++) {
        for (let dz = -1; dz <= 1; dz++) {
          for (const other of cells.get(`${cx + dx} ${cy + dy} ${cz + dz}`) ?? []) {
            if (other < first && apart(positions, point, other) <= distance) first = other;
          }
        }
      }
    }
    target[point] = first;
    if (first !== point) continue;
    const key = `${cx} ${cy} ${cz}`;
    const known = cells.get(key);
    if (known) known.push(point);
    else cells.set(key, [point]);
  }
  return target;
}

const apart = (p: Float64Array, i: number, j: number) =>
  Math.hypot(p[3 * i]! - p[3 * j]!, p[3 * i + 1]! - p[3 * j + 1]!, p[3 * i + 2]! - p[3 * j + 2]!);
