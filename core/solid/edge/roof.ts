// roof.ts — the straight skeleton of a region up to a reach, cut at the heights of a profile's rows (Aichholzer, Aurenhammer,
// Alberts & Gärtner 1995): every outline edge sweeps inward at unit speed and owns what it sweeps. The wavefront tells what
// happens; here it is written down as a plane drawing of links, and read off again as faces.
import { uints } from '../../base/arrays.ts';
import { boundaryOf } from '../../geometry/boundary.ts';
import { ZERO_AREA } from '../../geometry/tolerances.ts';
import { type BoundedTriangles, tryInside } from '../../geometry/triangulate.ts';
import { boundsOf, ringsOf } from '../../outline/measure.ts';
import type { Region } from '../../outline/types.ts';
import { type Cornered, type CornerStyle, cornered, facetsOf } from './corners.ts';
import { divideFace } from './divide.ts';
import type { StripDrawing } from './drawing.ts';
import { edgesOf, type Fit, type Lines, linesOf, linkedRings, meeting, nearestMeeting, offFrom } from './lines.ts';
import { stacked, sweptRoof, sweptStrips } from './sweep.ts';
import { type Meeting, Wavefront, type WavefrontEvents } from './wavefront.ts';
import { type Changed, type Face, type Joined, joinNodes, partHairs, placed, RIM } from './weld.ts';

// What follows is in shares of the extent: the roof is computed on coordinates divided by it.

/**
 * Parallel strokes and symmetric letters bring about many events in one moment. Rim points are moved by up to this much,
 * so that there is an order: far above the rounding of doubles, far below that of float32. What comes to lie this close
 * together is joined again afterwards, so the order leaves no trace.
 */
const UNREST = 2 ** -31;
/** A level waits for events that come so soon after it or after each other, but no longer than {@link WAIT} in all. */
const SOON = 1e-7;
const WAIT = 5e-7;
/** The last attempts wait as long as can be, however late an event comes. */
const LONG_WAIT = 9e-7;
const PATIENT = 3;
/**
 * How far a corner's distance from its outline edge may be off. Among very many corners there always is one that lies a little
 * further off, and the whole roof would be lost for it.
 */
const EXACT = 1e-6;
const EXACT_AMONG_MANY = 2e-6;
const MANY = 50_000;
/** Sine of the angle below which two lines are as good as one. */
const BENT = 1e-3;
/** How far off an edge may be where it meets others, before that is looked at again. */
const TURNED = 1e-7;
/** Faces smaller than this are as good as nothing: what the proof takes for it, and room for the rounding of files. */
const LEAST_AREA = 3 * ZERO_AREA;
/** How far float32 may move two corners towards each other; where a face is short, that needs less room. */
const ROUNDING = 1e-7;
/** How often nodes are joined and near misses parted in turn. */
const ROUNDS = 4;
/** Corners that run ahead as far as they like. */
export const MITRED: CornerStyle = { corners: 'mitred', mitreLimit: Infinity };
/** One attempt after another with an unrest of its own: how far nodes may move to become one with others. */
const SHIFTS = [7e-7, 1e-6, 1.3e-6, 1.3e-6, 1.6e-6];
/**
 * Faces of a drawing that are as good as nothing, or off, are mended so often: by letting just their nodes move further, or less,
 * and by placing what is joined in one way and the other.
 */
const MENDS = 4;
const WIDE = 1.4e-6;
/** Edges shorter than this may be joined. */
const SHORT = 2 * SHIFTS[0]!;
/** How long before anything happens a level may be swept: nothing above it comes near enough to be joined with it. */
const CLEAR = 2e-5;

/**
 * @param region as `regionsOf` gives it: rings that keep clear of each other
 * @param levels distances from the outline, rising, > 0; the last is the reach
 * @param extent longest side of the whole that the region is part of: what is too small to be seen is a share of it
 * @param style of corners that point inward; all mitred where nothing is said
 * @returns null when no attempt gave a drawing that passes its own check
 */
export function roofOver(
  region: Region,
  levels: readonly number[],
  extent: number,
  style: CornerStyle = MITRED,
): StripDrawing | null {
  const outline = outlineFor(region, extent, style);
  const { own, middle } = outline;
  const heights = levels.map((level) => level / extent);
  for (let attempt = 0; attempt < SHIFTS.length; attempt++) {
    const roof = attemptRoof(outline, heights, attempt);
    if (!roof) continue;
    const points = roof.points.map((v, i) => v * extent + middle[(i % 2) as 0 | 1]);
    points.set(own);
    return { ...roof, points, times: roof.times.map((time) => time * extent) };
  }
  return null;
}

/** A region in shares of the extent, about its middle. */
interface Outline {
  readonly extent: number;
  readonly style: CornerStyle;
  /** The points as they came, and what lies in the middle of them. */
  readonly own: Float64Array;
  readonly middle: readonly [x: number, y: number];
  readonly rim: Float64Array;
  readonly next: Uint32Array;
  readonly lines: Lines;
  readonly facets: Uint8Array;
  /** The outline as each attempt begins with it. */
  readonly starts: (Start | undefined)[];
}

/** The outline perturbed, with all its corners, and what it encloses; null where that cannot be triangulated. */
interface Start extends Cornered {
  readonly inner: BoundedTriangles | null;
}

/** Of regions that were asked for last: a reach that is dragged begins with the same triangles every time. */
const known = new WeakMap<Region, Outline>();

function outlineFor(region: Region, extent: number, style: CornerStyle): Outline {
  const before = known.get(region);
  const isSame = before?.style.corners === style.corners && before.style.mitreLimit === style.mitreLimit;
  if (before && isSame && before.extent === extent) return before;
  const rings = ringsOf([region]);
  const box = boundsOf(rings)!;
  const middle = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] as const;
  const { points: own, next } = linkedRings(rings);
  const rim = own.map((v, i) => (v - middle[(i % 2) as 0 | 1]) / extent);
  const lines = linesOf(rim, next);
  const facets = facetsOf(next, lines, style);
  const outline: Outline = { extent, style, own, middle, rim, next, lines, facets, starts: [] };
  known.set(region, outline);
  return outline;
}

function startOf({ rim, next, facets, starts }: Outline, attempt: number): Start {
  const before = starts[attempt];
  if (before) return before;
  const perturbed = perturbedPoints(rim, attempt);
  const all = cornered(perturbed, next, linesOf(perturbed, next), facets);
  const start = { ...all, inner: tryInside(all.parted, edgesOf(all.next)) };
  starts[attempt] = start;
  return start;
}

const copyOf = ({ corners, twins }: BoundedTriangles) => ({ corners: corners.slice(), twins: twins.slice() });

function attemptRoof(outline: Outline, levels: readonly number[], attempt: number): StripDrawing | null {
  const { points, next, lines, inner } = startOf(outline, attempt);
  if (!inner) return null;
  const reach = levels.at(-1)!;
  let swept: StripDrawing | null = null;
  if (next.length === outline.next.length) {
    const copy = copyOf(inner);
    const watched = new Wavefront({ points, next, triangles: copy, lines, horizon: reach + SOON, events: null });
    const isWhole = watched.advance(reach + SOON);
    const { rim } = outline;
    const whole = isWhole ? sweptRoof(rim, next, levels, copy, { length: SHORT, area: LEAST_AREA }) : null;
    if (whole) return whole;
    // Below what happens first, all is as simple.
    const clear = levels.filter((level) => level < watched.time - CLEAR);
    swept = isWhole || clear.length === 0 ? null : sweptStrips(rim, next, clear, SHORT);
  }
  const foot = swept ? footOn(swept, outline) : footOf(outline);
  const book = new Book(foot, outline.next.length, inner.corners.length / 3);
  const [soon, wait] = attempt < PATIENT ? [SOON, WAIT] : [LONG_WAIT, LONG_WAIT];
  const front = new Wavefront({ points, next, triangles: copyOf(inner), lines, horizon: reach + wait, events: book });
  if (!front.advance(foot.time)) return null;
  book.open(front);
  for (let k = foot.level; k < levels.length; k++) {
    const level = levels[k]!;
    if (!front.advance(level)) return null;
    for (let time = front.nextTime(); time < level + wait && time < front.time + soon; time = front.nextTime()) {
      if (!front.advance(time)) return null;
    }
    book.level(front, level, k + 1 === levels.length);
  }
  const roof = book.roof(front, SHIFTS[attempt]!);
  return swept && roof ? stacked(swept, roof) : roof;
}

/** What a drawing of links begins with: corners, when they are there, and how many levels lie below. */
interface Foot extends Omit<Cornered, 'parted'> {
  readonly time: number;
  readonly level: number;
}

const footOf = ({ rim, next, lines, facets }: Outline): Foot => ({
  ...cornered(rim, next, lines, facets),
  time: 0,
  level: 0,
});

/** The last level of strips, on which the rest is drawn. */
function footOn({ points, times, levels }: StripDrawing, { next, lines }: Outline): Foot {
  const n = next.length;
  return {
    points: points.subarray(points.length - 2 * n),
    next,
    lines,
    rimOf: uints(n, (i) => i),
    time: times.at(-1)!,
    level: levels.at(-1)!,
  };
}

/** Points perturbed, each in a direction of its own: the same for the same points. */
function perturbedPoints(points: Float64Array, attempt: number): Float64Array {
  let state = 0x9e3779b9 + attempt;
  return points.map((v) => {
    // A 32-bit mixing step (Steele, Lea & Flood 2014, "Fast splittable pseudorandom number generators").
    state = (state + 0x9e3779b9) | 0;
    let z = Math.imul(state ^ (state >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return v + (((z ^ (z >>> 16)) >>> 0) / 2 ** 31 - 1) * UNREST;
  });
}

/** What is wrong with a face: corners that lie off its outline edge, or that span no area. */
interface Flaw {
  readonly corners: readonly number[];
  readonly isOff: boolean;
}

interface Label {
  readonly edge: number;
  readonly strip: number;
}

/**
 * The drawing as it grows. Link l runs from one node to another; half-link 2l goes along it with one face on its left,
 * 2l + 1 back with the other. `follow` gives the half-link that comes next around a face.
 */
class Book implements WavefrontEvents {
  private readonly rimCount: number;
  private readonly exact: number;
  private readonly rimOf: Uint32Array;
  private readonly lines: Lines;
  private x: number[] = [];
  private y: number[] = [];
  private times: number[] = [];
  private readonly levelOf: number[] = [];
  private readonly from: number[] = [];
  private readonly to: number[] = [];
  private readonly follow: number[] = [];
  /** Outline edge and strip of each half-link's face; −1 where there is no face. */
  private readonly edge: number[] = [];
  private readonly strip: number[] = [];
  /** The link that each corner of the wavefront is drawing. */
  private readonly trail: Int32Array;
  /** The node of each corner at the last level. */
  private readonly nodeOf: Int32Array;
  private levels: number;
  /** Time of each level. */
  private readonly levelTimes: number[] = [];
  private front!: Wavefront;

  /**
   * @param foot as it would be had nothing been perturbed
   * @param rimCount how many of its corners are points of the rim
   * @param triangles inside it
   */
  constructor({ points, next, lines, rimOf, time, level }: Foot, rimCount: number, triangles: number) {
    this.rimCount = rimCount;
    this.levels = level;
    this.exact = rimCount > MANY ? EXACT_AMONG_MANY : EXACT;
    this.rimOf = rimOf;
    this.lines = lines;
    this.trail = new Int32Array(next.length + triangles);
    this.nodeOf = new Int32Array(next.length + triangles);
    for (let i = 0; i < rimCount; i++) this.node(points[2 * i]!, points[2 * i + 1]!, time, RIM);
    for (let i = 0; i < next.length; i++) this.link(rimOf[i]!, rimOf[next[i]!]!, i, -1);
  }

  /** Begins the trails of all corners, on links 0 … n − 1 along the outline. */
  open(front: Wavefront): void {
    this.front = front;
    for (const [i, node] of this.rimOf.entries()) this.start(i, node);
    for (let i = 0; i < this.rimOf.length; i++) {
      this.after(2 * i, this.up(front.next[i]!));
      this.after(this.down(i), 2 * i);
    }
  }

  private node(x: number, y: number, time: number, level = 0): number {
    this.levelOf.push(level);
    this.x.push(x);
    this.y.push(y);
    return this.times.push(time) - 1;
  }

  /** Where the edges would meet had they not been perturbed. */
  private nodeAt({ edges, time, x, y }: Meeting): number {
    const place = [...meeting(this.lines, edges, time, x, y), time] as const;
    // The perturbation turns a short edge by so much that it would have come there at another time.
    const isOff = edges.some((edge) => offFrom(this.lines, edge, place) > TURNED);
    return this.node(...(isOff ? nearestMeeting(this.lines, edges, place, 'squares') : place));
  }

  private link(from: number, to: number, left: number, right: number): number {
    this.follow.push(-1, -1);
    this.edge.push(left, right);
    this.strip.push(this.levels, this.levels);
    this.to.push(to);
    return this.from.push(from) - 1;
  }

  private after(half: number, following: number): void {
    this.follow[half] = following;
  }

  /** A corner's trail upwards lies along the face of the edge that arrives there, and downwards of the one that leaves. */
  private start(corner: number, node: number): void {
    this.trail[corner] = this.link(node, -1, this.front.arriving[corner]!, this.front.leaving[corner]!);
  }

  private up(corner: number): number {
    return 2 * this.trail[corner]!;
  }

  private down(corner: number): number {
    return 2 * this.trail[corner]! + 1;
  }

  private finish(corner: number, node: number): void {
    this.to[this.trail[corner]!] = node;
  }

  collapse(from: number, to: number, at: Meeting): void {
    const node = this.nodeAt(at);
    this.finish(from, node);
    this.finish(to, node);
    this.after(this.up(to), this.down(from));
    const [before, behind] = [this.up(from), this.down(to)];
    this.start(from, node);
    this.after(before, this.up(from));
    this.after(this.down(from), behind);
  }

  vanish(a: number, b: number, c: number, at: Meeting): void {
    const node = this.nodeAt(at);
    for (const corner of [a, b, c]) this.finish(corner, node);
    this.after(this.up(b), this.down(a));
    this.after(this.up(c), this.down(b));
    this.after(this.up(a), this.down(c));
  }

  split(corner: number, fresh: number, at: Meeting): void {
    const node = this.nodeAt(at);
    this.finish(corner, node);
    const [before, behind] = [this.up(corner), this.down(corner)];
    this.start(corner, node);
    this.start(fresh, node);
    this.after(this.down(fresh), this.up(corner));
    this.after(before, this.up(fresh));
    this.after(this.down(corner), behind);
  }

  /** Draws the wavefront, which is at or right after a level, as it is at that level; strips begin anew above it. */
  level(front: Wavefront, time: number, isLast: boolean): void {
    this.levels++;
    this.levelTimes[this.levels] = time;
    const old = this.trail.slice();
    const { room } = front;
    for (let v = 0; v < room; v++) {
      if (!front.isAlive(v)) continue;
      const [x, y] = this.settled(front, v, time);
      const node = this.node(x, y, time, RIM + this.levels);
      this.nodeOf[v] = node;
      this.finish(v, node);
      if (!isLast) this.start(v, node);
    }
    for (let v = 0; v < room; v++) {
      if (!front.isAlive(v)) continue;
      const w = front.next[v]!;
      const edge = front.leaving[v]!;
      const along = this.link(this.nodeOf[v]!, this.nodeOf[w]!, isLast ? -1 : edge, edge);
      this.strip[2 * along + 1] = this.levels - 1;
      this.after(2 * old[w]!, 2 * along + 1);
      this.after(2 * along + 1, 2 * old[v]! + 1);
      if (isLast) continue;
      this.after(2 * along, this.up(w));
      this.after(this.down(v), 2 * along);
    }
  }

  /** Where a corner would be at a time had its edges not been perturbed. */
  private settled(front: Wavefront, corner: number, time: number): readonly [x: number, y: number] {
    const { nx, ny, offset } = this.lines;
    const [a, b] = [front.arriving[corner]!, front.leaving[corner]!];
    const [x, y] = [front.xOf(corner), front.yOf(corner)];
    const offA = offset[a]! + time - nx[a]! * x - ny[a]! * y;
    const offB = offset[b]! + time - nx[b]! * x - ny[b]! * y;
    const cross = nx[a]! * ny[b]! - ny[a]! * nx[b]!;
    if (Math.abs(cross) < BENT) return [x + offA * nx[a]!, y + offA * ny[a]!];
    return [x + (offA * ny[b]! - offB * ny[a]!) / cross, y + (offB * nx[a]! - offA * nx[b]!) / cross];
  }

  /** Everything drawn, without near misses. @param shift how far nodes may move to become one */
  roof(front: Wavefront, shift: number): StripDrawing | null {
    const faces = this.faces(front);
    const shifts = new Float64Array(this.x.length).fill(shift);
    for (let mends = MENDS; ; mends--) {
      const before = [this.x.slice(), this.y.slice(), this.times.slice()] as const;
      const neat = this.neat(faces, shifts, mends % 2 === 0 ? 'farthest' : 'squares');
      if (!neat) return null;
      const roof = this.compact(neat);
      if (!Array.isArray(roof)) return roof;
      if (mends === 0) return null;
      for (const { corners, isOff } of roof) for (const i of corners) shifts[i] = isOff ? shift / 2 : WIDE;
      [this.x, this.y, this.times] = before;
    }
  }

  /** Faces without near misses and without nodes that are nearly one place; null where that leads in circles. */
  private neat(drawn: readonly Face<Label>[], shifts: Float64Array, fit: Fit): readonly Face<Label>[] | null {
    const drawing = { x: this.x, y: this.y, times: this.times, level: this.levelOf };
    let now: Changed<Label> = { faces: drawn, changed: drawn };
    // An edge led through a node can leave a part of it that is as good as nothing.
    for (let round = 0; round < ROUNDS; round++) {
      const joined = joinNodes(drawing, now.changed, shifts);
      const after = placed(now.faces, joined);
      this.move(joined.moved, after.changed, fit);
      // Nobody has looked at the faces of the first round yet.
      const parted = partHairs(drawing, after, this.exact, round === 0 ? after.faces : after.changed);
      if (!parted) return null;
      now = parted;
      if (parted === after) break;
    }
    return now.faces;
  }

  /**
   * Puts nodes that stand for several where the edges of all their faces would meet, as nearly as can be. Those on a level
   * stay on it.
   */
  private move(moved: Joined['moved'], faces: readonly Face<Label>[], fit: Fit): void {
    const free = [...moved].filter(([node]) => !this.levelOf[node]);
    const edges = new Map(free.map(([node]) => [node, new Set<number>()]));
    for (const { corners, label } of edges.size > 0 ? faces : []) {
      if (label.edge >= 0) for (const corner of corners) edges.get(corner)?.add(label.edge);
    }
    for (const [node, near] of moved) {
      const met = edges.get(node);
      const [x, y, time] = met ? nearestMeeting(this.lines, [...met], near, fit) : near;
      this.x[node] = x;
      this.y[node] = y;
      this.times[node] = time;
    }
  }

  /** All faces as they were drawn, and the triangles inside the last level. */
  private faces(front: Wavefront): Face<Label>[] {
    const faces: Face<Label>[] = [];
    const seen = new Uint8Array(this.follow.length);
    for (let half = 0; half < this.follow.length; half++) {
      if (seen[half] || this.edge[half]! < 0) continue;
      const corners: number[] = [];
      for (let h = half; !seen[h]; h = this.follow[h]!) {
        seen[h] = 1;
        const node = h % 2 === 0 ? this.from[h >> 1]! : this.to[h >> 1]!;
        // Edges that were put in at a corner begin without length.
        if (corners.at(-1) !== node) corners.push(node);
      }
      faces.push({ corners, label: { edge: this.edge[half]!, strip: this.strip[half]! } });
    }
    for (const h of front.triangles()) {
      const corners = [0, 1, 2].map((k) => this.nodeOf[front.corners[h + k]!]!);
      faces.push({ corners, label: { edge: -1, strip: this.levels } });
    }
    return faces;
  }

  /** Whether a face has only triangles with an area. */
  private hasArea(p: Float64Array, face: readonly number[]): boolean {
    for (let k = 2; k < face.length; k++) {
      const [a, b, c] = [2 * face[0]!, 2 * face[k - 1]!, 2 * face[k]!];
      const [ux, uy, vx, vy] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[c]! - p[a]!, p[c + 1]! - p[a + 1]!];
      const length = Math.sqrt(Math.max(ux * ux + uy * uy, vx * vx + vy * vy));
      const least = Math.min(2 * ZERO_AREA + ROUNDING * length, 2 * LEAST_AREA);
      if (!(ux * vy - uy * vx > least)) return false;
    }
    return true;
  }

  /** Whether a corner is as far from the outline edge of its face as it should be at a time. */
  private isExact(corner: number, edge: number, time = this.times[corner]!): boolean {
    return offFrom(this.lines, edge, [this.x[corner]!, this.y[corner]!, time]) <= this.exact;
  }

  /** Only the nodes that faces use, and faces divided as a mesh can have them; where some cannot be, what is wrong with them. */
  private compact(faces: readonly Face<Label>[]): StripDrawing | Flaw[] {
    const number = new Int32Array(this.x.length).fill(-1);
    const points: number[] = [];
    const times: number[] = [];
    const levels: number[] = [];
    const use = (node: number) => {
      if (number[node]! < 0) {
        number[node] = times.length;
        points.push(this.x[node]!, this.y[node]!);
        times.push(this.times[node]!);
        levels.push(this.levelOf[node]! - RIM);
      }
      return number[node]!;
    };
    for (let i = 0; i < this.rimCount; i++) use(i);
    const nodes = new Float64Array(2 * this.x.length);
    for (let i = 0; i < this.x.length; i++) {
      nodes[2 * i] = this.x[i]!;
      nodes[2 * i + 1] = this.y[i]!;
    }
    const inside: (readonly number[])[] = [];
    const starts = [0];
    const corners: number[] = [];
    const edges: number[] = [];
    const strips: number[] = [];
    const flaws: Flaw[] = [];
    for (const face of faces) {
      if (face.label.edge < 0) {
        inside.push(face.corners);
        continue;
      }
      const parts = divideFace(nodes, face.corners, 2 * LEAST_AREA);
      for (const corner of face.corners) {
        if (!this.isExact(corner, face.label.edge)) flaws.push({ corners: [corner], isOff: true });
      }
      if (!parts) flaws.push({ corners: face.corners, isOff: false });
      for (const part of parts ?? []) {
        if (!this.hasArea(nodes, part)) flaws.push({ corners: part, isOff: false });
        for (const corner of part) corners.push(use(corner));
        starts.push(corners.length);
        // An edge that was put in at a corner is nobody else's.
        edges.push(face.label.edge < this.rimCount ? face.label.edge : -1);
        strips.push(face.label.strip);
      }
    }
    if (flaws.length > 0) return flaws;
    const front = boundaryOf(inside, this.x.length).map(use);
    // A ridge that an edge of a level was led through is on that level.
    const strip = new Int16Array(times.length).fill(-1);
    for (const [f, own] of strips.entries()) {
      for (let c = starts[f]!; c < starts[f + 1]!; c++) {
        const point = corners[c]!;
        if (levels[point]! < 0 && strip[point]! >= 0 && strip[point] !== own)
          levels[point] = Math.max(own, strip[point]!);
        strip[point] = own;
      }
    }
    for (const point of front) if (levels[point]! < 0) levels[point] = this.levels;
    for (const face of faces) {
      if (face.label.edge < 0) continue;
      for (const corner of face.corners) {
        const level = levels[number[corner]!]!;
        if (this.levelOf[corner] || level < 0) continue;
        if (!this.isExact(corner, face.label.edge, this.levelTimes[level]))
          flaws.push({ corners: [corner], isOff: true });
      }
    }
    if (flaws.length > 0) return flaws;
    return {
      points: new Float64Array(points),
      times: new Float64Array(times),
      levels: new Int16Array(levels),
      starts: new Uint32Array(starts),
      corners: new Uint32Array(corners),
      edges: new Int32Array(edges),
      strips: new Uint16Array(strips),
      front: new Uint32Array(front),
    };
  }
}
