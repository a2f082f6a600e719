// Lights.tsx — a low key light from the upper left, so that it grazes the fronts, a sky to fill the rest, and a lamp that is
// carried along, so that nothing is black from below or behind.
import { useFrame } from '@react-three/fiber';
import { memo, useRef } from 'react';
import type { DirectionalLight } from 'three';

/** @param size diagonal of what is lit, in project units */
export const Lights = memo(function Lights({ size }: { size: number }) {
  return (
    <>
      <hemisphereLight args={['#ffffff', '#8d8f94', 1.65]} />
      <directionalLight
        castShadow
        position={[-size * 0.9, size * 1.1, size * 0.9]}
        intensity={2.4}
        shadow-mapSize={[2048, 2048]}
        shadow-camera-left={-size}
        shadow-camera-right={size}
        shadow-camera-top={size}
        shadow-camera-bottom={-size}
        shadow-camera-near={size * 0.1}
        shadow-camera-far={size * 4}
        shadow-normalBias={size * 0.0008}
      />
      <directionalLight position={[size, -size * 0.4, size * 0.5]} intensity={0.35} />
      <directionalLight position={[size * 0.3, size * 0.5, -size]} intensity={0.7} />
      <Lamp />
    </>
  );
});

/** Shines from where the view is looked at. */
function Lamp() {
  const light = useRef<DirectionalLight>(null);
  useFrame(({ camera }) => light.current?.position.copy(camera.position));
  return <directionalLight ref={light} intensity={0.75} />;
}
