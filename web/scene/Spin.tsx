// Spin.tsx — the axis that what is chosen turns about, and one turn about it: what wobbles does not turn about its middle. Nothing
// of it is kept.
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import { BufferGeometry, Matrix4, Vector3 } from 'three';
import { useBuild } from '../store/build.ts';
import { chosenThings, pivotOf } from '../store/placing.ts';
import { useDocument } from '../store/project.ts';
import { useScreen } from '../store/screen.ts';

const TURN_MS = 4000;

/** @param size diagonal of what is seen */
export function Spin({ size }: { size: number }) {
  const spins = useScreen((state) => state.spins);
  const handles = useScreen((state) => state.handles);
  const selected = useScreen((state) => state.selected);
  const group = useScreen((state) => state.group);
  const project = useDocument();
  const view = useBuild((state) => state.view);
  const get = useThree((three) => three.get);
  const [isTurning, setTurning] = useState(false);
  const things = useMemo(() => chosenThings(project, selected, group), [project, selected, group]);
  const pivot = view && things.length > 0 ? pivotOf(things, view) : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: only being asked for it begins a turn
  useEffect(() => {
    if (spins === 0 || !pivot) return;
    const [x, y, z] = pivot;
    const begin = performance.now();
    const { scene, gl, invalidate } = get();
    const turned = selected.flatMap((id) => scene.getObjectByName(id) ?? []);
    const setAngle = (angle: number) => {
      for (const object of turned) {
        object.matrixAutoUpdate = false;
        object.matrix
          .makeTranslation(x, y, z)
          .multiply(new Matrix4().makeRotationY(angle))
          .multiply(new Matrix4().makeTranslation(-x, -y, -z));
        object.matrixWorldNeedsUpdate = true;
      }
      gl.shadowMap.needsUpdate = true;
      invalidate();
    };
    let frame = 0;
    const step = () => {
      const share = (performance.now() - begin) / TURN_MS;
      setAngle(share < 1 ? 2 * Math.PI * share : 0);
      if (share < 1) frame = requestAnimationFrame(step);
      else setTurning(false);
    };
    setTurning(true);
    step();
    return () => {
      cancelAnimationFrame(frame);
      setAngle(0);
      setTurning(false);
    };
  }, [spins]);
  const line = useMemo(
    () => new BufferGeometry().setFromPoints([new Vector3(0, -size, 0), new Vector3(0, size, 0)]),
    [size],
  );
  useEffect(() => () => line.dispose(), [line]);
  if (!pivot || (!isTurning && handles !== 'turn')) return null;
  return (
    <lineSegments geometry={line} position={[...pivot]} raycast={() => null} renderOrder={9}>
      <lineBasicMaterial color="#1d5f5a" transparent opacity={0.8} depthTest={false} />
    </lineSegments>
  );
}
