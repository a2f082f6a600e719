// Slab.tsx — one layer's mesh at its base. Geometry comes finished from the worker; nothing is computed here.
import { memo, useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, Sphere, Vector3 } from 'three';
import type { Layer } from '../../core/index.ts';
import { screen, useScreen } from '../store/screen.ts';
import type { DrawnMesh } from '../worker/geometry.worker.ts';

export interface SlabProps {
  layer: Layer;
  mesh: DrawnMesh;
  wire: boolean;
}

export const Slab = memo(function Slab({ layer, mesh, wire }: SlabProps) {
  const geometry = useMemo(() => surfaceOf(mesh), [mesh]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const lines = useMemo(() => (wire ? wireOf(mesh) : null), [mesh, wire]);
  useEffect(() => () => lines?.dispose(), [lines]);
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const { colour, roughness, metalness, opacity } = layer.material;
  return (
    <group position={[0, 0, layer.base]}>
      <mesh
        geometry={geometry}
        castShadow
        receiveShadow
        onClick={(event) => {
          event.stopPropagation();
          if (event.delta > 3) return;
          if (event.shiftKey) screen.toggleSelected(layer.id);
          else screen.select([layer.id]);
        }}
      >
        <meshStandardMaterial
          color={colour}
          roughness={roughness}
          metalness={metalness}
          transparent={opacity < 1}
          opacity={opacity}
          emissive={selected ? '#1d5f5a' : '#000000'}
          emissiveIntensity={selected ? 0.14 : 0}
          polygonOffset
          polygonOffsetFactor={1}
          polygonOffsetUnits={1}
        />
      </mesh>
      {lines && (
        <lineSegments geometry={lines} raycast={() => null}>
          <lineBasicMaterial color="#10151d" transparent opacity={0.55} />
        </lineSegments>
      )}
    </group>
  );
});

function surfaceOf({ positions, normals, indices, ball }: DrawnMesh): BufferGeometry {
  const geometry = new BufferGeometry().setIndex(new BufferAttribute(indices, 1));
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(normals, 3));
  geometry.boundingSphere = sphereOf(ball);
  return geometry;
}

function wireOf({ wire, ball }: DrawnMesh): BufferGeometry {
  const geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(wire, 3));
  geometry.boundingSphere = sphereOf(ball);
  return geometry;
}

const sphereOf = ([x, y, z, radius]: DrawnMesh['ball']) => new Sphere(new Vector3(x, y, z), radius);
