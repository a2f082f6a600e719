// rigid.ts — moves that change no length: turns, mirror images and shifts in space, as three rows of four numbers. Angles are in
// degrees; a positive turn about an axis is counter-clockwise as seen from its end (right-handed).

export type Point = readonly [x: number, y: number, z: number];

/** Row by row: a point becomes `(r0·x + r1·y + r2·z + r3, r4·x + …, r8·x + …)`. */
export type Rigid = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
];

export const STAY: Rigid = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];

export const shift = ([x, y, z]: Point): Rigid => [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z];

/** What lies left lies right. */
export const MIRROR: Rigid = [-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];

const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];

/** A turn about an axis through the origin. */
export function turnAbout(axis: Axis, degrees: number): Rigid {
  const [c, s] = turned(degrees);
  if (axis === 'x') return [1, 0, 0, 0, 0, c, -s, 0, 0, s, c, 0];
  if (axis === 'y') return [c, 0, s, 0, 0, 1, 0, 0, -s, 0, c, 0];
  return [c, -s, 0, 0, s, c, 0, 0, 0, 0, 1, 0];
}

/** Cosine and sine, exact for quarter turns: what lies flat stays flat. */
function turned(degrees: number): [cos: number, sin: number] {
  const quarters = degrees / 90;
  if (Number.isInteger(quarters)) {
    const k = ((quarters % 4) + 4) % 4;
    return [[1, 0, -1, 0][k]!, [0, 1, 0, -1][k]!];
  }
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), Math.sin(angle)];
}

/** About x first, then about y, then about z, all of them the world's axes. */
export const turn = ([x, y, z]: Point): Rigid =>
  product(turnAbout('z', z), product(turnAbout('y', y), turnAbout('x', x)));

/** What `second` does with what `first` has done: the product of their matrices. */
export function product(second: Rigid, first: Rigid): Rigid {
  const result: number[] = [];
  for (let row = 0; row < 12; row += 4) {
    for (let column = 0; column < 4; column++) {
      result.push(
        second[row]! * first[column]! +
          second[row + 1]! * first[4 + column]! +
          second[row + 2]! * first[8 + column]! +
          (column === 3 ? second[row + 3]! : 0),
      );
    }
  }
  return result as unknown as Rigid;
}

/** The move with its fixed point at `point` in place of the origin. */
export const about = (point: Point, move: Rigid): Rigid => product(shift(point), product(move, shift(minus(point))));

/** What undoes it. */
export function undone(m: Rigid): Rigid {
  const [a, b, c, x, d, e, f, y, g, h, i, z] = m;
  // The inverse of what changes no length is its transpose.
  return [a, d, g, -(a * x + d * y + g * z), b, e, h, -(b * x + e * y + h * z), c, f, i, -(c * x + f * y + i * z)];
}

export function moved(m: Rigid, [x, y, z]: Point): [number, number, number] {
  return [
    m[0] * x + m[1] * y + m[2] * z + m[3],
    m[4] * x + m[5] * y + m[6] * z + m[7],
    m[8] * x + m[9] * y + m[10] * z + m[11],
  ];
}

/** The turn, and mirror image, alone. */
export const withoutShift = ([a, b, c, , d, e, f, , g, h, i]: Rigid): Rigid => [a, b, c, 0, d, e, f, 0, g, h, i, 0];

/** Whether it makes a mirror image: faces run the other way round in it. */
export const isMirroring = (m: Rigid): boolean =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) - m[1] * (m[4] * m[10] - m[6] * m[8]) + m[2] * (m[4] * m[9] - m[5] * m[8]) < 0;

export const isStill = (m: Rigid): boolean => m.every((v, i) => v === STAY[i]);

/** The three angles that {@link turn} makes this rotation of. Where y is a quarter turn, x is 0: many triples mean the same. */
export function anglesOf(m: Rigid): [x: number, y: number, z: number] {
  const degrees = 180 / Math.PI;
  const sine = Math.min(1, Math.max(-1, -m[8]));
  if (Math.abs(sine) > 1 - 1e-12) return [0, 90 * Math.sign(sine), Math.atan2(-m[1], m[5]) * degrees];
  return [Math.atan2(m[9], m[10]) * degrees, Math.asin(sine) * degrees, Math.atan2(m[4], m[0]) * degrees];
}

/** x, y, z, w of a rotation (Shepperd 1978: by the largest of the four, so that no digits are lost). */
export function quaternionOf(m: Rigid): [x: number, y: number, z: number, w: number] {
  const [a, b, c, , d, e, f, , g, h, i] = m;
  const squares = [1 + a - e - i, 1 - a + e - i, 1 - a - e + i, 1 + a + e + i];
  const largest = squares.indexOf(Math.max(...squares));
  const root = 2 * Math.sqrt(squares[largest]!);
  const own = root / 4;
  if (largest === 0) return [own, (b + d) / root, (c + g) / root, (h - f) / root];
  if (largest === 1) return [(b + d) / root, own, (f + h) / root, (c - g) / root];
  if (largest === 2) return [(c + g) / root, (f + h) / root, own, (d - b) / root];
  return [(h - f) / root, (c - g) / root, (d - b) / root, own];
}

export const minus = ([x, y, z]: Point): Point => [-x, -y, -z];
