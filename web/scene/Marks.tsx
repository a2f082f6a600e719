// Marks.tsx — edges and faces that are picked, and edges that are marked, on the layer that they are of.
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { LineMaterial } from 'three/addons/lines/LineMaterial.js';
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js';
import { type PickedFace, STAY } from '../../core/index.ts';
import { useBuild } from '../store/build.ts';
import { useMarking } from '../store/marking.ts';
import { useDocument } from '../store/project.ts';
import { matrixOf } from './Slab.tsx';

const PICKED = { color: '#0f8f86', linewidth: 4 };
const HARD = { color: '#10151d', linewidth: 2.5 };
const SOFT = { color: '#f6f1e4', linewidth: 2.5 };

export function Marks() {
  const { layers } = useDocument();
  const { layer: id, edges, faces, marked } = useMarking();
  const place = useBuild((state) => (id ? state.view?.placed[id]?.places[0] : undefined)) ?? STAY;
  const base = layers.find((layer) => layer.id === id)?.base ?? 0;
  const matrix = useMemo(() => matrixOf(place, base), [place, base]);
  const picked = useMemo(
    () => joined([...edges.map(({ lines }) => lines), ...faces.map(({ ring }) => sidesOf(ring))]),
    [edges, faces],
  );
  if (!id) return null;
  return (
    <group matrixAutoUpdate={false} matrix={matrix}>
      {marked && <Lines lines={marked.hard} look={HARD} />}
      {marked && <Lines lines={marked.soft} look={SOFT} />}
      <Lines lines={picked} look={PICKED} />
    </group>
  );
}

function Lines({ lines, look }: { lines: Float32Array; look: { color: string; linewidth: number } }) {
  const invalidate = useThree((state) => state.invalidate);
  const object = useMemo(() => {
    const geometry = new LineSegmentsGeometry();
    if (lines.length > 0) geometry.setPositions(lines);
    const made = new LineSegments2(geometry, new LineMaterial({ ...look, dithering: true }));
    made.raycast = () => {};
    return made;
  }, [lines, look]);
  useEffect(() => {
    invalidate();
    return () => {
      object.geometry.dispose();
      object.material.dispose();
    };
  }, [object, invalidate]);
  return lines.length > 0 ? <primitive object={object} /> : null;
}

/** The sides of a face, as the two ends of each. */
function sidesOf(ring: PickedFace['ring']): Float32Array {
  const corners = ring.length / 3;
  return Float32Array.from({ length: 6 * corners }, (_, i) => {
    const corner = (Math.floor(i / 6) + (i % 6 < 3 ? 0 : 1)) % corners;
    return ring[3 * corner + (i % 3)]!;
  });
}

function joined(lists: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(lists.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const list of lists) {
    all.set(list, at);
    at += list.length;
  }
  return all;
}
