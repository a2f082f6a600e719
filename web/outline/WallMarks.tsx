// WallMarks.tsx — walls and their openings under the hand: ends moved together, openings moved along and widened.
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import {
  doorLines,
  glassLine,
  middleLine,
  moveNode,
  nearestOnWalls,
  type Opening,
  openingOutline,
  pieceOf,
  printPath,
  type Snapped,
  type Source,
  type Spot,
  type Wall,
} from '../../core/index.ts';
import { DIGITS, useOutline } from '../store/outline.ts';
import {
  changedOpening,
  listedWalls,
  movedWall,
  setWalls,
  useWalls,
  walls as wallTool,
  withOpening,
} from '../store/walls.ts';
import type { FlatEye } from './eye.ts';
import { SnapMark } from './SnapMark.tsx';
import { SNAP, type Snap } from './snapping.ts';

interface WallMarksProps {
  source: Source;
  snap: Snap;
  pixel: number;
  /** All that is seen. */
  frame: FlatEye['frame'];
  placeAt: FlatEye['placeAt'];
}

type Grip =
  | { readonly kind: 'node'; readonly at: Spot }
  | { readonly kind: 'wall'; readonly wall: Wall; readonly from: Spot }
  | { readonly kind: 'opening'; readonly wall: Wall; readonly opening: Opening; readonly off: number }
  | { readonly kind: 'jamb'; readonly wall: Wall; readonly opening: Opening; readonly side: 1 | -1 };

export function WallMarks({ source, snap, pixel, frame, placeAt }: WallMarksProps) {
  const known = listedWalls(source);
  const isTool = useOutline(({ tool }) => tool === 'walls');
  const { wall: chosen, opening: chosenOpening, placing } = useWalls();
  const [walls, setDraft] = useState(known);
  const [near, setNear] = useState<Snapped | null>(null);
  const held = useRef<{ grip: Grip; walls: readonly Wall[] } | null>(null);
  // What the document says counts, once it is there.
  useEffect(() => setDraft(known), [known]);

  const spotAt = (event: PointerEvent): Spot => {
    const { x, y } = placeAt(event);
    return [x, y];
  };
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const spot = spotAt(event);
    const on = nearestOnWalls(walls, spot);
    if (placing) {
      const made = on && withOpening(walls, placing, on);
      if (!made) return;
      setWalls(source, made.walls);
      wallTool.set({ placing: null, wall: on.wall, opening: made.id });
      return;
    }
    const grip = gripAt(walls, spot, pixel);
    wallTool.set({
      wall: grip?.kind === 'node' ? chosen : (grip?.wall.id ?? null),
      opening: grip?.kind === 'opening' || grip?.kind === 'jamb' ? grip.opening.id : null,
    });
    held.current = grip && { grip, walls };
  };

  const move = (event: PointerEvent) => {
    const from = held.current;
    if (!from || event.buttons === 0) return;
    const spot = spotAt(event);
    const { grip } = from;
    if (grip.kind === 'node') {
      const level = from.walls.flatMap(({ points }) => points.filter((point) => !isSame(point, grip.at)));
      const [x, y] = spot;
      const next = snap({ x, y }, event, { from: grip.at, level });
      setNear(next);
      setDraft(moveNode(from.walls, grip.at, next.at, SAME * pixel));
    } else if (grip.kind === 'wall') {
      const by: Spot = [spot[0] - grip.from[0], spot[1] - grip.from[1]];
      setDraft(movedWall(from.walls, grip.wall, by, SAME * pixel));
    } else setDraft(changedOpening(from.walls, grip.opening.id, slid(grip, spot)));
  };

  const up = () => {
    const from = held.current;
    held.current = null;
    setNear(null);
    if (from && from.walls !== walls) setWalls(source, walls);
  };

  return (
    <g data-walls={walls.length}>
      {isTool && (
        <rect
          {...frame}
          fill="transparent"
          className={placing ? 'cursor-crosshair' : ''}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
        />
      )}
      <g className="pointer-events-none">
        {walls.map((wall) => (
          <path
            key={wall.id}
            d={printPath(middleLine(wall), DIGITS)}
            fill="none"
            className={wall.id === chosen ? 'stroke-tide/60' : 'stroke-tide/25'}
            strokeWidth={wall.thickness}
          />
        ))}
        {walls.map((wall) => (
          <path
            key={wall.id}
            d={printPath(middleLine(wall), DIGITS)}
            fill="none"
            className="stroke-tide"
            strokeWidth={pixel}
            strokeDasharray={`${7 * pixel} ${3 * pixel} ${pixel} ${3 * pixel}`}
          />
        ))}
        {walls.flatMap((wall) =>
          wall.openings.map((opening) => (
            <OpeningMark
              key={opening.id}
              wall={wall}
              opening={opening}
              isChosen={opening.id === chosenOpening}
              pixel={pixel}
            />
          )),
        )}
        {isTool && <Nodes walls={walls} pixel={pixel} />}
        {near && <SnapMark near={near} pixel={pixel} />}
      </g>
    </g>
  );
}

/** Screen pixels within which ends of walls are one. */
const SAME = 2;
const isSame = (a: Spot, b: Spot) => a[0] === b[0] && a[1] === b[1];

function Nodes({ walls, pixel }: { walls: readonly Wall[]; pixel: number }) {
  const r = 4 * pixel;
  const dot = ([x, y]: Spot) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
  const d = walls.flatMap(({ points }) => points.map(dot)).join('');
  return <path d={d} className="fill-sheet stroke-tide" strokeWidth={pixel} />;
}

interface OpeningMarkProps {
  wall: Wall;
  opening: Opening;
  isChosen: boolean;
  pixel: number;
}

/** A door shows its leaf and swing, a window its glass. */
function OpeningMark({ wall, opening, isChosen, pixel }: OpeningMarkProps) {
  const outline = openingOutline(wall, opening);
  if (!outline) return null;
  const sign = printPath(opening.kind === 'window' ? glassLine(wall, opening) : doorLines(wall, opening), DIGITS);
  return (
    <g data-opening={opening.kind} className="stroke-tide" strokeWidth={(isChosen ? 3 : 1.25) * pixel}>
      <path d={printPath(outline, DIGITS)} className="fill-sheet" />
      <path d={sign} fill="none" />
    </g>
  );
}

/** What is meant at a place: an end, a jamb of an opening, an opening, a wall; null for none. */
function gripAt(walls: readonly Wall[], spot: Spot, pixel: number): Grip | null {
  const reach = SNAP * pixel;
  const distance = (other: Spot) => Math.hypot(other[0] - spot[0], other[1] - spot[1]);
  for (const wall of walls) {
    for (const opening of wall.openings) {
      const piece = pieceOf(wall, opening.piece);
      if (!piece) continue;
      const { along, across } = beside(piece, spot);
      const off = along - opening.at * piece.length;
      if (Math.abs(across) > Math.max(reach, wall.thickness / 2)) continue;
      for (const side of [1, -1] as const) {
        if (Math.abs(off - (side * opening.width) / 2) <= reach) return { kind: 'jamb', wall, opening, side };
      }
      if (Math.abs(off) < opening.width / 2) return { kind: 'opening', wall, opening, off };
    }
  }
  for (const { points } of walls) for (const at of points) if (distance(at) <= reach) return { kind: 'node', at };
  const on = nearestOnWalls(walls, spot);
  const wall = walls.find(({ id }) => id === on?.wall);
  return wall && on!.distance <= Math.max(reach, wall.thickness / 2) ? { kind: 'wall', wall, from: spot } : null;
}

function beside({ start, way }: { start: Spot; way: Spot }, [x, y]: Spot) {
  const [dx, dy] = [x - start[0], y - start[1]];
  return { along: dx * way[0] + dy * way[1], across: dy * way[0] - dx * way[1] };
}

/** An opening moved along its wall, or one of its jambs while the other stays. */
function slid(grip: Extract<Grip, { kind: 'opening' | 'jamb' }>, spot: Spot): Partial<Opening> {
  const { wall, opening } = grip;
  const piece = pieceOf(wall, opening.piece)!;
  const { along } = beside(piece, spot);
  const within = (s: number) => Math.min(piece.length, Math.max(0, s));
  if (grip.kind === 'opening') {
    const half = Math.min(opening.width, piece.length) / 2;
    const middle = Math.min(piece.length - half, Math.max(half, along - grip.off));
    return { at: middle / piece.length };
  }
  const fixed = opening.at * piece.length - (grip.side * opening.width) / 2;
  const loose = within(along);
  const width = Math.max(1e-3 * piece.length, grip.side * (loose - fixed));
  return { width, at: (fixed + (grip.side * width) / 2) / piece.length };
}
