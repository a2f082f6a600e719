// Lights.tsx — a low key light from the upper left, so that it grazes the fronts, and a sky to fill the rest.

/** @param size diagonal of what is lit, in project units */
export function Lights({ size }: { size: number }) {
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
    </>
  );
}
