// FlatView.tsx — the outlines on the sheet, as curves, y up. Wheel zooms about the pointer, dragging moves the sheet.
import { memo, type PointerEvent, useEffect, useRef, useState } from 'react';
import { type FlatShape, type Layer, type Rigid, STAY } from '../../core/index.ts';
import { PlaceRing } from '../controls/PlaceRing.tsx';
import { type Eye, STEERED, useSteering } from '../controls/steering.ts';
import { strokeAttributes } from '../controls/stroke.ts';
import { formatNumber } from '../format.ts';
import { useBuild } from '../store/build.ts';
import { useDocument } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';
import { type Box, middleOf, unitsPerPixel } from './frame.ts';
import { usePlace } from './place.ts';

export function FlatView() {
  const { layers, unit } = useDocument();
  const view = useBuild((state) => state.view ?? state.sheet);
  const placed = useBuild((state) => state.view?.placed);
  const isBuilt = useBuild((state) => state.view !== null);
  const look = useScreen((state) => state.look);
  const place = usePlace();
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1, height: 1 });
  /** On the sheet, y up. */
  const [frame, setFrame] = useState<Eye | null>(null);
  const drag = useRef<{ x: number; y: number; frame: Eye } | null>(null);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize(entry!.contentRect));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const hasBox = Boolean(view?.box);
  // Framed anew when it is asked for, when there is something for the first time and when that is built, not at every change.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    if (view?.box && size.width > 1) setFrame(framed(view.box, size));
  }, [look.count, hasBox, isBuilt, size]);

  const { x, y, scale } = frame ?? { x: 0, y: 0, scale: 1 };
  useSteering(box, setFrame, -1);
  const letGo = () => {
    drag.current = null;
  };
  const viewBox = [
    x - (size.width / 2) * scale,
    -y - (size.height / 2) * scale,
    size.width * scale,
    size.height * scale,
  ].join(' ');

  return (
    <div
      ref={box}
      {...STEERED}
      className="absolute inset-0 cursor-grab touch-none active:cursor-grabbing"
      onPointerDown={(event: PointerEvent) => {
        drag.current = { x: event.clientX, y: event.clientY, frame: { x, y, scale } };
      }}
      onPointerMove={(event) => {
        if (!drag.current || event.buttons === 0) return;
        const { frame: from } = drag.current;
        const dx = (event.clientX - drag.current.x) * scale;
        const dy = (event.clientY - drag.current.y) * scale;
        setFrame({ ...from, x: from.x - dx, y: from.y + dy });
      }}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      {frame && (
        <svg className="size-full" viewBox={viewBox} role="img" aria-label="Outlines on the sheet">
          <g transform="scale(1 -1)">
            {layers.map((layer) => (
              <FlatLayer
                key={layer.id}
                layer={layer}
                shapes={view?.layers.find((entry) => entry.id === layer.id)?.shapes ?? NO_SHAPES}
                place={placed?.[layer.id]?.places[0] ?? STAY}
                pixel={scale}
              />
            ))}
            {place && <PlaceRing x={place[0]} y={place[1]} pixel={scale} />}
          </g>
        </svg>
      )}
      <ScaleBar scale={scale} unit={unit} />
    </div>
  );
}

const NO_SHAPES: readonly FlatShape[] = [];

/** What stands the line of a chosen layer off its own colour, in pixels. */
const HALO = 5.5;

interface FlatLayerProps {
  layer: Layer;
  shapes: readonly FlatShape[];
  place: Rigid;
  pixel: number;
}

const FlatLayer = memo(function FlatLayer({ layer, shapes, place, pixel }: FlatLayerProps) {
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const skipped = new Set(layer.skipped);
  const isHidden = useScreen((state) => state.hidden.includes(layer.id));
  if (!layer.shown || isHidden) return null;
  return (
    <g transform={seenFromFront(place)}>
      {selected &&
        shapes.map((shape) =>
          skipped.has(shape.id) || shape.stroke ? null : (
            <path key={shape.id} d={shape.d} fill="none" className="stroke-sheet" strokeWidth={HALO * pixel} />
          ),
        )}
      {shapes.map((shape) =>
        skipped.has(shape.id) ? null : (
          <path
            key={shape.id}
            d={shape.d}
            fillRule={shape.fillRule}
            fill={shape.stroke ? 'none' : layer.material.colour}
            className={shape.stroke ? '' : selected ? 'stroke-tide' : 'stroke-ink/40'}
            {...(shape.stroke
              ? { stroke: layer.material.colour, ...strokeAttributes(shape.stroke) }
              : { strokeWidth: (selected ? 2.5 : 0.75) * pixel })}
            onClick={(event) => screen.click(layer.id, event)}
          />
        ),
      )}
    </g>
  );
});

/** A move as it is seen from the front. */
const seenFromFront = ([a, b, , x, c, d, , y]: Rigid) => `matrix(${[a, c, b, d, x, y].join(' ')})`;

function framed(box: Box, size: { width: number; height: number }): Eye {
  const [x, y] = middleOf(box);
  return { x, y, scale: unitsPerPixel(box, size) };
}

function ScaleBar({ scale, unit }: { scale: number; unit: string }) {
  const power = 10 ** Math.floor(Math.log10(scale * 160));
  const length = [5, 2, 1].map((m) => m * power).find((candidate) => candidate <= scale * 160) ?? power;
  return (
    <div className="pointer-events-none absolute bottom-3 left-4 text-ink">
      <div className="h-1.5 border border-ink border-t-0" style={{ width: length / scale }} />
      <span className="figure">
        {formatNumber(length)} {unit}
      </span>
    </div>
  );
}
