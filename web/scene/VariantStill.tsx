// VariantStill.tsx — small pictures of variants, one after another, on a canvas that nobody sees.
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { type Sitting, useVary, vary } from '../store/vary.ts';
import { fittedCamera } from './fitted.ts';
import { type Box, diagonalOf, middleOf } from './frame.ts';
import { Lights } from './Lights.tsx';
import { SceneCanvas } from './SceneCanvas.tsx';
import { Things } from './Things.tsx';

/** Of a variant in which nothing is built. */
const NOTHING: Box = { min: [-1, -1, -1], max: [1, 1, 1] };

const STILL = { width: 480, height: 360 } as const;
const SHADOW_PIXELS = 1024;

export function VariantStills() {
  const sitting = useVary((state) => state.sitting);
  return (
    <SceneCanvas
      settings={{
        frameloop: 'never',
        shadows: 'percentage',
        flat: true,
        dpr: 1,
        gl: { alpha: true, antialias: true, preserveDrawingBuffer: true },
      }}
      onMissed={() => undefined}
      aria-hidden
      className="pointer-events-none fixed top-0 -left-[2000px]"
      style={{ width: STILL.width, height: STILL.height }}
    >
      {sitting && <Sitter key={sitting.key} of={sitting} />}
    </SceneCanvas>
  );
}

/** All of a sheet are seen from one side, so that what differs is theirs. */
function Sitter({ of: { project, view } }: { of: Sitting }) {
  const { box } = view;
  const size = box ? diagonalOf(box) : 100;
  const [x, y, z] = box ? middleOf(box) : [0, 0, 0];
  return (
    <>
      <Lights x={x} y={y} z={z} size={size} shadowPixels={SHADOW_PIXELS} />
      <Things layers={project.layers} view={view} hidden={[]} plaster={false} wire={false} isPlain />
      <Shutter box={box ?? NOTHING} />
    </>
  );
}

function Shutter({ box }: { box: Box }) {
  const { gl, scene } = useThree();
  const key = useVary((state) => state.sitting?.key);
  // biome-ignore lint/correctness/useExhaustiveDependencies: one picture of each
  useEffect(() => {
    if (key === undefined) return;
    gl.shadowMap.needsUpdate = true;
    gl.render(scene, fittedCamera(box, STILL.width / STILL.height));
    gl.domElement.toBlob((blob) => {
      if (blob) vary.taken(key, URL.createObjectURL(blob));
    });
  }, [key]);
  return null;
}
