// OutlineDesk.tsx — the outlines of one source as curves: chosen by click, box and lasso, pulled apart to look between
// them, with what the check found and what an action would change. Wheel zooms, Space and dragging moves.
import { memo, type PointerEvent, type RefObject, useEffect, useLayoutEffect, useRef, useState } from 'react';
import {
  type Layer,
  type Matrix,
  type OutlineShape,
  type OutlineView,
  type Source,
  UNDERLAY,
} from '../../core/index.ts';
import { STEERED } from '../controls/steering.ts';
import { strokeAttributes } from '../controls/stroke.ts';
import { PlaceOnSource } from '../scene/PlaceOnSource.tsx';
import {
  act,
  copyChosen,
  isVisible,
  type OutlineTool,
  outline,
  place,
  toggleShape,
  useOutline,
} from '../store/outline.ts';
import { useDocument } from '../store/project.ts';
import { useWalls } from '../store/walls.ts';
import { type Area, areaBetween, areaOf, inBox, inLasso, isOn, layersByShape, type Place } from './choosing.ts';
import { DragMark } from './DragMark.tsx';
import { DrawMarks } from './DrawMarks.tsx';
import { useEye } from './eye.ts';
import { FaceMarks } from './FaceMarks.tsx';
import { FindingMarks } from './FindingMarks.tsx';
import { GridLines } from './GridLines.tsx';
import { GuideMarks } from './GuideMarks.tsx';
import { MeasureMarks } from './MeasureMarks.tsx';
import { PlaceMarks } from './PlaceMarks.tsx';
import { PointMarks } from './PointMarks.tsx';
import { type Guides, guidesOf, movedBy, movedInLine, type Placing, printed } from './placing.ts';
import { SNAP, SNAPPING, useSnap } from './snapping.ts';
import { Overlay, Underlay } from './Underlay.tsx';
import { WallMarks } from './WallMarks.tsx';

interface Drag {
  readonly kind: 'move' | 'choose' | 'place';
  readonly from: Place;
  readonly client: Place;
  readonly isAdded: boolean;
  /** The map of the chosen shapes, while they are placed. */
  readonly map?: Placing;
}

/** Arrow keys move what is chosen. */
const areShapesMoved = () => {
  const { chosen, points, tool } = useOutline.getState();
  if (tool === 'walls') return useWalls.getState().wall !== null;
  return tool === 'points' ? points.length > 0 : chosen.length > 0 && tool === 'choose';
};

/** A press that moves less than this many pixels is a click. */
const CLICK = 4;

export function OutlineDesk({ source }: { source: Source }) {
  const { layers } = useDocument();
  const view = useOutline((state) => state.view);
  const { chosen, hidden, isolated, chooseBy, apart, preview, tool } = useOutline();
  const shapes = view?.shapes ?? NO_SHAPES;
  const { box, eye, viewBox, frame, placeAt, lookAt } = useEye(wholeOf(source, view), source.id, areShapesMoved);
  const drag = useRef<Drag | null>(null);
  const wasDragged = useRef(false);
  const [line, setLine] = useState<readonly Place[]>([]);
  /** Where the chosen shapes are on their way to. */
  const [placed, setPlaced] = useState<Matrix | null>(null);
  /** What they come to on that way. */
  const [guides, setGuides] = useState<Guides | null>(null);
  const isSpaceDown = useSpace();
  const own = layers.filter((layer) => layer.source === source.id);
  const layerOf = layersByShape(layers, source.id);
  const seen = shapes.filter(({ id }) => isVisible(id, { hidden, isolated }));
  const isGone = new Set(preview?.gone);
  const isChosen = new Set(chosen);
  const pixel = eye?.scale ?? 1;
  const snap = useSnap(source, pixel, SNAPPING.includes(tool));
  const hand = { snap, pixel, frame, placeAt };
  const edited = tool === 'points' ? shapes.find(({ id }) => id === chosen[0]) : undefined;
  const shift = shifts(own, shapes, apart);

  /** Takes hold of the chosen shapes. */
  const hold = (event: PointerEvent, map: Placing) => {
    if (event.button !== 0 || isSpaceDown) return;
    event.stopPropagation();
    const client = { x: event.clientX, y: event.clientY };
    const others = seen.filter(({ id }) => !isChosen.has(id) && isOn(id, layerOf)).map((shape) => shape.box);
    const sheet = view ? [sheetArea(view)] : [];
    setGuides(guidesOf([...sheet, ...others], SNAP * pixel));
    drag.current = { kind: 'place', from: placeAt(event), client, isAdded: false, map };
  };
  const holdShape = (event: PointerEvent) => {
    if (tool !== 'choose' || event.shiftKey || event.altKey) return;
    const from = placeAt(event);
    const area = areaOf(seen.filter(({ id }) => isChosen.has(id)));
    hold(event, (to, { shiftKey, altKey }, guides) => {
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      // With Shift along one axis.
      const isUpright = shiftKey && Math.abs(dx) < Math.abs(dy);
      const [x, y] = [isUpright ? 0 : dx, shiftKey && !isUpright ? 0 : dy];
      return altKey || !area ? movedBy(x, y) : movedInLine(area, x, y, guides);
    });
  };

  // The same function for all shapes and all times, so that they are not drawn anew.
  const newestHold = useRef(holdShape);
  useLayoutEffect(() => {
    newestHold.current = holdShape;
  });
  const [onHold] = useState(() => (event: PointerEvent) => newestHold.current(event));

  const finish = (event: { clientX: number; clientY: number; ctrlKey: boolean; metaKey: boolean }) => {
    const from = drag.current;
    drag.current = null;
    setLine([]);
    if (from?.kind === 'place') {
      if (!placed) return;
      wasDragged.current = true;
      setTimeout(() => {
        wasDragged.current = false;
      });
      // With Ctrl it stays, and a copy goes.
      const done = event.ctrlKey || event.metaKey ? copyChosen(placed) : place(placed);
      void done.then(() => setPlaced(null));
      return;
    }
    if (from?.kind !== 'choose') return;
    const isClick = Math.hypot(event.clientX - from.client.x, event.clientY - from.client.y) < CLICK;
    // A click on a shape is the shape's; the one that ends a drag is not meant for what lies under it.
    if (isClick) return;
    wasDragged.current = true;
    setTimeout(() => {
      wasDragged.current = false;
    });
    if (tool === 'split') {
      const end = placeAt(event);
      const cut = `M${from.from.x} ${from.from.y}L${end.x} ${end.y}`;
      void act({ do: 'split', shapes: [...chosen], line: cut });
      return;
    }
    // What is off is chosen by a click alone, or the paper would come along every time.
    const on = seen.filter(({ id }) => isOn(id, layerOf));
    const found = chooseBy === 'box' ? inBox(on, areaBetween(from.from, placeAt(event))) : inLasso(on, line);
    if (from.isAdded) outline.add(found);
    else outline.choose(found);
  };

  return (
    <div
      ref={box}
      {...STEERED}
      data-outline-desk={view && eye ? 'ready' : 'waiting'}
      className={`absolute inset-0 touch-none overflow-hidden ${isSpaceDown ? 'cursor-grab active:cursor-grabbing' : tool === 'split' ? 'cursor-crosshair' : ''}`}
      onPointerDown={(event) => {
        const isMove = isSpaceDown || event.button === 1;
        if (!isMove && event.button !== 0) return;
        const client = { x: event.clientX, y: event.clientY };
        drag.current = { kind: isMove ? 'move' : 'choose', from: placeAt(event), client, isAdded: event.shiftKey };
        if (isMove) event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const from = drag.current;
        if (!from || event.buttons === 0) return;
        const at = placeAt(event);
        if (from.kind === 'move' && eye) {
          lookAt({ ...eye, x: eye.x - event.movementX * eye.scale, y: eye.y - event.movementY * eye.scale });
          return;
        }
        if (Math.hypot(event.clientX - from.client.x, event.clientY - from.client.y) < CLICK && !placed) return;
        // From here on it is no click, and ends wherever it is let go.
        event.currentTarget.setPointerCapture(event.pointerId);
        if (from.map && guides) {
          setPlaced(from.map(at, event, guides));
          return;
        }
        setLine(
          chooseBy === 'box' || tool === 'split' ? [from.from, at] : [...(line.length > 0 ? line : [from.from]), at],
        );
      }}
      onPointerUp={finish}
      onPointerCancel={() => {
        drag.current = null;
        setLine([]);
        setPlaced(null);
      }}
    >
      {eye && source.kind === 'picture' && (
        <>
          <Underlay source={source} frame={frame} pixel={pixel} />
          {BARE.includes(tool) && <Overlay source={source} frame={frame} pixel={pixel} />}
        </>
      )}
      {eye && (
        <svg className="absolute inset-0 size-full" viewBox={viewBox} role="img" aria-label="Outlines, to be worked on">
          {/* biome-ignore lint/a11y/noStaticElementInteractions: Escape and the list beside the view do the same */}
          <rect
            {...frame}
            fill="transparent"
            onClick={(event) => !event.shiftKey && !wasDragged.current && tool === 'choose' && outline.choose([])}
          />
          {source.kind === 'drawing' && (
            <rect
              width={source.width}
              height={source.height}
              className="pointer-events-none fill-sheet/70 stroke-ink/30"
              strokeWidth={pixel}
            />
          )}
          <GridLines source={source} frame={frame} pixel={pixel} />
          {seen.map((shape) => {
            const layer = layerOf.get(shape.id);
            const offset = (layer && shift.get(layer.id)) ?? 0;
            return (
              <ShapeMark
                key={shape.id}
                shape={shape}
                layer={layer ?? null}
                isOff={!isOn(shape.id, layerOf)}
                isChosen={isChosen.has(shape.id)}
                placed={placed && isChosen.has(shape.id) ? placed : null}
                onHold={isChosen.has(shape.id) ? onHold : null}
                isGone={isGone.has(shape.id)}
                isBare={BARE.includes(tool)}
                offset={offset}
                pixel={pixel}
                wasDragged={wasDragged}
              />
            );
          })}
          {preview?.made.map((shape) => (
            <path
              key={shape.id}
              d={shape.d}
              fillRule={shape.fillRule}
              className="pointer-events-none fill-tide/25 stroke-tide"
              {...(shape.stroke
                ? { ...strokeAttributes(shape.stroke), fill: 'none', strokeOpacity: 0.6 }
                : { strokeWidth: 2 * pixel })}
            />
          ))}
          <FindingMarks pixel={pixel} />
          <PlaceOnSource source={source} pixel={pixel} />
          <FaceMarks pixel={pixel} />
          {/* Space moves the view, whatever tool is in hand. */}
          <g pointerEvents={isSpaceDown ? 'none' : undefined}>
            {edited && <PointMarks key={edited.id} shape={edited} {...hand} />}
            {BARE.includes(tool) && <WallMarks source={source} {...hand} />}
            {tool === 'draw' && <DrawMarks source={source} {...hand} />}
            {tool === 'measure' && <MeasureMarks {...hand} />}
          </g>
          {tool === 'choose' && chosen.length > 0 && (
            <PlaceMarks
              shapes={seen.filter(({ id }) => isChosen.has(id))}
              placed={placed}
              pixel={pixel}
              onHold={hold}
            />
          )}
          {placed && guides && (
            <GuideMarks
              shapes={seen.filter(({ id }) => isChosen.has(id))}
              placed={placed}
              guides={guides}
              frame={frame}
              pixel={pixel}
            />
          )}
          {line.length > 1 && <DragMark line={line} shape={tool === 'split' ? 'line' : chooseBy} pixel={pixel} />}
        </svg>
      )}
      {eye && source.kind === 'picture' && !BARE.includes(tool) && (
        <Overlay source={source} frame={frame} pixel={pixel} />
      )}
    </div>
  );
}

/** Tools for which fills and strokes are out of the way. */
const BARE: readonly OutlineTool[] = ['draw', 'walls'];

const NO_SHAPES: readonly OutlineShape[] = [];

interface ShapeMarkProps {
  shape: OutlineShape;
  layer: Layer | null;
  isOff: boolean;
  isChosen: boolean;
  /** Where it is on its way to. */
  placed: Matrix | null;
  /** Takes hold of it and all that are chosen. */
  onHold: ((event: PointerEvent) => void) | null;
  isGone: boolean;
  isBare: boolean;
  offset: number;
  pixel: number;
  wasDragged: RefObject<boolean>;
}

const ShapeMark = memo(function ShapeMark(props: ShapeMarkProps) {
  const { shape, layer, isOff, isChosen, placed, onHold, isGone, isBare, offset, pixel, wasDragged } = props;
  const colour = layer?.material.colour ?? shape.colour;
  const click = (event: { altKey: boolean; shiftKey: boolean }) => {
    if (wasDragged.current) return;
    if (event.altKey && layer) toggleShape(layer, shape.id);
    else if (event.shiftKey) outline.toggle(shape.id);
    else outline.choose([shape.id]);
  };
  const mark = isGone ? 'stroke-ember' : isChosen ? 'stroke-tide' : 'stroke-ink/45';
  return (
    <g
      transform={offset === 0 && !placed ? undefined : `translate(0 ${offset}) ${placed ? printed(placed) : ''}`}
      opacity={isGone ? 0.35 : isOff ? 0.4 : 1}
      data-shape={shape.id}
    >
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the list beside the view does the same by keys */}
      <path
        d={shape.d}
        fillRule={shape.fillRule}
        onClick={click}
        {...(onHold ? { onPointerDown: onHold } : {})}
        // What is off must not be in the way of what is not.
        pointerEvents={isOff ? 'stroke' : undefined}
        {...(shape.stroke && !isBare
          ? { fill: 'none', stroke: colour, ...strokeAttributes(shape.stroke) }
          : {
              fill: isBare ? 'none' : isOff ? 'transparent' : colour,
              className: `${mark}${onHold ? ' cursor-move' : ''}`,
              strokeWidth: (isChosen ? 2.5 : 0.75) * pixel,
              strokeDasharray: isOff ? `${4 * pixel} ${3 * pixel}` : undefined,
            })}
      />
      {shape.stroke && (isChosen || isGone) && (
        <path d={shape.d} fill="none" className={`pointer-events-none ${mark}`} strokeWidth={2 * pixel} />
      )}
    </g>
  );
});

/** What is framed: the shapes, and the sheet of a drawing that may have none yet. */
function wholeOf(source: Source, view: OutlineView | null): Area | null {
  if (!view) return null;
  const sheet = sheetArea(view);
  const drawn = areaOf(view.shapes) ?? sheet;
  const isDrawnOn = source.kind === 'drawing' || (source.kind === 'picture' && source.trace.mode === UNDERLAY);
  if (!isDrawnOn) return drawn;
  return {
    minX: Math.min(sheet.minX, drawn.minX),
    minY: Math.min(sheet.minY, drawn.minY),
    maxX: Math.max(sheet.maxX, drawn.maxX),
    maxY: Math.max(sheet.maxY, drawn.maxY),
  };
}

function sheetArea({ sheet: { x, y, width, height } }: OutlineView): Area {
  return { minX: x, minY: y, maxX: x + width, maxY: y + height };
}

/** How far each layer is moved down the view when they are pulled apart: lower layers further. */
function shifts(layers: readonly Layer[], shapes: readonly OutlineShape[], apart: number): Map<string, number> {
  const area = areaOf(shapes);
  if (!area || apart === 0) return new Map();
  const shown = layers.filter((layer) => layer.shown);
  const step = (apart * (area.maxY - area.minY)) / Math.max(1, (shown.length - 1) / 2);
  return new Map(shown.map((layer, i) => [layer.id, ((shown.length - 1) / 2 - i) * step]));
}

/** Whether Space is held down, which turns dragging into moving the view. */
function useSpace(): boolean {
  const [isDown, setDown] = useState(false);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || event.target !== document.body) return;
      event.preventDefault();
      setDown(event.type === 'keydown');
    };
    window.addEventListener('keydown', listen);
    window.addEventListener('keyup', listen);
    return () => {
      window.removeEventListener('keydown', listen);
      window.removeEventListener('keyup', listen);
    };
  }, []);
  return isDown;
}
