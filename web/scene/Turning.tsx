// Turning.tsx — the view turned, moved and come nearer to: by pointer, by touch, and by the arrow keys while it has the focus.
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { OrthographicCamera, Spherical, Vector3 } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';

/** A press of an arrow key turns by this. */
const STEP_RAD = Math.PI / 24;
/** A press of + or − changes the distance by this factor. */
const NEARER = 0.85;
/** Short of looking straight down, where up would be anywhere. */
const POLE_RAD = 0.01;

/** Degrees to the right and down, and nearer, by key. */
const KEYS: Readonly<Record<string, readonly [right: number, down: number, nearer: number]>> = {
  ArrowLeft: [-1, 0, 0],
  ArrowRight: [1, 0, 0],
  ArrowUp: [0, -1, 0],
  ArrowDown: [0, 1, 0],
  '+': [0, 0, 1],
  '=': [0, 0, 1],
  '-': [0, 0, -1],
};

export function Turning() {
  const camera = useThree((three) => three.camera);
  const area: HTMLElement = useThree(({ events, gl }) => events.connected ?? gl.domElement);
  const get = useThree((three) => three.get);
  const set = useThree((three) => three.set);
  useEffect(() => {
    const controls = new OrbitControls(camera, area);
    // Asked for when it is needed: it is another object each time the view gets coarser or finer, in the middle of a drag.
    const changed = () => {
      get().invalidate();
      get().performance.regress();
    };
    const pressed = (event: KeyboardEvent) => {
      const way = KEYS[event.key];
      if (!way || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      event.stopPropagation();
      const [right, down, nearer] = way;
      const from = new Spherical().setFromVector3(new Vector3().subVectors(camera.position, controls.target));
      from.theta += right * STEP_RAD;
      from.phi = Math.min(Math.PI - POLE_RAD, Math.max(POLE_RAD, from.phi + down * STEP_RAD));
      // A parallel camera comes no nearer by moving.
      if (camera instanceof OrthographicCamera) {
        camera.zoom /= NEARER ** nearer;
        camera.updateProjectionMatrix();
      } else from.radius *= NEARER ** nearer;
      camera.position.copy(controls.target).add(new Vector3().setFromSpherical(from));
      controls.update();
      changed();
    };
    controls.addEventListener('change', changed);
    area.addEventListener('keydown', pressed);
    set({ controls });
    return () => {
      area.removeEventListener('keydown', pressed);
      controls.dispose();
      set({ controls: null });
    };
  }, [camera, area, get, set]);
  return null;
}
