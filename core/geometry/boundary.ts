// boundary.ts — what bounds faces that lie side by side.

/**
 * The edges that only one of the faces has, as pairs of points with the face on their left.
 * @param faces counter-clockwise
 * @param count of points
 */
export function boundaryOf(faces: readonly (readonly number[])[], count: number): number[] {
  const edges = new Set<number>();
  for (const face of faces) {
    let a = face.at(-1)!;
    for (const b of face) {
      if (!edges.delete(b * count + a)) edges.add(a * count + b);
      a = b;
    }
  }
  return [...edges].flatMap((edge) => [Math.floor(edge / count), edge % count]);
}
