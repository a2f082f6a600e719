// Slab.tsx — one layer's mesh where it stands, copies and all. Geometry comes finished from the worker; nothing is computed here.
//
// It is told just what can be seen of the layer: a change of the document is no reason to draw the old mesh once more before
// the new one is there.
import { useThree } from '@react-three/fiber';
import { memo, useEffect, useMemo, useRef } from 'react';
import {
  BackSide,
  BufferAttribute,
  BufferGeometry,
  Color,
  DynamicDrawUsage,
  Matrix4,
  Sphere,
  SRGBColorSpace,
  Vector3,
} from 'three';
import { type DrawnMesh, type Material, materialsOf, type Rigid, type SideMaterials } from '../../core/index.ts';
import { marking, useMarking } from '../store/marking.ts';
import { screen, useScreen } from '../store/screen.ts';
import { Paint } from './Paint.tsx';

export interface SlabProps {
  id: string;
  base: number;
  /** Where each copy stands. */
  places: readonly Rigid[];
  material: Material;
  sideMaterials: SideMaterials | undefined;
  /** Side of a square of the checker, as long as the mesh's places on pictures are measured; null where it is not shown. */
  square: number | null;
  mesh: DrawnMesh;
  wire: boolean;
  /** Inner faces can be seen, and are told from outer ones. */
  isOpen: boolean;
  /** Whether it does not say that it is chosen. */
  isPlain: boolean;
}

export const Slab = memo(function Slab(props: SlabProps) {
  const { id, base, places, material, sideMaterials, square, mesh, wire, isOpen, isPlain } = props;
  const made = useMemo(() => materialsOf(material, sideMaterials), [material, sideMaterials]);
  const isMapped = mesh.uvs.length > 0;
  const isSeveral = mesh.sections.length > 1;
  const geometry = useGeometry(mesh, isMapped ? MAPPED : SURFACE);
  const lines = useGeometry(wire ? mesh : null, WIRE);
  const selected = useScreen((state) => !isPlain && state.selected.includes(id));
  const get = useThree((state) => state.get);
  // Whatever made this run can be seen.
  useEffect(() => get().invalidate());
  // What has another form or stands elsewhere throws other shadows, and more of it may follow. A geometry that was written over is
  // the same object as before.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    const { gl, performance } = get();
    gl.shadowMap.needsUpdate = true;
    performance.regress();
  }, [mesh, base, places, material.opacity]);
  return (
    <group name={id}>
      {places.map((place, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: copies have nothing else that tells them apart
        <group key={i} matrixAutoUpdate={false} matrix={matrixOf(place, base)}>
          <mesh
            geometry={geometry!}
            castShadow
            receiveShadow
            onClick={(event) => {
              event.stopPropagation();
              if (event.delta > 3 || useScreen.getState().isHandling) return;
              if (useMarking.getState().layer !== id) screen.click(id, event.nativeEvent);
              else void marking.pick(id, event.eventObject.worldToLocal(event.point.clone()).toArray(), event.shiftKey);
            }}
          >
            {mesh.sections.map(({ of }, k) => (
              <Paint
                key={`${isMapped} ${isSeveral} ${of}`}
                attach={isSeveral ? `material-${k}` : 'material'}
                material={(made[of] ?? made[0]!).material}
                isMapped={isMapped}
                square={square}
                isChosen={selected}
              />
            ))}
          </mesh>
          {isOpen && (
            <mesh geometry={geometry!} raycast={() => null}>
              <meshStandardMaterial side={BackSide} color={INNER} roughness={1} metalness={0} dithering />
            </mesh>
          )}
          {lines && (
            <lineSegments geometry={lines} raycast={() => null}>
              <lineBasicMaterial color={wireOver(material.colour)} transparent opacity={0.55} />
            </lineSegments>
          )}
        </group>
      ))}
    </group>
  );
});

/** From height 0 to the world. */
export const matrixOf = (place: Rigid, base: number) =>
  new Matrix4().set(...place, 0, 0, 0, 1).multiply(new Matrix4().makeTranslation(0, 0, base));

/** Of faces that look inward. */
const INNER = '#b5654e';

/** Lines that can be told from what they lie on. */
function wireOver(colour: string): string {
  return new Color(colour).getHSL({ h: 0, s: 0, l: 0 }, SRGBColorSpace).l < DARK ? '#aeb9c6' : '#10151d';
}

/** Lightness below which dark lines would not be seen. */
const DARK = 0.3;

interface Layout {
  readonly attributes: readonly (readonly [attribute: string, from: 'positions' | 'normals' | 'uvs' | 'wire'])[];
  readonly indexed: boolean;
}

const SURFACE: Layout = {
  attributes: [
    ['position', 'positions'],
    ['normal', 'normals'],
  ],
  indexed: true,
};
const MAPPED: Layout = { ...SURFACE, attributes: [...SURFACE.attributes, ['uv', 'uvs']] };
const WIRE: Layout = { attributes: [['position', 'wire']], indexed: false };

/** The mesh as a geometry. One of the same size is written over instead of made anew, which is what a drag does all the time. */
function useGeometry(mesh: DrawnMesh | null, layout: Layout): BufferGeometry | null {
  const kept = useRef<BufferGeometry | null>(null);
  const geometry = useMemo(() => {
    if (!mesh) return null;
    kept.current = kept.current && fits(kept.current, mesh, layout) ? kept.current : blank(mesh, layout);
    fill(kept.current, mesh, layout);
    return kept.current;
  }, [mesh, layout]);
  useEffect(() => () => geometry?.dispose(), [geometry]);
  return geometry;
}

function fits(geometry: BufferGeometry, mesh: DrawnMesh, { attributes, indexed }: Layout): boolean {
  return (
    attributes.every(([name, from]) => geometry.getAttribute(name)?.array.length === mesh[from].length) &&
    (!indexed || geometry.index?.array.length === mesh.indices.length)
  );
}

function blank(mesh: DrawnMesh, { attributes, indexed }: Layout): BufferGeometry {
  const geometry = new BufferGeometry();
  for (const [name, from] of attributes) {
    geometry.setAttribute(
      name,
      new BufferAttribute(new Float32Array(mesh[from].length), from === 'uvs' ? 2 : 3).setUsage(DynamicDrawUsage),
    );
  }
  if (indexed) geometry.setIndex(new BufferAttribute(new Uint32Array(mesh.indices.length), 1));
  return geometry;
}

function fill(geometry: BufferGeometry, mesh: DrawnMesh, { attributes, indexed }: Layout): void {
  geometry.clearGroups();
  if (indexed && mesh.sections.length > 1) {
    for (const [k, { start, count }] of mesh.sections.entries()) geometry.addGroup(start, count, k);
  }
  for (const [name, from] of attributes) overwrite(geometry.getAttribute(name) as BufferAttribute, mesh[from]);
  if (indexed) overwrite(geometry.index!, mesh.indices);
  const [x, y, z, radius] = mesh.ball;
  geometry.boundingSphere = new Sphere(new Vector3(x, y, z), radius);
}

function overwrite(attribute: BufferAttribute, values: Float32Array | Uint32Array): void {
  attribute.array.set(values);
  attribute.needsUpdate = true;
}
