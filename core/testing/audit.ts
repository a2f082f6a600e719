// audit.ts — an audit of triangles that shares no code with the product's own proof: plain maps and sums over float32.

export interface Audit {
  readonly triangles: number;
  /** Directed edges without exactly one opposite. */
  readonly loose: number;
  /** Triangles whose corners do not span an area. */
  readonly flat: number;
  readonly volume: number;
  readonly points: number;
  readonly edges: number;
}

/** @param positions flat x, y, z @param indices three a triangle; points with equal float32 coordinates are one */
export function audit(positions: ArrayLike<number>, indices: ArrayLike<number>): Audit {
  const ids = new Map<string, number>();
  const id = (i: number) => {
    const key = [0, 1, 2].map((k) => Math.fround(positions[3 * i + k]!) + 0).join();
    const known = ids.get(key);
    if (known !== undefined) return known;
    ids.set(key, ids.size);
    return ids.size - 1;
  };
  const edges = new Map<string, number>();
  let [flat, volume] = [0, 0];
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [indices[t]!, indices[t + 1]!, indices[t + 2]!];
    const [a, b, c] = corners.map((i) => [0, 1, 2].map((k) => Math.fround(positions[3 * i + k]!)));
    const u = b!.map((v, k) => v - a![k]!);
    const v = c!.map((w, k) => w - a![k]!);
    const normal = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
    if (!(Math.hypot(...normal) > 0)) flat++;
    volume += (a![0]! * normal[0]! + a![1]! * normal[1]! + a![2]! * normal[2]!) / 6;
    const welded = corners.map(id);
    for (let k = 0; k < 3; k++) {
      const edge = `${welded[k]}>${welded[(k + 1) % 3]}`;
      edges.set(edge, (edges.get(edge) ?? 0) + 1);
    }
  }
  let loose = 0;
  for (const [edge, count] of edges) {
    if (count !== 1 || edges.get(edge.split('>').reverse().join('>')) !== 1) loose++;
  }
  return { triangles: indices.length / 3, loose, flat, volume, points: ids.size, edges: edges.size / 2 };
}
