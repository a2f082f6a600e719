// Lights.tsx — a low key light from the upper left, so that it grazes the fronts, a sky to fill the rest, and a lamp that is
// carried along, so that nothing is black from below or behind.
import { useFrame } from '@react-three/fiber';
import { memo, useLayoutEffect, useRef, useState } from 'react';
import { type DirectionalLight, Object3D } from 'three';

interface LightsProps {
  /** The middle of what is lit, in project units. */
  x: number;
  y: number;
  z: number;
  /** Its diagonal. */
  size: number;
  /** Pixels along a side of the picture that shadows are looked up in. */
  shadowPixels: number;
}

export const Lights = memo(function Lights({ x, y, z, size, shadowPixels }: LightsProps) {
  const [middle] = useState(() => new Object3D());
  return (
    <>
      <hemisphereLight args={['#ffffff', '#8d8f94', 1.3]} />
      <group position={[x, y, z]}>
        <primitive object={middle} />
        <KeyLight middle={middle} size={size} shadowPixels={shadowPixels} />
        <directionalLight target={middle} position={[size, -size * 0.4, size * 0.5]} intensity={0.35} />
        <directionalLight target={middle} position={[size * 0.3, size * 0.5, -size]} intensity={0.7} />
      </group>
      <Lamp middle={middle} />
    </>
  );
});

interface KeyLightProps {
  middle: Object3D;
  size: number;
  shadowPixels: number;
}

/** Casts the shadows. Its picture of them is just as large as the ball around what is lit, so that none of its pixels is lost. */
function KeyLight({ middle, size, shadowPixels }: KeyLightProps) {
  const light = useRef<DirectionalLight>(null);
  const radius = (size / 2) * 1.01;
  useLayoutEffect(() => {
    const { shadow, position } = light.current!;
    const { camera } = shadow;
    const distance = position.length();
    [camera.left, camera.right, camera.bottom, camera.top] = [-radius, radius, -radius, radius];
    [camera.near, camera.far] = [distance - radius, distance + radius];
    // The library does this for the first picture only, and what is lit may grow.
    camera.updateProjectionMatrix();
    shadow.normalBias = (NORMAL_BIAS_PIXELS * 2 * radius) / shadowPixels;
  }, [radius, shadowPixels]);
  return (
    <directionalLight
      ref={light}
      castShadow
      target={middle}
      position={[-size * 0.9, size * 1.1, size * 0.9]}
      intensity={2.4}
      shadow-mapSize={[shadowPixels, shadowPixels]}
    />
  );
}

/** How far faces are moved into their shadow, so that none falls on themselves. */
const NORMAL_BIAS_PIXELS = 0.8;

/** Shines from where the view is looked at. */
function Lamp({ middle }: { middle: Object3D }) {
  const light = useRef<DirectionalLight>(null);
  useFrame(({ camera }) => light.current?.position.copy(camera.position));
  return <directionalLight ref={light} target={middle} intensity={0.75} />;
}
