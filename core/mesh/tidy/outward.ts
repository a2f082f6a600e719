// outward.ts — faces turned so that neighbours agree, and shells so that they face outward.
import { across, eachTriangle, type Face, facesByEdge, type Step, volumeOf } from './faces.ts';

/**
 * Floods each shell from its first face, turning what runs the other way; then turns shells with a volume below zero. A shell
 * inside another bounds a hollow, and faces into it. Shells that are not closed are left as the flood leaves them.
 */
export function turnOutward(faces: readonly Face[], positions: Float64Array): Step {
  const { shellOf, isTurned, isClosed } = flooded(faces, positions.length / 3);
  const turn = (face: Face): Face => ({ ...face, corners: face.corners.toReversed() });
  const agreed = faces.map((face, f) => (isTurned[f] ? turn(face) : face));
  const shells = isClosed.map((closed, shell) => ({
    closed,
    faces: agreed.filter((_, f) => shellOf[f] === shell),
  }));
  const wrong = shells.map(({ closed, faces: own }, shell) => {
    if (!closed) return false;
    const others = shells.filter((other, k) => k !== shell && other.closed).map((other) => other.faces);
    const isHollow = depthOf(own, others, positions) % 2 === 1;
    return volumeOf(own, positions) < 0 !== isHollow;
  });
  let changed = 0;
  const result = agreed.map((face, f) => {
    const isWrong = wrong[shellOf[f]!]!;
    if (isWrong !== (isTurned[f] === 1)) changed++;
    return isWrong ? turn(face) : face;
  });
  return { faces: result, changed };
}

interface Flood {
  readonly shellOf: Uint32Array;
  /** 1 for faces that run against the first one of their shell. */
  readonly isTurned: Uint8Array;
  /** By shell. */
  readonly isClosed: boolean[];
}

function flooded(faces: readonly Face[], points: number): Flood {
  const edges = facesByEdge(faces, points);
  const NONE = 0xffffffff;
  const shellOf = new Uint32Array(faces.length).fill(NONE);
  const isTurned = new Uint8Array(faces.length);
  const isClosed: boolean[] = [];
  for (const first of faces.keys()) {
    if (shellOf[first] !== NONE) continue;
    const shell = isClosed.push(true) - 1;
    shellOf[first] = shell;
    const stack = [first];
    while (stack.length > 0) {
      const f = stack.pop()!;
      for (const [k, to] of faces[f]!.corners.entries()) {
        const from = faces[f]!.corners.at(k - 1)!;
        const [same, opposite] = [edges.get(from * points + to) ?? [], edges.get(to * points + from) ?? []];
        if (same.length + opposite.length !== 2) isClosed[shell] = false;
        else {
          const isAgainst = opposite.length === 0;
          const g = isAgainst ? same.find((other) => other !== f)! : across(edges, points, from, to);
          if (shellOf[g] !== NONE) continue;
          shellOf[g] = shell;
          isTurned[g] = isAgainst ? 1 - isTurned[f]! : isTurned[f]!;
          stack.push(g);
        }
      }
    }
  }
  return { shellOf, isTurned, isClosed };
}

/** How many of the others a shell lies in: those that a ray from it, upward and a little aslant, leaves once more than it enters. */
function depthOf(shell: readonly Face[], others: readonly (readonly Face[])[], p: Float64Array): number {
  const start = shell[0]!.corners[0]!;
  const [x, y, z] = [p[3 * start]!, p[3 * start + 1]!, p[3 * start + 2]!];
  return others.filter((other) => {
    let isIn = false;
    eachTriangle(other, (a, b, c) => {
      // Sheared, so that the ray points straight up and meets no edge of what is built square.
      const at = (point: number) => {
        const dz = p[3 * point + 2]! - z;
        return [p[3 * point]! - x - 0.0137 * dz, p[3 * point + 1]! - y - 0.0071 * dz, dz] as const;
      };
      const [[ax, ay, az], [bx, by, bz], [cx, cy, cz]] = [at(a), at(b), at(c)];
      const [u, v, w] = [bx * cy - by * cx, cx * ay - cy * ax, ax * by - ay * bx];
      const sum = u + v + w;
      if (sum === 0 || (u < 0 || v < 0 || w < 0) === (u > 0 || v > 0 || w > 0)) return;
      if ((u * az + v * bz + w * cz) / sum > 0) isIn = !isIn;
    });
    return isIn;
  }).length;
}
