// PointMarks.tsx — points and handles of one shape under the hand. While something is dragged only the shape's own line is
// drawn anew; the document follows when it is let go.
import { memo, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { OutlineShape } from '../../core/index.ts';
import {
  changedAt,
  insertPoint,
  isSmooth,
  linesOf,
  moveHandle,
  movePoints,
  nearestOnLine,
  type Path,
  type PathLine,
  type PathPoint,
  parsePath,
  pathOfLines,
  printPath,
  restAt,
  type Snapped,
  type Spot,
} from '../../core/index.ts';
import { commitLines, DIGITS, outline, pointKey, pointsByLine, useOutline } from '../store/outline.ts';
import { areaBetween, type Place } from './choosing.ts';
import { DragMark } from './DragMark.tsx';
import type { FlatEye } from './eye.ts';
import { PointerArea } from './PointerArea.tsx';
import { SnapMark } from './SnapMark.tsx';
import type { Snap } from './snapping.ts';

/** Screen pixels within which something is meant. */
const REACH = 8;
const HALF = 3.5;

type Grip =
  | { readonly kind: 'points'; readonly from: Place }
  | { readonly kind: 'box'; readonly from: Place; readonly isAdded: boolean }
  | { readonly kind: 'handle'; readonly line: number; readonly index: number; readonly side: 'into' | 'out' };

/** Numbers of points by line. */
type Moved = ReadonlyMap<number, ReadonlySet<number>>;

interface Held {
  readonly grip: Grip;
  /** As they were when it was taken hold of. */
  readonly lines: readonly PathLine[];
  readonly moved: Moved;
  readonly lead: Spot | null;
  readonly level: readonly Spot[];
}

interface Rest {
  readonly d: string;
  readonly spots: string;
  readonly moved: Moved;
}

interface PointMarksProps {
  shape: OutlineShape;
  snap: Snap;
  pixel: number;
  /** All that is seen. */
  frame: FlatEye['frame'];
  placeAt: (event: { clientX: number; clientY: number }) => Place;
}

export function PointMarks({ shape, snap, pixel, frame, placeAt }: PointMarksProps) {
  const [near, setNear] = useState<Snapped | null>(null);
  const keys = useOutline((state) => state.points);
  const [lines, setLines] = useState<readonly PathLine[]>(() => linesOf(parsePath(shape.d).path));
  const free = useOutline((state) => state.free);
  const grip = useRef<Held | null>(null);
  /** Drawn round points to choose them. */
  const [box, setBox] = useState<readonly [Place, Place] | null>(null);
  /** What stays as it is while something is dragged. */
  const [rest, setRest] = useState<Rest | null>(null);
  // What the document says counts, once it is there.
  useEffect(() => setLines(linesOf(parsePath(shape.d).path)), [shape.d]);
  const chosen = pointsByLine(keys);

  const nearestPoint = ({ x, y }: Place) => {
    let best: { line: number; index: number; distance: number } | null = null;
    for (const [line, { points }] of lines.entries()) {
      for (const [index, { at }] of points.entries()) {
        const distance = Math.hypot(at[0] - x, at[1] - y);
        if (!best || distance < best.distance) best = { line, index, distance };
      }
    }
    return best && best.distance <= REACH * pixel ? best : null;
  };
  const nearestHandle = ({ x, y }: Place): Extract<Grip, { kind: 'handle' }> | null => {
    for (const [line, indices] of chosen) {
      for (const index of indices) {
        for (const side of ['into', 'out'] as const) {
          const spot = lines[line]?.points[index]?.[side];
          if (spot && Math.hypot(spot[0] - x, spot[1] - y) <= REACH * pixel)
            return { kind: 'handle', line, index, side };
        }
      }
    }
    return null;
  };

  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const place = placeAt(event);
    const handle = nearestHandle(place);
    if (handle) {
      hold(handle, new Map([[handle.line, new Set([handle.index])]]));
      return;
    }
    const point = nearestPoint(place);
    if (!point) {
      if (!event.shiftKey) outline.set({ points: [] });
      grip.current = {
        grip: { kind: 'box', from: place, isAdded: event.shiftKey },
        lines,
        moved: new Map(),
        ...company([], new Map()),
      };
      return;
    }
    const key = pointKey(point.line, point.index);
    if (event.shiftKey) {
      outline.set({ points: keys.includes(key) ? keys.filter((other) => other !== key) : [...keys, key] });
    } else if (!keys.includes(key)) outline.set({ points: [key] });
    hold({ kind: 'points', from: place }, pointsByLine(useOutline.getState().points));
  };

  const hold = (next: Grip, moved: Moved) => {
    grip.current = { grip: next, lines, moved, ...company(lines, moved) };
    setRest({
      d: printPath(
        lines.flatMap((line, i) => (moved.has(i) ? restAt(line, moved.get(i)!) : pathOfLines([line]))),
        DIGITS,
      ),
      spots: spotsOf(lines, moved, false),
      moved,
    });
  };

  const move = (event: PointerEvent) => {
    const held = grip.current;
    if (!held || event.buttons === 0) return;
    const place = placeAt(event);
    if (held.grip.kind === 'box') {
      setBox([held.grip.from, place]);
      return;
    }
    if (held.grip.kind === 'handle') {
      const { line, index, side } = held.grip;
      const point = held.lines[line]!.points[index]!;
      // Alone with Alt; a smooth point stays smooth.
      const mode = event.altKey
        ? 'alone'
        : event.shiftKey
          ? 'mirrored'
          : isSmooth(point) && !free.includes(pointKey(line, index))
            ? 'together'
            : 'alone';
      const to: Spot = [place.x, place.y];
      setLines(held.lines.map((other, i) => (i === line ? moveHandle(other, index, side, to, mode) : other)));
      return;
    }
    const { from } = held.grip;
    const { moved, lead, level } = held;
    if (!lead) return;
    const wanted = { x: lead[0] + place.x - from.x, y: lead[1] + place.y - from.y };
    const next = snap(wanted, event, { from: lead, level, except: shape.id });
    setNear(next);
    const [dx, dy] = [next.at[0] - lead[0], next.at[1] - lead[1]];
    setLines(held.lines.map((line, i) => (moved.has(i) ? movePoints(line, moved.get(i)!, dx, dy) : line)));
  };

  const up = () => {
    const held = grip.current;
    grip.current = null;
    setRest(null);
    setNear(null);
    if (box && held?.grip.kind === 'box') {
      const area = areaBetween(...box);
      const inside = lines.flatMap(({ points }, line) =>
        points.flatMap(({ at: [x, y] }, index) =>
          x >= area.minX && x <= area.maxX && y >= area.minY && y <= area.maxY ? [pointKey(line, index)] : [],
        ),
      );
      outline.set({ points: held.grip.isAdded ? [...new Set([...keys, ...inside])] : inside });
    }
    setBox(null);
    if (held && held.lines !== lines) void commitLines(shape.id, lines);
  };

  /** A point where the line was pressed twice. */
  const insert = (event: { clientX: number; clientY: number }) => {
    const { x, y } = placeAt(event);
    const found = lines
      .flatMap((line, i) => {
        const on = nearestOnLine(line, x, y);
        return on ? [{ ...on, line: i }] : [];
      })
      .sort((a, b) => a.distance - b.distance)[0];
    if (!found || found.distance > REACH * pixel || nearestPoint({ x, y })) return;
    const next = lines.map((line, i) => (i === found.line ? insertPoint(line, found.piece, found.t) : line));
    outline.set({ points: [pointKey(found.line, found.piece + 1)] });
    void commitLines(shape.id, next);
  };

  return (
    <g data-points={lines.reduce((sum, { points }) => sum + points.length, 0)}>
      <PointerArea frame={frame} onPointerDown={down} onPointerMove={move} onPointerUp={up} onDoubleClick={insert} />
      <g className="pointer-events-none">
        <Line d={rest ? rest.d : printPath(pathOfLines(lines), DIGITS)} pixel={pixel} />
        {rest && <Line d={printPath(changedLines(lines, rest.moved), DIGITS)} pixel={pixel} />}
        <Squares spots={rest ? rest.spots : spotsOf(lines, chosen, false)} pixel={pixel} isChosen={false} />
        {[...chosen].flatMap(([line, indices]) =>
          [...indices].map((index) => (
            <Handles key={pointKey(line, index)} line={lines[line]} index={index} pixel={pixel} />
          )),
        )}
        <Squares spots={spotsOf(lines, rest?.moved ?? chosen, true)} pixel={pixel} isChosen />
        {box && <DragMark line={box} shape="box" pixel={pixel} />}
        {near && <SnapMark near={near} pixel={pixel} />}
      </g>
    </g>
  );
}

const Line = memo(function Line({ d, pixel }: { d: string; pixel: number }) {
  return <path d={d} fill="none" className="stroke-tide" strokeWidth={1.5 * pixel} />;
});

const changedLines = (lines: readonly PathLine[], moved: Moved): Path =>
  [...moved].flatMap(([i, which]) => (lines[i] ? changedAt(lines[i], which) : []));

/** Coordinates of the points that are chosen, or of those that are not, as a text: equal texts need no drawing. */
function spotsOf(lines: readonly PathLine[], chosen: Moved, isChosen: boolean): string {
  const text = ({ at }: PathPoint) => `${at[0]},${at[1]}`;
  if (isChosen) {
    return [...chosen]
      .flatMap(([line, which]) => [...which].flatMap((i) => lines[line]?.points[i] ?? []).map(text))
      .join(' ');
  }
  return lines.flatMap(({ points }, line) => points.filter((_, i) => !chosen.get(line)?.has(i)).map(text)).join(' ');
}

/** Thousands of points as one element. */
const Squares = memo(function Squares({ spots, pixel, isChosen }: { spots: string; pixel: number; isChosen: boolean }) {
  const side = 2 * HALF * pixel;
  const d = spots
    .split(' ')
    .filter(Boolean)
    .map((spot) => {
      const [x, y] = spot.split(',').map(Number) as [number, number];
      return `M${x - side / 2} ${y - side / 2}h${side}v${side}h${-side}z`;
    })
    .join('');
  return <path d={d} className={`stroke-tide ${isChosen ? 'fill-tide' : 'fill-sheet'}`} strokeWidth={pixel} />;
});

function Handles({ line, index, pixel }: { line: PathLine | undefined; index: number; pixel: number }) {
  const point = line?.points[index];
  if (!point) return null;
  return [point.into, point.out].map((spot, i) =>
    spot ? (
      <g key={i === 0 ? 'into' : 'out'} className="stroke-tide" strokeWidth={pixel}>
        <line x1={point.at[0]} y1={point.at[1]} x2={spot[0]} y2={spot[1]} />
        <circle cx={spot[0]} cy={spot[1]} r={HALF * pixel} className="fill-sheet" />
      </g>
    ) : null,
  );
}

/** The first of the points that are moved, and those of its shape that stay. */
function company(lines: readonly PathLine[], moved: Moved): { lead: Spot | null; level: Spot[] } {
  const [first] = moved;
  const lead = first && lines[first[0]]?.points[[...first[1]][0]!];
  const level = lines.flatMap(({ points }, l) => points.flatMap(({ at }, i) => (moved.get(l)?.has(i) ? [] : [at])));
  return { lead: lead?.at ?? null, level };
}
