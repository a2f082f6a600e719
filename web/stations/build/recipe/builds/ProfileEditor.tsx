// ProfileEditor.tsx — a profile drawn by hand: the cross-section of an edge from the wall below on the left to the front
// above on the right. Points are dragged; a click on the empty field adds one, a double click takes one away.
import { Trash2 } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { type DrawnProfile, MOST_CURVE_POINTS, profileRows } from '../../../../../core/index.ts';
import { IconButton } from '../../../../controls/IconButton.tsx';
import { Tick } from '../../../../controls/Tick.tsx';
import { dispatch, useDocument } from '../../../../store/project.ts';

/** Sides of the field, in pixels, and the room around it in which points on its rim can be taken hold of. */
const [WIDTH, HEIGHT, ROOM] = [248, 148, 10];
/** Coordinates are kept to this share: a tenth of a percent. */
const GRAIN = 1000;
/** A key press moves a point by this share; with Shift by ten times as much. */
const NUDGE = 0.01;
/** Steps of a smooth curve as it is drawn here. */
const DRAWN_STEPS = 12;

type Place = readonly [x: number, y: number];

/** A name that is free, and an ogee to start from. */
export function freshProfile(taken: readonly DrawnProfile[]): DrawnProfile {
  let n = 1;
  while (taken.some(({ name }) => name === `Profile ${n}`)) n++;
  return {
    name: `Profile ${n}`,
    points: [
      [0.25, 0.55],
      [0.6, 0.7],
    ],
    isSmooth: true,
  };
}

export function ProfileEditor({ profile }: { profile: DrawnProfile }) {
  const { profiles } = useDocument();
  const field = useRef<SVGSVGElement>(null);
  const drag = useRef<{ point: number; gesture: string } | null>(null);
  const { name, points, isSmooth } = profile;
  const save = (change: Partial<DrawnProfile>, gesture: string | null = null) =>
    dispatch({ do: 'save-profile', profile: { ...profile, ...change }, was: name }, gesture);
  const move = (k: number, place: Place, gesture: string | null) =>
    save({ points: points.map((known, i) => (i === k ? held(place, points[k - 1], points[k + 1]) : known)) }, gesture);
  const rename = (next: string) => {
    const isFree = next !== '' && next !== name && !profiles.some((other) => other.name === next);
    if (isFree) save({ name: next });
    return isFree;
  };
  const at = (event: PointerEvent): Place => {
    const { left, top } = field.current!.getBoundingClientRect();
    return [(event.clientX - left - ROOM) / WIDTH, 1 - (event.clientY - top - ROOM) / HEIGHT];
  };
  const add = (event: PointerEvent) => {
    if (points.length >= MOST_CURVE_POINTS) return;
    const place = held(at(event), undefined, undefined);
    const k = points.filter(([x]) => x < place[0]).length;
    save({ points: [...points.slice(0, k), [...place], ...points.slice(k)] });
  };
  const drop = (k: number) => save({ points: points.filter((_, i) => i !== k) });
  const { insets, heights } = profileRows(profile, isSmooth ? DRAWN_STEPS : 1);
  const line = insets.map((x, i) => `${shownX(x)},${shownY(heights[i]!)}`).join(' L');

  return (
    <div className="my-2">
      <svg
        ref={field}
        width={WIDTH + 2 * ROOM}
        height={HEIGHT + 2 * ROOM}
        aria-label={`${name}, from the wall up to the front`}
        className="touch-none border border-rule bg-sheet"
        onPointerMove={(event) => {
          if (drag.current) move(drag.current.point, at(event), drag.current.gesture);
        }}
        onPointerUp={() => {
          drag.current = null;
        }}
      >
        <path
          d={`M${shownX(0)},${HEIGHT + 2 * ROOM} V${shownY(0)} L${line} H${WIDTH + 2 * ROOM} V${HEIGHT + 2 * ROOM} Z`}
          className="fill-wash"
        />
        <rect
          x={ROOM}
          y={ROOM}
          width={WIDTH}
          height={HEIGHT}
          className="cursor-crosshair fill-transparent stroke-rule"
          strokeDasharray="2 3"
          onPointerDown={add}
        />
        <path d={`M${line}`} className="pointer-events-none fill-none stroke-tide" strokeWidth={1.75} />
        {points.map(([x, y], k) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place in the list, also while it is dragged
            key={k}
            cx={shownX(x)}
            cy={shownY(y)}
            r={5}
            tabIndex={0}
            role="slider"
            aria-label={`Point ${k + 1} of ${points.length}`}
            aria-valuenow={Math.round(100 * y)}
            aria-valuetext={`${Math.round(100 * x)} % in, ${Math.round(100 * y)} % up`}
            className="cursor-move fill-sheet stroke-tide focus:fill-tide"
            strokeWidth={1.75}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.focus();
              field.current!.setPointerCapture(event.pointerId);
              drag.current = { point: k, gesture: `profile ${performance.now()}` };
            }}
            onDoubleClick={() => drop(k)}
            onKeyDown={(event) => {
              const way = KEY_WAYS[event.key];
              if (event.key === 'Delete' || event.key === 'Backspace') drop(k);
              else if (way) move(k, moved([x, y], way, event), null);
              else return;
              event.preventDefault();
              event.stopPropagation();
            }}
          />
        ))}
      </svg>
      <p className="mt-1 flex items-center gap-3 text-sm">
        <input
          key={name}
          aria-label="Name of the profile"
          defaultValue={name}
          className="min-w-0 flex-1 border-tide border-b bg-wash px-1 text-tide focus:bg-sheet"
          onBlur={(event) => {
            if (!rename(event.target.value.trim())) event.target.value = name;
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
        />
        <Tick label="Smooth" isOn={isSmooth} onChange={(isOn) => save({ isSmooth: isOn })} />
        <IconButton
          icon={Trash2}
          label="Remove this profile"
          onClick={() => dispatch({ do: 'remove-profile', name })}
        />
      </p>
      <p className="text-quiet text-sm">
        Wall below, front to the right. Click to add a point, double-click to take it away.
      </p>
    </div>
  );
}

const KEY_WAYS: Readonly<Record<string, Place>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const moved = ([x, y]: Place, [dx, dy]: Place, { shiftKey }: KeyboardEvent): Place => {
  const by = NUDGE * (shiftKey ? 10 : 1);
  return [x + by * dx, y + by * dy];
};

/** Within the field, and not past the points beside it. */
function held([x, y]: Place, before: Place | undefined, after: Place | undefined): [number, number] {
  const within = (v: number, least: number, most: number) => Math.min(most, Math.max(least, v));
  const rounded = (v: number) => Math.round(GRAIN * v) / GRAIN;
  return [within(rounded(x), before?.[0] ?? 0, after?.[0] ?? 1), within(rounded(y), 0, 1)];
}

const shownX = (x: number) => ROOM + x * WIDTH;
const shownY = (y: number) => ROOM + (1 - y) * HEIGHT;
