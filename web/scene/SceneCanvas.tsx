// SceneCanvas.tsx — a canvas whose children are things of a scene. The library's own component brings every kind of thing that
// its 3D library has to whoever opens the page; this one brings those that are named here.
import { createRoot, events, extend, type RenderProps } from '@react-three/fiber';
import { type ComponentPropsWithoutRef, type ReactNode, useEffect, useInsertionEffect, useRef, useState } from 'react';
import {
  DirectionalLight,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  PlaneGeometry,
  TorusGeometry,
} from 'three';

extend({
  DirectionalLight,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  PlaneGeometry,
  TorusGeometry,
});

type Root = ReturnType<typeof createRoot<HTMLCanvasElement>>;

interface SceneCanvasProps extends Omit<ComponentPropsWithoutRef<'div'>, 'children'> {
  /** How it is drawn; read anew at each change of size. */
  settings: Omit<RenderProps<HTMLCanvasElement>, 'size' | 'events' | 'onCreated' | 'onPointerMissed'>;
  /** A press that met nothing. */
  onMissed: (event: MouseEvent) => void;
  children: ReactNode;
}

/** Pointers are met by the area that has the canvas's place, also while less of it is drawn on. */
export function SceneCanvas({ settings, onMissed, children, ...area }: SceneCanvasProps) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const root = useRef<Root | null>(null);
  const [size, setSize] = useState<DOMRectReadOnly | null>(null);
  const [error, setError] = useState<unknown>(null);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize(entry!.contentRect));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  // Only what is taken away for good lets go of the graphics card.
  useInsertionEffect(
    () => () => {
      root.current?.unmount();
      root.current = null;
    },
    [],
  );
  useEffect(() => {
    if (!size || size.width === 0 || size.height === 0) return;
    root.current ??= createRoot(canvas.current!);
    const { width, height } = size;
    root.current
      .configure({
        ...settings,
        events,
        size: { width, height, top: 0, left: 0 },
        onPointerMissed: onMissed,
        onCreated: (state) => state.events.connect?.(box.current!),
      })
      // It may have been taken away meanwhile.
      .then(() => root.current?.render(children), setError);
  });
  if (error) throw error;
  return (
    <div ref={box} {...area}>
      <canvas ref={canvas} className="block" />
    </div>
  );
}
