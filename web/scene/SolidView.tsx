// SolidView.tsx — the solid, lit so that edges can be judged. The sheet stands upright: front towards +z, y up.
import { useThree } from '@react-three/fiber';
import { memo, Suspense, useEffect, useState } from 'react';
import { OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import { later } from '../controls/later.ts';
import { useBuild } from '../store/build.ts';
import { useMarking } from '../store/marking.ts';
import { useDocument } from '../store/project.ts';
import { type Direction, screen, useScreen } from '../store/screen.ts';
import { Behind } from './Behind.tsx';
import { Drawing, finenessHere } from './Drawing.tsx';
import { type Box, diagonalOf, middleOf, THREE_QUARTER, unitsPerPixel } from './frame.ts';
import { Lights } from './Lights.tsx';
import { PlaceMark } from './PlaceMark.tsx';
import { Portrait } from './Portrait.tsx';
import { usePlace } from './place.ts';
import { SceneCanvas } from './SceneCanvas.tsx';
import { Spin } from './Spin.tsx';
import { Things } from './Things.tsx';
import { Turning } from './Turning.tsx';

// What is used by hand now and then is not what the first solid waits for.
const Handles = later(
  () => import('./Handles.tsx'),
  (module) => module.Handles,
);
const Marks = later(
  () => import('./Marks.tsx'),
  (module) => module.Marks,
);

const FIELD_OF_VIEW_DEG = 28;

/** @param onFramed told when there is something to see, and the camera looks at it */
export const SolidView = memo(function SolidView({ onFramed }: { onFramed: () => void }) {
  const { antialias, dpr, moving, stillAfterMs, shadowPixels } = finenessHere();
  return (
    <SceneCanvas
      settings={{
        frameloop: 'demand',
        shadows: 'percentage',
        flat: true,
        dpr,
        performance: { min: moving, debounce: stillAfterMs },
        gl: { alpha: true, antialias, preserveDrawingBuffer: false },
        camera: { fov: FIELD_OF_VIEW_DEG, position: [0, 0, 300], near: 0.1, far: 5000 },
      }}
      // A right button beside everything moves the view, which is no reason to let go of a layer.
      onMissed={({ type }) => type === 'click' && screen.select([])}
      className="relative h-full w-full overflow-hidden [&_canvas]:pointer-events-none [&_canvas]:origin-bottom-left"
      role="application"
      tabIndex={0}
      aria-label="Solid"
      aria-description="Arrow keys turn it, plus and minus come nearer and go further."
    >
      <Drawing />
      <Turning />
      <Scene shadowPixels={shadowPixels} onFramed={onFramed} />
    </SceneCanvas>
  );
});

function Scene({ shadowPixels, onFramed }: { shadowPixels: number; onFramed: () => void }) {
  const { layers } = useDocument();
  const view = useBuild((state) => state.view);
  const wire = useScreen((state) => state.wire);
  const plaster = useScreen((state) => state.plaster);
  const hidden = useScreen((state) => state.hidden);
  const behind = useScreen((state) => state.behind);
  const hasHandles = useScreen(({ handles, selected }) => handles !== null && selected.length > 0);
  const isMarking = useMarking((state) => state.layer !== null);
  const box = view?.box ?? null;
  const size = box ? diagonalOf(box) : 100;
  const [x, y, z] = box ? middleOf(box) : [0, 0, 0];
  const shadows = useThree(({ gl }) => gl.shadowMap);
  // A layer that is gone casts none.
  useEffect(() => {
    shadows.needsUpdate = true;
  });
  return (
    <>
      <Lights x={x} y={y} z={z} size={size} shadowPixels={shadowPixels} />
      <Things layers={layers} view={view} hidden={hidden} plaster={plaster} wire={wire} />
      {behind && <Behind view={view} box={box} />}
      <PlaceMark size={size} />
      <Suspense fallback={null}>
        {isMarking && <Marks />}
        {hasHandles && <Handles />}
      </Suspense>
      <Spin size={size} />
      <Portrait box={box} />
      <Framing box={box} onFramed={onFramed} />
    </>
  );
}

const VIEW_FROM: Record<Direction, readonly [number, number, number]> = {
  'three-quarter': THREE_QUARTER,
  front: [0, 0, 1],
  back: [0, 0, -1],
  left: [-1, 0, 0],
  right: [1, 0, 0],
  top: [0, 1, 0.0001],
  bottom: [0, -1, 0.0001],
};

/** Distance of a parallel camera, which sees the same from everywhere, in diagonals of the box: clear of all that is turned. */
const CLEAR = 2;
/** What is seen around a pointed place, in diagonals of the box. */
const AROUND_PLACE = 0.35;

/**
 * Places the camera when a look is asked for, when there is something to see for the first time, and at a pointed place. Straight
 * views are parallel: a sheet seen from its side is one line.
 */
function Framing({ box, onFramed }: { box: Box | null; onFramed: () => void }) {
  const look = useScreen((state) => state.look);
  const place = usePlace();
  const { camera, controls, invalidate, set, size: canvas } = useThree();
  const orbit = controls as unknown as { target: Vector3; update: () => void } | null;
  const hasBox = box !== null;
  const isParallel = look.direction !== 'three-quarter';
  const [cameras] = useState(() => ({ parallel: new OrthographicCamera(), perspective: camera }));
  useEffect(() => set({ camera: isParallel ? cameras.parallel : cameras.perspective }), [isParallel, cameras, set]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change of the box alone must not move the camera
  useEffect(() => {
    // The other camera is on its way, and brings other controls.
    if (!box || !orbit || camera !== (isParallel ? cameras.parallel : cameras.perspective)) return;
    const middle = new Vector3(...middleOf(box));
    const distance =
      camera instanceof PerspectiveCamera ? distanceFor(box, camera, canvas) : CLEAR * (diagonalOf(box) || 1);
    camera.position.copy(middle).addScaledVector(new Vector3(...VIEW_FROM[look.direction]).normalize(), distance);
    camera.near = distance / 100;
    camera.far = distance * 10;
    if (camera instanceof OrthographicCamera) {
      [camera.left, camera.right] = [-canvas.width / 2, canvas.width / 2];
      [camera.top, camera.bottom] = [canvas.height / 2, -canvas.height / 2];
      camera.zoom = 1 / unitsPerPixel(seenFrom(look.direction, box), canvas);
    } else if (camera instanceof PerspectiveCamera) camera.aspect = canvas.width / canvas.height;
    camera.updateProjectionMatrix();
    orbit.target.copy(middle);
    orbit.update();
    invalidate();
    onFramed();
  }, [look.count, hasBox, orbit, camera]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new place moves the camera
  useEffect(() => {
    if (!place || !orbit || !box) return;
    const from = camera.position.clone().sub(orbit.target).normalize();
    orbit.target.set(...place);
    if (camera instanceof OrthographicCamera) {
      camera.position.copy(orbit.target).addScaledVector(from, CLEAR * diagonalOf(box));
      camera.zoom = Math.min(canvas.width, canvas.height) / (AROUND_PLACE * diagonalOf(box));
      camera.updateProjectionMatrix();
    } else camera.position.copy(orbit.target).addScaledVector(from, diagonalOf(box) * 0.7);
    orbit.update();
    invalidate();
  }, [place]);
  return null;
}

/** The box as it is seen in a straight view: across and up. */
function seenFrom(direction: Direction, { min, max }: Box): Box {
  const across = direction === 'left' || direction === 'right' ? 2 : 0;
  const up = direction === 'top' || direction === 'bottom' ? 2 : 1;
  return { min: [min[across], min[up], 0], max: [max[across], max[up], 0] };
}

/** From the middle of the box to a camera in which all of it is seen, whichever way it is turned. */
function distanceFor(box: Box, { fov }: PerspectiveCamera, canvas: { width: number; height: number }): number {
  const half = (fov * Math.PI) / 360;
  return diagonalOf(box) / 2 / Math.sin(half) / Math.min(1, canvas.width / canvas.height);
}
