// faults.ts — going to the place of what was found in a mesh.
import type { Fault, Layer, Point3 } from '../../../core/index.ts';
import { useBuild } from '../../store/build.ts';
import { screen } from '../../store/screen.ts';

/** The places of a fault in a layer, or of the worst that was found in it, on the layer's base. */
export function faultPlaces({ id, base }: Layer, fault?: Fault): readonly Point3[] {
  const { view, proofs } = useBuild.getState();
  const seen = view?.layers.find((layer) => layer.id === id);
  const findings = seen ? (proofs[seen.meshKey]?.findings ?? []) : [];
  const found = findings.find((finding) => (fault ? finding.fault === fault : finding.fault !== 'sliver'));
  return (found?.places ?? []).map(([x, y, z]): Point3 => [x, y, z + base]);
}

/** Shows the place of a fault, or of the worst there is, and the mesh it is in. @param turn which of the places; they go round */
export function showFault(layer: Layer, fault?: Fault, turn = 0): void {
  const places = faultPlaces(layer, fault);
  screen.select([layer.id]);
  if (places.length > 0) screen.pointAt(places[turn % places.length]!, layer.id);
}
