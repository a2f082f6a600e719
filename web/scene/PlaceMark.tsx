// PlaceMark.tsx — the place that an entry of the proof points at.
import { usePlace } from './place.ts';

export function PlaceMark({ size }: { size: number }) {
  const place = usePlace();
  if (!place) return null;
  return (
    <mesh position={[...place]} renderOrder={10} raycast={() => null}>
      <torusGeometry args={[size * 0.014, size * 0.0022, 10, 48]} />
      <meshBasicMaterial color="#c0452b" depthTest={false} transparent />
    </mesh>
  );
}
