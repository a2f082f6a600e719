// Behind.tsx — what the solids were made from, faded and where it was, behind them: pictures as they were prepared, drawings as
// they were drawn.
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { CanvasTexture, DoubleSide, SRGBColorSpace, type Texture } from 'three';
import type { BuildView, FlatShape, PictureSource, Source } from '../../core/index.ts';
import { strokeAttributes } from '../controls/stroke.ts';
import { usePictureView } from '../store/picture-views.ts';
import { useDocument } from '../store/project.ts';
import { useBitmapTexture } from './bitmap-texture.ts';
import type { Box } from './frame.ts';

const OPACITY = 0.5;
/** How far behind everything it stands, in its longest sides: nearer, distances would not be told apart. */
const BEHIND = 0.002;
/** Pixels of the longest side of a drawing. */
const FINE = 2048;
/** A drawing need not lie in the middle of its sheet. */
const ROOM = 1.5;

export function Behind({ view, box }: { view: BuildView | null; box: Box | null }) {
  const { sources, layers } = useDocument();
  const size = box ? Math.max(...box.max.map((v, k) => v - box.min[k]!)) : 1;
  const z = Math.min(0, box?.min[2] ?? 0) - BEHIND * size;
  return sources.map((source: Source) => {
    if (source.kind === 'picture') return <PictureBehind key={source.id} source={source} z={z} />;
    const shown = new Set(layers.filter((layer) => layer.source === source.id && layer.shown).map(({ id }) => id));
    const drawn = view?.layers.filter(({ id }) => shown.has(id)) ?? [];
    const extent = view?.sources.find(({ id }) => id === source.id)?.extent;
    if (drawn.length === 0 || !extent) return null;
    const skipped = layers.flatMap((layer) => (shown.has(layer.id) ? layer.skipped : []));
    const [width, height] = extent.map((v) => v * source.scale) as [number, number];
    return <DrawingBehind key={source.id} layers={drawn} skipped={skipped} width={width} height={height} z={z} />;
  });
}

function PictureBehind({ source, z }: { source: PictureSource; z: number }) {
  const view = usePictureView(source, source.prepare.length);
  const texture = useBitmapTexture(view?.bitmap ?? null);
  if (!view || !texture) return null;
  const { scale, origin } = source;
  const [width, height] = [view.width * view.frame.scale * scale, view.height * view.frame.scale * scale];
  const left = (view.frame.x - origin[0]) * scale;
  const top = (origin[1] - view.frame.y) * scale;
  return <Sheet texture={texture} x={left + width / 2} y={top - height / 2} z={z} width={width} height={height} />;
}

interface DrawingProps {
  layers: BuildView['layers'];
  /** Ids of shapes that are not built. */
  skipped: readonly string[];
  /** Of all of them on the sheet. */
  width: number;
  height: number;
  z: number;
}

/** Shapes as they are on the sheet, wherever they were placed. */
function DrawingBehind({ layers, skipped, width: across, height: up, z }: DrawingProps) {
  const [width, height] = [ROOM * across, ROOM * up];
  const key = layers.map(({ shapesKey }) => shapesKey).join(' ');
  // Large pictures are not drawn anew for a change of depth; the key says what shapes there are, and which are skipped.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  const texture = useMemo(() => {
    const left = new Set(skipped);
    const shapes = layers.flatMap((layer) => layer.shapes ?? []).filter(({ id }) => !left.has(id));
    return drawn(shapes, width, height);
  }, [key, width, height]);
  useEffect(() => () => texture.dispose(), [texture]);
  return <Sheet texture={texture} x={0} y={0} z={z} width={width} height={height} />;
}

/** Shapes filled and stroked, y up, the middle of the sheet in the middle. */
function drawn(shapes: readonly FlatShape[], width: number, height: number): CanvasTexture {
  const canvas = document.createElement('canvas');
  const fine = FINE / Math.max(width, height);
  [canvas.width, canvas.height] = [Math.ceil(width * fine), Math.ceil(height * fine)];
  const pen = canvas.getContext('2d')!;
  pen.setTransform(fine, 0, 0, -fine, canvas.width / 2, canvas.height / 2);
  for (const { d, colour, fillRule, stroke } of shapes) {
    const path = new Path2D(d);
    if (stroke) {
      const { strokeLinecap: lineCap, strokeLinejoin: lineJoin, strokeWidth: lineWidth } = strokeAttributes(stroke);
      Object.assign(pen, { strokeStyle: colour, lineWidth, lineCap, lineJoin });
      pen.stroke(path);
    } else {
      pen.fillStyle = colour;
      pen.fill(path, fillRule);
    }
  }
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  return texture;
}

interface SheetProps {
  texture: Texture;
  x: number;
  y: number;
  z: number;
  width: number;
  height: number;
}

function Sheet({ texture, x, y, z, width, height }: SheetProps) {
  const invalidate = useThree((state) => state.invalidate);
  useEffect(invalidate);
  return (
    <mesh position={[x, y, z]} scale={[width, height, 1]} raycast={() => null} renderOrder={-1}>
      <planeGeometry />
      <meshBasicMaterial
        map={texture}
        transparent
        opacity={OPACITY}
        depthWrite={false}
        side={DoubleSide}
        toneMapped={false}
      />
    </mesh>
  );
}
