// corpora.ts — `npm run corpora`: thousands of real drawings, each built without an edge and at five reaches with each of the
// three ways of dividing fronts, and what the proof and plain measures say of the meshes.
//
//     npm run corpora -- [--every N] [--crossings N] [--faces fewest|even|grid]
//
// takes every Nth drawing (1), seeks self-crossings, the slowest check, in every Nth mesh (7), and divides fronts in all ways or
// one. Edges, which are the same in all, are measured with the fewest faces. Interrupted, it prints what was counted until then.
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { parseArgs } from 'node:util';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { boundsOf, FACE_MESHES, proofOf, type Region, ringsOf, SIDES } from '../core/index.ts';
import { longestSide } from '../core/outline/measure.ts';
import { profileRows } from '../core/solid/profile.ts';
import { fitSpec, planSlab, raiseSlab, type SlabEdge, type SlabPlan, type SlabSpec } from '../core/solid/slab.ts';
import { roundEdge } from '../core/testing/edges.ts';
import { realDrawings } from './drawings.ts';

/** Shares of the longest side. */
const REACHES = [0, 0.01, 0.02, 0.04, 0.08, 0.4];
/** After how many drawings it is said how many there were. */
const PROGRESS = 500;
/** How far a corner's distance from its outline edge may be off, as a share of the longest side. */
const EXACT = 1e-6;
const EDGE = SIDES.indexOf('edge');

/** What is counted; all but `farthest` add up over threads. */
interface Tally {
  drawings: number;
  meshes: number;
  crossingsSought: number;
  bad: number;
  edges: number;
  byRings: number;
  corners: number;
  offCorners: number;
  farthest: number;
  quads: number;
  smallFaces: number;
}

const nothing = (): Tally => ({
  drawings: 0,
  meshes: 0,
  crossingsSought: 0,
  bad: 0,
  edges: 0,
  byRings: 0,
  corners: 0,
  offCorners: 0,
  farthest: 0,
  quads: 0,
  smallFaces: 0,
});

function add(sum: Tally, part: Tally): void {
  const farthest = Math.max(sum.farthest, part.farthest);
  for (const key of Object.keys(sum) as (keyof Tally)[]) sum[key] += part[key];
  sum.farthest = farthest;
}

interface Task {
  readonly every: number;
  readonly crossings: number;
  readonly ways: readonly SlabSpec['faces'][];
  readonly part: number;
  readonly parts: number;
}

/** What a thread reports: a line to print, or all that it has counted so far. */
type Report = string | Tally[];

async function measure({ every, crossings, ways, part, parts }: Task, say: (report: Report) => void): Promise<void> {
  const { drawings } = await realDrawings();
  const tallies = REACHES.map(nothing);
  let mesh = 0;
  for (const [i, drawing] of drawings.filter((_, k) => k % every === 0).entries()) {
    if (i % parts !== part) continue;
    if (i % PROGRESS === 0) say(`${i} drawings`);
    say(tallies);
    const regions = drawing.regions();
    if (regions.length === 0) continue;
    for (const [r, share] of REACHES.entries()) {
      tallies[r]!.drawings++;
      for (const faces of ways) {
        const fault = build(regions, { share, faces, crossings: ++mesh % crossings === 0 }, tallies[r]!);
        if (fault) say(`${drawing.set} ${drawing.name}, reach ${100 * share} %, ${faces}: ${fault}`);
      }
    }
  }
  say(tallies);
}

interface Case {
  readonly share: number;
  readonly faces: SlabSpec['faces'];
  readonly crossings: boolean;
}

/** @returns what is wrong, or nothing */
function build(regions: readonly Region[], { share, faces, crossings }: Case, tally: Tally): string {
  const size = longestSide(boundsOf(ringsOf(regions))!);
  const reach = share * size;
  const edge = roundEdge({ reach, rise: Math.min(reach, size / 30) });
  const wanted = { depth: size / 8, front: edge, back: edge, faces, cell: size / 24, wallRows: 1 };
  try {
    const { spec } = fitSpec(wanted, size);
    const plan = planSlab(regions, spec);
    const mesh = raiseSlab(plan, spec);
    tally.meshes++;
    if (crossings) tally.crossingsSought++;
    const proof = proofOf({ ...mesh, positions: mesh.positions.map(Math.fround) }, { crossings });
    const faults = proof.findings
      .filter(({ fault }) => fault !== 'sliver')
      .map(({ fault, count }) => `${count} ${fault}`);
    if (!proof.closed || !(proof.volume > 0)) faults.push('not closed outward');
    if (faults.length > 0) tally.bad++;
    // Strips are the same however the front is divided.
    if (faces === 'fewest' && spec.front) {
      tally.edges++;
      if (plan.edgePath === 'rings') {
        tally.byRings++;
        faults.push('edge by rings');
      }
      const off = measureStrips(plan, spec.front, size, tally);
      if (off > EXACT) faults.push(`corners off by ${off.toExponential(1)}`);
    }
    return faults.join(', ');
  } catch (error) {
    tally.bad++;
    return String(error);
  }
}

/**
 * Corners of the edges' faces against the line of their outline edge, at the distance asked for; and how many are quads.
 * @returns how far the farthest corner is off
 */
function measureStrips(plan: SlabPlan, { profile, steps, reach }: SlabEdge, size: number, tally: Tally): number {
  let farthest = 0;
  const { points, rows, starts, corners, sides, flow, edgePath } = plan;
  const insets = profileRows(profile, steps).insets.map((inset) => inset * reach);
  for (let f = 0; f + 1 < starts.length; f++) {
    if (sides[f] !== EDGE) continue;
    const count = starts[f + 1]! - starts[f]!;
    if (count <= 4) tally.smallFaces++;
    if (count === 4) tally.quads++;
    const edge = flow.edges[f]!;
    if (edge < 0 || edgePath === 'rings') continue;
    const [x, y] = [flow.points[2 * edge]!, flow.points[2 * edge + 1]!];
    const next = flow.next[edge]!;
    const [dx, dy] = [flow.points[2 * next]! - x, flow.points[2 * next + 1]! - y];
    for (let c = starts[f]!; c < starts[f + 1]!; c++) {
      const point = corners[c]!;
      const row = rows[point]! < 0 ? -1 - rows[point]! : rows[point]!;
      const below = Math.floor(row);
      const asked = insets[below]! + (row - below) * ((insets[below + 1] ?? 0) - insets[below]!);
      const found = (dx * (points[2 * point + 1]! - y) - dy * (points[2 * point]! - x)) / Math.hypot(dx, dy);
      const off = Math.abs(found - asked) / size;
      tally.corners++;
      if (off > EXACT) tally.offCorners++;
      farthest = Math.max(farthest, off);
    }
  }
  tally.farthest = Math.max(tally.farthest, farthest);
  return farthest;
}

function print(tallies: readonly Tally[]): void {
  const percent = (part: number, whole: number) => (whole > 0 ? `${((100 * part) / whole).toFixed(2)} %` : '–');
  const row = (name: string, t: Tally) =>
    [
      name.padEnd(8),
      `${t.bad} / ${t.meshes}`.padEnd(16),
      String(t.crossingsSought).padEnd(16),
      `${t.byRings} / ${t.edges}`.padEnd(14),
      `${t.farthest.toExponential(1)}, ${t.offCorners} / ${t.corners}`.padEnd(30),
      percent(t.quads, t.smallFaces),
    ].join(' ');
  const all = nothing();
  for (const tally of tallies) add(all, tally);
  console.log(`\n${tallies[0]!.drawings} drawings, round edge in 3 steps on both sides\n`);
  console.log('reach    bad / meshes     crossings sought by rings       corners: farthest, over 1e-6   quads');
  for (const [r, share] of REACHES.entries()) console.log(row(`${100 * share} %`, tallies[r]!));
  console.log(row('all', all));
}

if (isMainThread) {
  const options = {
    every: { type: 'string', default: '1' },
    crossings: { type: 'string', default: '7' },
    faces: { type: 'string', default: '' },
  } as const;
  const { every, crossings, faces } = parseArgs({ options }).values;
  const ways = FACE_MESHES.filter((each) => faces === '' || each === faces);
  if (ways.length === 0) throw new Error(`Faces are ${FACE_MESHES.join(', ')}, not ${faces}.`);
  const { missing } = await realDrawings();
  if (missing.length > 0) console.log(`Not installed, and left out: ${missing.join(', ')}`);
  const parts = availableParallelism();
  const counted = Array.from({ length: parts }, (): Tally[] => []);
  const summary = () => {
    const tallies = REACHES.map(nothing);
    for (const part of counted) for (const [r, tally] of part.entries()) add(tallies[r]!, tally);
    print(tallies);
  };
  process.once('SIGINT', () => {
    summary();
    process.exit(1);
  });
  const done = Array.from({ length: parts }, (_, part) => {
    const task: Task = { every: Number(every), crossings: Number(crossings), ways, part, parts };
    const worker = new Worker(new URL(import.meta.url), { workerData: task });
    worker.on('message', (report: Report) => {
      if (typeof report === 'string') console.log(report);
      else counted[part] = report;
    });
    return once(worker, 'exit');
  });
  await Promise.all(done);
  summary();
} else {
  await measure(workerData as Task, (report) => parentPort!.postMessage(report));
}
