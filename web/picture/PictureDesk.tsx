// PictureDesk.tsx — a picture with its trace over it: looked at before and after, compared, measured and cut.
import { memo, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { FlatShape, Layer, PictureSource } from '../../core/index.ts';
import { SplitHandle } from '../controls/SplitHandle.tsx';
import { type Eye, STEERED, useSteering } from '../controls/steering.ts';
import { strokeAttributes } from '../controls/stroke.ts';
import { PlaceOnSource } from '../scene/PlaceOnSource.tsx';
import { useBuild } from '../store/build.ts';
import { toggleShape } from '../store/outline.ts';
import { changePicture, useWished } from '../store/picture.ts';
import { useDifference, usePictureView } from '../store/picture-views.ts';
import { dispatch, useDocument } from '../store/project.ts';
import { useScreen } from '../store/screen.ts';
import { type Place, sourceView, useSourceView } from '../store/source-view.ts';
import type { PictureView } from '../worker/geometry/pictures.ts';
import { AreaFrame } from './AreaFrame.tsx';
import { Bitmap } from './Bitmap.tsx';
import { DifferenceFigure } from './DifferenceFigure.tsx';
import { LengthLine } from './LengthLine.tsx';
import { LookLine } from './LookLine.tsx';
import { Loupe } from './Loupe.tsx';

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const MARGIN = 1.08;
/** Screen pixels at the top that the tools cover. */
const TOOLS = 52;

export function PictureDesk({ source: known }: { source: PictureSource }) {
  const source = useWished(known);
  const document = useDocument();
  const look = useScreen((state) => state.look);
  const view = useBuild((state) => state.view);
  const { strength, fill, before, difference, loupe, tool } = useSourceView();
  const step = tool?.kind === 'area' ? source.prepare.findIndex(({ id }) => id === tool.step) : -1;
  const upTo = step >= 0 ? step : source.prepare.length;
  const after = usePictureView(source, upTo);
  const original = usePictureView(source, 0);
  const differs = useDifference(document, known, difference);
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1, height: 1 });
  const [eye, setEye] = useState<Eye | null>(null);
  const [pointer, setPointer] = useState<Place | null>(null);
  const drag = useRef<{ x: number; y: number; eye: Eye; moved: boolean } | null>(null);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize(entry!.contentRect));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const whole = after ? boxOf(after) : null;
  const hasPicture = whole !== null;
  // Framed anew when asked for and for another picture, not at every change.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    if (whole && size.width > 1) setEye(framed(whole, size));
  }, [look.count, hasPicture, size, known.id, known.asset]);

  const { x, y, scale } = eye ?? { x: 0, y: 0, scale: 1 };
  const placeAt = (event: { clientX: number; clientY: number }): Place => {
    const area = box.current!.getBoundingClientRect();
    return {
      x: x + (event.clientX - area.left - area.width / 2) * scale,
      y: y + (event.clientY - area.top - area.height / 2) * scale,
    };
  };
  useSteering(box, setEye, 1);
  const styleOf = (part: Box, opacity = 1) => ({
    left: (part.x - x) / scale + size.width / 2,
    top: (part.y - y) / scale + size.height / 2,
    width: part.width / scale,
    height: part.height / scale,
    opacity,
    imageRendering: scale < 0.34 ? ('pixelated' as const) : ('auto' as const),
  });
  const viewBox = `${x - (size.width / 2) * scale} ${y - (size.height / 2) * scale} ${size.width * scale} ${size.height * scale}`;
  const isCutting = step >= 0;
  const toSource = `matrix(${1 / known.scale} 0 0 ${-1 / known.scale} ${known.origin[0]} ${known.origin[1]})`;
  const cover = isCutting || fill === 'hidden' ? 1 : strength;

  return (
    <div
      ref={box}
      {...STEERED}
      data-picture-desk={after ? 'ready' : 'waiting'}
      className={`absolute inset-0 touch-none overflow-hidden ${tool ? 'cursor-crosshair' : 'cursor-grab active:cursor-grabbing'}`}
      onPointerDown={(event: PointerEvent) => {
        if (tool?.kind === 'length') {
          event.currentTarget.setPointerCapture(event.pointerId);
          sourceView.set({ tool: { kind: 'length', from: placeAt(event), to: placeAt(event) } });
        } else if (tool?.kind === 'colour') {
          if (original) pickColour(source, original.fine ?? original.bitmap, placeAt(event));
        } else drag.current = { x: event.clientX, y: event.clientY, eye: { x, y, scale }, moved: false };
      }}
      onPointerMove={(event) => {
        if (loupe) setPointer(placeAt(event));
        if (tool?.kind === 'length' && tool.from && event.buttons !== 0) {
          sourceView.set({ tool: { ...tool, to: placeAt(event) } });
        }
        const from = drag.current;
        if (!from || event.buttons === 0) return;
        const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
        from.moved ||= Math.hypot(dx, dy) > 3;
        if (from.moved) setEye({ ...from.eye, x: from.eye.x - dx * scale, y: from.eye.y - dy * scale });
      }}
      onPointerUp={() => {
        // The click that follows a drag is not meant for what lies under it.
        setTimeout(() => {
          drag.current = null;
        });
      }}
      onPointerCancel={() => {
        drag.current = null;
      }}
      onPointerLeave={() => setPointer(null)}
    >
      {eye && (
        <>
          <div className="absolute inset-0" style={{ clipPath: `inset(0 0 0 ${before * 100}%)` }}>
            {after && (
              <Bitmap bitmap={after.bitmap} style={styleOf(boxOf(after), cover)} label="The prepared picture" />
            )}
            <svg
              className="absolute inset-0 size-full"
              viewBox={viewBox}
              role="img"
              aria-label="The trace over the picture"
            >
              {!isCutting && fill !== 'hidden' && (
                <g transform={toSource} id="traced">
                  {document.layers.map((layer) =>
                    layer.source === known.id ? (
                      <TracedLayer
                        key={layer.id}
                        layer={layer}
                        shapes={view?.layers.find((entry) => entry.id === layer.id)?.shapes ?? NO_SHAPES}
                        isFilled={fill === 'filled'}
                        opacity={difference ? 0.3 : 1}
                        wasDragged={() => drag.current?.moved ?? false}
                      />
                    ) : null,
                  )}
                </g>
              )}
              <PlaceOnSource source={known} pixel={scale} />
            </svg>
            {differs && !isCutting && (
              <Bitmap
                bitmap={differs.bitmap}
                style={styleOf(boxOf(differs))}
                label="Where picture and outlines disagree"
              />
            )}
          </div>
          {before > 0 && original && (
            <div className="absolute inset-0" style={{ clipPath: `inset(0 ${(1 - before) * 100}% 0 0)` }}>
              <Bitmap bitmap={original.bitmap} style={styleOf(boxOf(original))} label="The picture as it came" />
            </div>
          )}
          {before > 0 && (
            <SplitHandle
              label="Divide between before and after"
              share={before}
              onChange={(share) => sourceView.set({ before: Math.min(0.97, Math.max(0.03, share)) })}
            />
          )}
          {isCutting && after && (
            <AreaFrame
              source={source}
              step={source.prepare[step]!}
              whole={boxOf(after)}
              viewBox={viewBox}
              pixel={scale}
              placeAt={placeAt}
            />
          )}
          {tool?.kind === 'length' && tool.from && tool.to && (
            <svg
              className="pointer-events-none absolute inset-0 size-full"
              viewBox={viewBox}
              role="img"
              aria-label="The line over a known length"
            >
              <LengthLine from={tool.from} to={tool.to} pixel={scale} />
            </svg>
          )}
          {difference ? <DifferenceFigure source={known} /> : <LookLine source={known} />}
          {loupe && pointer && after && <Loupe at={pointer} view={after} />}
        </>
      )}
    </div>
  );
}

const NO_SHAPES: readonly FlatShape[] = [];

interface TracedLayerProps {
  layer: Layer;
  shapes: readonly FlatShape[];
  isFilled: boolean;
  opacity: number;
  /** Whether the pointer has just moved the picture. */
  wasDragged: () => boolean;
}

/** A click keeps or discards a piece, with Shift all of its colour. */
const TracedLayer = memo(function TracedLayer({ layer, shapes, isFilled, opacity, wasDragged }: TracedLayerProps) {
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const skipped = new Set(layer.skipped);
  return (
    <g>
      {shapes.map(({ id, d, fillRule, stroke }) => {
        const isKept = layer.shown && !skipped.has(id);
        const colour = layer.material.colour;
        const fill = isKept && isFilled ? colour : 'transparent';
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the list beside the view does the same by keys
          <path
            key={id}
            d={d}
            fillRule={fillRule}
            fill={stroke ? 'none' : fill}
            fillOpacity={opacity}
            className={
              stroke && isKept && isFilled ? '' : selected ? 'stroke-tide' : isKept ? 'stroke-ink' : 'stroke-ink/50'
            }
            {...(stroke && isFilled
              ? { stroke: isKept ? colour : undefined, ...strokeAttributes(stroke) }
              : {
                  strokeWidth: isFilled ? 0.75 : 1.5,
                  strokeDasharray: isKept ? undefined : '4 4',
                  vectorEffect: 'non-scaling-stroke',
                })}
            onClick={(event) => {
              if (wasDragged()) return;
              if (event.shiftKey || !layer.shown) {
                dispatch({ do: 'change-layers', layers: [layer.id], change: { shown: !layer.shown } });
              } else toggleShape(layer, id);
            }}
          />
        );
      })}
    </g>
  );
});

function boxOf({ width, height, frame }: Pick<PictureView, 'width' | 'height' | 'frame'>): Box {
  return { x: frame.x, y: frame.y, width: width * frame.scale, height: height * frame.scale };
}

function framed({ x, y, width, height }: Box, size: { width: number; height: number }): Eye {
  const scale = MARGIN * Math.max(width / size.width, height / (size.height - TOOLS));
  return { x: x + width / 2, y: y + height / 2 - (TOOLS / 2) * scale, scale };
}

/** Adds the colour under the pointer to those that are traced. */
function pickColour(source: PictureSource, bitmap: ImageBitmap, { x, y }: Place): void {
  if (x < 0 || y < 0 || x >= bitmap.width || y >= bitmap.height) return;
  const canvas = new OffscreenCanvas(1, 1);
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, Math.floor(x), Math.floor(y), 1, 1, 0, 0, 1, 1);
  const [r, g, b] = context.getImageData(0, 0, 1, 1).data;
  const hex = `#${[r!, g!, b!].map((v) => v.toString(16).padStart(2, '0')).join('')}`;
  const { trace } = source;
  if (!trace.picked.includes(hex)) changePicture(source.id, { trace: { ...trace, picked: [...trace.picked, hex] } });
}
