// Handles.tsx — handles by which what is chosen is moved, turned and sized in the view. What is near something in line with others,
// or near a round angle, comes to it.
import { useThree } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { Object3D, type Vector3 } from 'three';
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { TransformControls } from 'three/addons/controls/TransformControls.js';
import type { Rigid } from '../../core/index.ts';
import { snapped } from '../controls/in-line.ts';
import { useBuild } from '../store/build.ts';
import { chosenThings, moveBy, pivotOf, resize, type Thing } from '../store/placing.ts';
import { useDocument } from '../store/project.ts';
import { type Handles as Kind, screen, useScreen } from '../store/screen.ts';
import { unitsPerPixelAt } from './frame.ts';
import { roundAngle, snapLines } from './snapping.ts';

const MODES: Record<Kind, 'translate' | 'rotate' | 'scale'> = { move: 'translate', turn: 'rotate', size: 'scale' };
/** Pixels within which something comes to what it is nearly in line with. */
const SNAP_PIXELS = 7;

export function Handles() {
  const kind = useScreen((state) => state.handles);
  return kind && <Shown kind={kind} />;
}

function Shown({ kind }: { kind: Kind }) {
  const camera = useThree((three) => three.camera);
  const area: HTMLElement = useThree(({ events, gl }) => events.connected ?? gl.domElement);
  const orbit = useThree((three) => three.controls) as unknown as OrbitControls | null;
  const get = useThree((three) => three.get);
  const project = useDocument();
  const selected = useScreen((state) => state.selected);
  const group = useScreen((state) => state.group);
  const view = useBuild((state) => state.view);
  const things = useMemo(() => chosenThings(project, selected, group), [project, selected, group]);
  const pivot = view && pivotOf(things, view);
  const [object, controls] = useMemo(() => {
    const made = new TransformControls(camera, area);
    const held = new Object3D();
    made.attach(held);
    made.setSize(HANDLE_SIZE);
    return [held, made] as const;
  }, [camera, area]);
  useEffect(() => {
    controls.setMode(MODES[kind]);
  }, [controls, kind]);
  // Where the things stand now, unless they are being dragged: then the hand says where.
  useEffect(() => {
    if (!pivot || controls.dragging) return;
    object.position.set(...pivot);
    object.quaternion.identity();
    object.scale.setScalar(1);
    object.updateMatrixWorld();
    const { size, invalidate } = get();
    const { x, y } = object.position.clone().project(camera);
    // Where they are seen, in pixels of the view.
    area.dataset.handles = `${((x + 1) / 2) * size.width} ${((1 - y) / 2) * size.height}`;
    invalidate();
  });
  const latest = useRef({ things, kind });
  useLayoutEffect(() => {
    latest.current = { things, kind };
  });
  useEffect(() => {
    let drag: Drag | null = null;
    const begun = () => {
      const { kind: by, things: held } = latest.current;
      drag = { gesture: `${by} ${performance.now()}`, from: object.matrix.clone(), things: held, factor: 1 };
      if (orbit) orbit.enabled = false;
      screen.setHandling(true);
    };
    const ended = () => {
      drag = null;
      if (orbit) orbit.enabled = true;
      // The click that ends a drag is meant for nothing behind it.
      setTimeout(() => screen.setHandling(false));
    };
    const changed = () => get().invalidate();
    const dragged = () => {
      const { camera: eye, size } = get();
      if (drag) follow(drag, object, latest.current.kind, unitsPerPixelAt(eye, object.position, size.height));
    };
    controls.addEventListener('mouseDown', begun);
    controls.addEventListener('mouseUp', ended);
    controls.addEventListener('change', changed);
    controls.addEventListener('objectChange', dragged);
    return () => {
      controls.removeEventListener('mouseDown', begun);
      controls.removeEventListener('mouseUp', ended);
      controls.removeEventListener('change', changed);
      controls.removeEventListener('objectChange', dragged);
    };
  }, [controls, object, orbit, get]);
  useEffect(() => () => controls.dispose(), [controls]);
  if (!pivot) return null;
  return (
    <>
      <primitive object={object} />
      <primitive object={controls.getHelper()} />
    </>
  );
}

const HANDLE_SIZE = 0.8;

interface Drag {
  readonly gesture: string;
  readonly from: Object3D['matrix'];
  /** As they stood when the drag began. */
  readonly things: readonly Thing[];
  /** How many times as large they are by now. */
  factor: number;
}

function follow(drag: Drag, object: Object3D, kind: Kind, pixel: number): void {
  const { things, gesture } = drag;
  if (kind === 'size') {
    const factor = Math.max(LEAST_FACTOR, farthestFromOne(object.scale));
    resize(things, factor / drag.factor, false, gesture);
    drag.factor = factor;
    return;
  }
  if (kind === 'move') {
    const { view } = useBuild.getState();
    const from = drag.from.elements;
    const lines = snapLines(things, view!);
    for (const axis of [0, 1, 2] as const) {
      const by = object.position.getComponent(axis) - from[12 + axis]!;
      if (by !== 0)
        object.position.setComponent(axis, from[12 + axis]! + snapped(by, lines[axis], SNAP_PIXELS * pixel));
    }
  } else roundAngle(object.quaternion);
  object.updateMatrix();
  const [a, b, c, , d, e, f, , g, h, i, , x, y, z] = object.matrix
    .clone()
    .multiply(drag.from.clone().invert()).elements;
  moveBy(things, [a, d, g, x, b, e, h, y, c, f, i, z] as unknown as Rigid, gesture, things);
}

const LEAST_FACTOR = 0.01;

const farthestFromOne = ({ x, y, z }: Vector3): number =>
  [x, y, z].reduce((far, v) => (Math.abs(Math.log(Math.max(v, 1e-6))) > Math.abs(Math.log(far)) ? v : far), 1);
