// grid.ts — a flat front in squares: a square grid where there is room, and between it and the outline a band of Delaunay
// triangles, two by two joined into quads. All grids have a line through the origin, so neighbouring layers line up.
import { GeometryError } from '../../base/errors.ts';
import { boundaryOf } from '../../geometry/boundary.ts';
import { pairsOf, quadAround } from '../../geometry/quads.ts';
import { mendSlivers } from '../../geometry/slivers.ts';
import { triangulateInside } from '../../geometry/triangulate.ts';
import { distanceToSegment } from '../../path/flatten.ts';
import { scanInside } from './scan.ts';
import { compacted, type FlatMesh, type FlatOutline } from './types.ts';

/** Squares per front at the most. */
const MAX_SQUARES = 200_000;

/** Squares keep this share of a cell away from the outline, so that the band has no slivers. */
const CLEARANCE = 0.2;

/**
 * @param cell side of a square
 * @param least as `FrontFaces` has it
 * @throws {GeometryError} 'out-of-range' when the cell is so small that the face count would explode
 */
export function gridFaces(outline: FlatOutline, cell: number, least: number): FlatMesh {
  const { points, edges, places } = compacted(outline);
  const squares = freeSquares({ points, edges }, cell);
  const nodes = Array.from(points);
  const numbers = new Map<string, number>();
  const node = (column: number, row: number) => {
    const key = `${column} ${row}`;
    const known = numbers.get(key);
    if (known !== undefined) return known;
    nodes.push(column * cell, row * cell);
    numbers.set(key, nodes.length / 2 - 1);
    return nodes.length / 2 - 1;
  };
  const faces: number[][] = squares.map(([c, r]) => [node(c, r), node(c + 1, r), node(c + 1, r + 1), node(c, r + 1)]);
  const all = Float64Array.from(nodes);
  // Backwards, the squares' boundary has the band on its left.
  const hole = boundaryOf(faces, nodes.length / 2).toReversed();
  const band = triangulateInside(all, Uint32Array.from([...edges, ...hole]));
  mendSlivers(all, band, least);
  const pairs = pairsOf(all, band, least);
  const isPaired = new Uint8Array(band.corners.length / 3);
  for (const e of pairs) {
    isPaired[Math.floor(e / 3)] = isPaired[Math.floor(band.twins[e]! / 3)] = 1;
    faces.push(quadAround(band, e));
  }
  for (const [t, is] of isPaired.entries()) if (!is) faces.push([...band.corners.subarray(3 * t, 3 * t + 3)]);

  const [known, first] = [places.length, outline.points.length / 2];
  const starts = new Uint32Array(faces.length + 1);
  for (const [f, face] of faces.entries()) starts[f + 1] = starts[f]! + face.length;
  return {
    added: nodes.slice(2 * known),
    starts,
    corners: Uint32Array.from(faces.flat(), (point) => (point < known ? places[point]! : first + point - known)),
    splits: new Map(),
  };
}

/** Column and row of the squares that lie inside and clear of the outline. */
function freeSquares(outline: FlatOutline, cell: number): [column: number, row: number][] {
  const scan = scanInside(outline);
  const expected = scan.area / (cell * cell);
  if (!(expected <= MAX_SQUARES)) {
    const least = Math.sqrt(scan.area / MAX_SQUARES);
    throw new GeometryError(
      'out-of-range',
      `A grid of ${cell} would need ${Math.round(expected)} squares in one outline; choose a cell of at least ${least.toPrecision(2)}.`,
    );
  }
  const { segments, grid } = scan;
  const reach = cell * (Math.SQRT1_2 + CLEARANCE);
  const isFree = (x: number, y: number) => {
    let free = true;
    grid.near(x, y, reach, (id) => {
      const i = 4 * id;
      if (free)
        free = distanceToSegment(x, y, segments[i]!, segments[i + 1]!, segments[i + 2]!, segments[i + 3]!) > reach;
    });
    return free;
  };
  const squares: [number, number][] = [];
  for (let row = Math.floor(scan.minY / cell); row * cell < scan.maxY; row++) {
    const y = (row + 0.5) * cell;
    for (const [from, to] of scan.at(y)) {
      for (let column = Math.ceil(from / cell - 0.5); (column + 0.5) * cell < to; column++) {
        if (isFree((column + 0.5) * cell, y)) squares.push([column, row]);
      }
    }
  }
  return squares;
}
