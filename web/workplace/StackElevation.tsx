// StackElevation.tsx — the stack seen from the side, heights to scale: each layer a bar from its base to its top, its edge
// profile at the ends. Tops are dragged to change depths, bars to move bases.
import {
  type KeyboardEvent,
  memo,
  type PointerEvent,
  type RefObject,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import {
  buildKind,
  type Elevation,
  type ElevationRim,
  type Group,
  gaveOf,
  groupsAbove,
  heightOf,
  type Layer,
  type Overlap,
  type Project,
  withRuled,
} from '../../core/index.ts';
import { TextButton } from '../controls/TextButton.tsx';
import { formatNumber } from '../format.ts';
import { useBuild } from '../store/build.ts';
import { partLayers, usualGap } from '../store/parting.ts';
import { dispatch, useDocument, useDocumentPart } from '../store/project.ts';
import { useRule } from '../store/rule.ts';
import { screen, useScreen } from '../store/screen.ts';

const WIDTH = 264;
const HEIGHT = 268;
const LEFT = 46;
const RIGHT = 14;
const TOP = 22;
const BOTTOM = 26;
const MIN_BAR = 14;
const MAX_BAR = 46;
/** What can be taken hold of at the top of a bar. */
const LID = 24;

interface Range {
  readonly low: number;
  readonly high: number;
}

/** Where a height is drawn. */
const heightAt = (z: number, low: number, perUnit: number) => HEIGHT - BOTTOM - (z - low) * perUnit;

export function StackElevation() {
  const { layers, groups = NO_GROUPS } = useDocument();
  const shown = useMemo(() => layers.filter((layer) => layer.shown), [layers]);
  const places = useMemo(() => new Map(shown.map(({ id }, i) => [id, i])), [shown]);
  const brackets = useMemo(() => bracketsOf(shown, groups), [shown, groups]);
  const box = useRef<HTMLDivElement>(null);
  const seen = useSeen(box);
  const [frozen, setFrozen] = useState<Range | null>(null);
  const found = useBuild((state) => state.view?.overlaps);
  const overlaps = useMemo(() => (found ?? []).filter(({ isTouching }) => !isTouching), [found]);
  const ghosts = useGhosts(shown);
  const views = useBuild((state) => state.view?.layers);
  const overs = useMemo(() => new Map(views?.map(({ id, over }) => [id, over])), [views]);
  const range = frozen ?? rangeOf([...shown, ...ghosts], overs);
  const perUnit = (HEIGHT - TOP - BOTTOM) / (range.high - range.low);
  const y = (z: number) => heightAt(z, range.low, perUnit);
  const pitch = Math.max(MIN_BAR + 3, Math.min(MAX_BAR + 8, (WIDTH - LEFT - RIGHT) / shown.length));
  const bar = Math.min(MAX_BAR, pitch - Math.min(8, pitch * 0.2));
  const width = Math.max(WIDTH, LEFT + RIGHT + pitch * shown.length);
  const x = (i: number) => LEFT + i * pitch + (pitch - bar) / 2;
  const marks = ticks(range);
  const latest = useRef(range);
  useLayoutEffect(() => {
    latest.current = range;
  });
  const [keepRange] = useState(() => (dragging: boolean) => setFrozen(dragging ? latest.current : null));

  return (
    <div ref={box} className="overflow-x-auto px-0">
      {/* biome-ignore lint/a11y/useSemanticElements: a fieldset cannot hold a drawing */}
      <svg width={width} height={HEIGHT} role="group" aria-label="Side elevation of the stack">
        <defs>
          <pattern id="shared" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="5" className="stroke-ember" strokeWidth="2" />
          </pattern>
        </defs>
        {marks.map((z) => (
          <g key={z}>
            <line
              x1={LEFT - 5}
              x2={width - RIGHT}
              y1={y(z)}
              y2={y(z)}
              className="stroke-rule"
              strokeWidth={z === 0 ? 1.5 : 0.6}
            />
            <text x={LEFT - 9} y={y(z) + 4} textAnchor="end" className="figure fill-quiet" fontSize="11">
              {formatNumber(z)}
            </text>
          </g>
        ))}
        <text x={width - RIGHT} y={HEIGHT - 3} textAnchor="end" className="fill-quiet" fontSize="11">
          sheet
        </text>
        {brackets.map(({ id, name, from, to, depth }) => (
          <path
            key={id}
            d={`M${x(from)} ${BRACKET_TOP + depth * BRACKET_STEP - 3}v3H${x(to) + bar}v-3`}
            fill="none"
            className="stroke-quiet"
            data-bracket={name}
          >
            <title>{name}</title>
          </path>
        ))}
        {shown.map((layer, i) =>
          x(i) + pitch < seen.from || x(i) > seen.to ? null : (
            <Bar
              key={layer.id}
              layer={layer}
              over={overs.get(layer.id) ?? 0}
              x={x(i)}
              width={bar}
              low={range.low}
              high={range.high}
              perUnit={perUnit}
              onDrag={keepRange}
            />
          ),
        )}
        {ghosts.map((ghost) => {
          const i = places.get(ghost.id)!;
          if (x(i) + pitch < seen.from || x(i) > seen.to) return null;
          const height = heightOf(ghost.build);
          return (
            <rect
              key={ghost.id}
              x={x(i) - 2}
              width={bar + 4}
              y={y(ghost.base + height)}
              height={Math.max(1, height * perUnit)}
              className="pointer-events-none fill-tide/10 stroke-tide"
              strokeWidth="1.5"
              strokeDasharray="4 3"
              data-ghost={`${ghost.base} ${height}`}
            />
          );
        })}
        {overlaps.flatMap((overlap) =>
          shared(overlap, places).map((i) => (
            <rect
              key={`${overlap.layers.join()} ${i}`}
              x={x(i)}
              width={bar}
              y={y(overlap.to)}
              height={(overlap.to - overlap.from) * perUnit}
              fill="url(#shared)"
              className="pointer-events-none"
              data-shared
            />
          )),
        )}
      </svg>
      {overlaps[0] && <OverlapNote overlap={overlaps[0]} more={overlaps.length - 1} layers={shown} />}
    </div>
  );
}

const NO_GROUPS: readonly Group[] = [];

/** Brackets stand under the bars, those of inner groups nearer to them. */
const BRACKET_TOP = HEIGHT - 20;
const BRACKET_STEP = 4;
const MOST_BRACKETS = 3;

interface Bracket {
  readonly id: string;
  readonly name: string;
  /** First and last bar. */
  readonly from: number;
  readonly to: number;
  /** Rows below the topmost. */
  readonly depth: number;
}

function bracketsOf(shown: readonly Layer[], groups: readonly Group[]): Bracket[] {
  const found = new Map<Group, { from: number; to: number; inner: number }>();
  for (const [i, { group }] of shown.entries()) {
    const above = groupsAbove(groups, group);
    for (const [k, each] of above.entries()) {
      const inner = above.length - 1 - k;
      const known = found.get(each);
      found.set(each, { from: known?.from ?? i, to: i, inner: Math.max(known?.inner ?? 0, inner) });
    }
  }
  return [...found].map(([{ id, name }, { from, to, inner }]) => ({
    id,
    name,
    from,
    to,
    depth: Math.min(inner, MOST_BRACKETS - 1),
  }));
}

/** The part of a wide drawing that is scrolled to, and as much on both sides of it. */
function useSeen(box: RefObject<HTMLDivElement | null>): { from: number; to: number } {
  const [seen, setSeen] = useState({ from: 0, to: 3 * WIDTH });
  useEffect(() => {
    const element = box.current!;
    const look = () => {
      const { scrollLeft, clientWidth } = element;
      // In steps, so that scrolling seldom draws anew.
      const left = Math.floor(scrollLeft / WIDTH) * WIDTH;
      setSeen((before) =>
        before.from === left - WIDTH ? before : { from: left - WIDTH, to: left + clientWidth + 2 * WIDTH },
      );
    };
    look();
    element.addEventListener('scroll', look, { passive: true });
    return () => element.removeEventListener('scroll', look);
  }, [box]);
  return seen;
}

/** Layers as a rule that is tried would leave them, where it would change them. */
function useGhosts(shown: readonly Layer[]): Layer[] {
  const draft = useRule((state) => state.draft);
  const subjects = useRule((state) => state.subjects);
  if (!draft || draft.what === 'reach') return [];
  const values = new Map(gaveOf(draft.by, subjects).map(({ layer, value }) => [layer, value]));
  return shown.flatMap((layer) => {
    const value = values.get(layer.id);
    const isGiven = value !== undefined && (draft.what === 'base' || value > 0);
    const ghost = isGiven ? withRuled(layer, draft.what, value) : layer;
    return ghost === layer ? [] : [ghost];
  });
}

function OverlapNote({ overlap, more, layers }: { overlap: Overlap; more: number; layers: readonly Layer[] }) {
  const unit = useDocumentPart((document) => document.unit);
  const tolerance = useDocumentPart((document) => document.tolerance);
  const [a, b] = overlap.layers.map((id) => layers.find((layer) => layer.id === id)?.name ?? '');
  return (
    <p className="mx-5 mb-2 border-ember border-l-2 pl-2 text-ember text-sm">
      {a === b ? `Copies of ${a}` : `${a} and ${b}`} share {formatNumber(overlap.to - overlap.from)} {unit} of height
      where they overlap
      {overlap.flush.length > 0 ? `, and their ${overlap.flush.join('s and ')}s lie in one plane` : ''}
      {more > 0 ? `, and ${more} more ${more === 1 ? 'pair does' : 'pairs do'}` : ''}.{' '}
      <TextButton onClick={() => void partLayers(usualGap(tolerance))}>Part them</TextButton>
    </p>
  );
}

const shared = ({ layers }: Overlap, places: ReadonlyMap<string, number>): number[] =>
  layers.flatMap((id) => places.get(id) ?? []);

interface BarProps {
  layer: Layer;
  /** How far its front stands higher than its depth says. */
  over: number;
  x: number;
  width: number;
  low: number;
  high: number;
  perUnit: number;
  onDrag: (dragging: boolean) => void;
}

// A drag changes one layer; the others' bars need not be drawn again.
const Bar = memo(function Bar({ layer, over, x, width, low, high, perUnit, onDrag }: BarProps) {
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const { id, name, base, build, material } = layer;
  const depth = heightOf(build);
  const top = heightAt(base + depth, low, perUnit);
  const profiles = useDocumentPart((document) => document.profiles);
  const unit = useDocumentPart((document) => document.unit);
  const path = useMemo(
    () => barPath(layer, profiles, x, width, low, perUnit),
    [layer, profiles, x, width, low, perUnit],
  );
  const setDepth = (value: number, gesture: string | null) =>
    dispatch(
      { do: 'change-layers', layers: [id], change: { build: buildKind(build.kind).withHeight(build, value) } },
      gesture,
    );
  const setBase = (value: number, gesture: string | null) =>
    dispatch({ do: 'change-layers', layers: [id], change: { base: value } }, gesture);
  const body = useHeightDrag({
    value: base,
    high,
    perUnit,
    canSink: true,
    onChange: setBase,
    onDrag,
    gesture: `base ${id}`,
  });
  const lid = useHeightDrag({
    value: depth,
    high,
    perUnit,
    canSink: false,
    onChange: setDepth,
    onDrag,
    gesture: `depth ${id}`,
  });
  return (
    <g>
      {over * perUnit > LEAST_OVER && (
        <path
          d={overPath(buildKind(build.kind).elevation(build, profiles).form, x, width, top, over * perUnit)}
          fill={material.colour}
          className={selected ? 'stroke-tide' : 'stroke-ink'}
          strokeWidth={0.75}
          data-over={formatNumber(over)}
        />
      )}
      <path
        d={path}
        fill={material.colour}
        className={selected ? 'stroke-tide' : 'stroke-ink'}
        strokeWidth={selected ? 2.5 : 0.75}
      />
      <path
        d={path}
        fill="transparent"
        role="slider"
        tabIndex={0}
        aria-label={`${name}: base`}
        aria-valuenow={base}
        aria-valuemin={Math.min(base, 0)}
        aria-valuemax={Math.max(base, high)}
        aria-valuetext={`${formatNumber(base)} ${unit} above the sheet`}
        className="cursor-move touch-none"
        onClick={() => screen.select([id])}
        {...body}
      >
        <title>{`${name}: stands at ${formatNumber(base)}, ${formatNumber(depth)} deep`}</title>
      </path>
      <rect
        x={x}
        y={top - LID / 2 - 4}
        width={width}
        height={LID}
        fill="transparent"
        role="slider"
        tabIndex={0}
        aria-label={`${name}: depth`}
        aria-valuenow={depth}
        aria-valuemin={0}
        aria-valuemax={Math.max(depth, high)}
        aria-valuetext={`${formatNumber(depth)} ${unit} deep`}
        className="cursor-ns-resize touch-none"
        {...lid}
      />
      <rect
        x={x + width / 2 - 5}
        y={top - 4.5}
        width={10}
        height={2.5}
        className="pointer-events-none fill-ink"
        rx={1}
      />
      {selected && (
        <text
          x={x + width / 2}
          y={top - 9 - over * perUnit}
          textAnchor="middle"
          className="figure fill-tide"
          fontSize="11"
        >
          {formatNumber(depth)}
        </text>
      )}
    </g>
  );
});

interface HeightDragOptions {
  value: number;
  /** Top of the stack. */
  high: number;
  perUnit: number;
  /** Whether it may be 0 and less. */
  canSink: boolean;
  onChange: (value: number, gesture: string | null) => void;
  onDrag: (dragging: boolean) => void;
  gesture: string;
}

/** Pointer and key handlers that change a height by dragging up and down. */
function useHeightDrag({ value, high, perUnit, canSink, onChange, onDrag, gesture }: HeightDragOptions) {
  const drag = useRef<{ y: number; from: number; gesture: string } | null>(null);
  // The finest round step that a pixel can tell apart.
  const step = 10 ** Math.ceil(Math.log10(0.5 / perUnit));
  const snap = (v: number, to: number) => {
    const snapped = Number((Math.round(v / to) * to).toPrecision(8));
    return canSink ? snapped : Math.max(snapped, to);
  };
  const end = () => {
    drag.current = null;
    onDrag(false);
  };
  return {
    onPointerDown(event: PointerEvent<SVGElement>) {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { y: event.clientY, from: value, gesture: `${gesture} ${performance.now()}` };
      onDrag(true);
    },
    onPointerMove(event: PointerEvent<SVGElement>) {
      const start = drag.current;
      if (!start) return;
      const next = snap(start.from + (start.y - event.clientY) / perUnit, event.shiftKey ? step / 10 : step);
      if (next !== value) onChange(next, start.gesture);
    },
    onPointerUp: end,
    onPointerCancel: end,
    onKeyDown(event: KeyboardEvent) {
      const next = heightFor(event.key, { value, high, step: step * (event.shiftKey ? 10 : 1) });
      if (next === null) return;
      event.preventDefault();
      // The page's own keys go through the layers.
      event.stopPropagation();
      onChange(snap(next, step), null);
    },
  };
}

/** What a key makes of a height, as keys of sliders do everywhere; null for other keys. */
function heightFor(key: string, { value, high, step }: { value: number; high: number; step: number }): number | null {
  switch (key) {
    case 'ArrowUp':
    case 'ArrowRight':
      return value + step;
    case 'ArrowDown':
    case 'ArrowLeft':
      return value - step;
    case 'PageUp':
      return value + 10 * step;
    case 'PageDown':
      return value - 10 * step;
    case 'Home':
      return 0;
    case 'End':
      return high;
    default:
      return null;
  }
}

/** The bar's outline with its edges at the ends, as wide as it is high. */
function barPath(
  { base, build }: Layer,
  profiles: Project['profiles'],
  x: number,
  width: number,
  low: number,
  perUnit: number,
): string {
  const { height, front, back } = buildKind(build.kind).elevation(build, profiles);
  const reachOf = ({ way, reach }: ElevationRim) =>
    Math.min(reach * perUnit, way === 'out' ? width / 4 : width / 2 - 1);
  // A flange is as wide as the bar; the wall below it stands back.
  const wall = Math.max(...[front, back].map((rim) => (rim?.way === 'out' ? reachOf(rim) : 0)));
  const insets = (rim: ElevationRim | null): (readonly [inset: number, short: number])[] => {
    if (!rim) return [[wall, 0]];
    const reach = rim.way === 'out' ? -reachOf(rim) : Math.min(reachOf(rim), width / 2 - 1 - wall);
    return rim.rows.map(([inset, short]) => [wall + inset * reach, short]);
  };
  const [above, below] = [insets(front), insets(back)];
  const at = (side: 1 | -1, z: number, inset: number): [number, number] => [
    side === 1 ? x + inset : x + width - inset,
    heightAt(z, low, perUnit),
  ];
  const top = base + height;
  const points = [
    ...below.toReversed().map(([inset, short]) => at(1, base + short, inset)),
    ...above.map(([inset, short]) => at(1, top - short, inset)),
    ...above.toReversed().map(([inset, short]) => at(-1, top - short, inset)),
    ...below.map(([inset, short]) => at(-1, base + short, inset)),
  ];
  return `M${points.map(([px, py]) => `${px.toFixed(2)} ${py.toFixed(2)}`).join('L')}Z`;
}

/** Pixels below which nothing is seen to stand higher than a bar. */
const LEAST_OVER = 0.5;
/** How far in of a bar begins what stands on its front. */
const OVER_INSET = 0.18;

/** What of a front stands higher than the bar. */
function overPath(form: Elevation['form'], x: number, width: number, top: number, over: number): string {
  const [left, right] = [x + OVER_INSET * width, x + (1 - OVER_INSET) * width];
  if (form === 'slanted') return `M${left} ${top}L${right} ${top - over}V${top}Z`;
  if (form === 'stepped') return `M${left} ${top}V${top - over}H${right}V${top}Z`;
  // The curve comes three quarters as high as the points that pull it.
  const pull = top - (4 / 3) * over;
  return `M${left} ${top}C${left} ${pull} ${right} ${pull} ${right} ${top}Z`;
}

function rangeOf(layers: readonly Layer[], overs: ReadonlyMap<string, number>): Range {
  const low = Math.min(0, ...layers.map((layer) => layer.base));
  const high = Math.max(...layers.map(({ id, base, build }) => base + heightOf(build) + (overs.get(id) ?? 0)));
  return { low, high: Math.max(high, low + 1e-6) };
}

function ticks({ low, high }: Range): number[] {
  const rough = (high - low) / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * power).find((candidate) => candidate >= rough)!;
  const marks: number[] = [];
  for (let k = Math.ceil(low / step - 1e-9); k * step <= high + step * 1e-6; k++)
    marks.push(Number((k * step).toPrecision(10)));
  return marks;
}
