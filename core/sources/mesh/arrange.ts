// arrange.ts — the parts of a mesh file become layers: each as high and as deep as it is, the whole in the middle.
import type { Warning } from '../../base/errors.ts';
import { MM_PER_UNIT } from '../../base/units.ts';
import { factsOf, type MeshFormatId } from '../../formats/facts.ts';
import type { MeshFacts } from '../../formats/format.ts';
import type { Part } from '../../formats/part.ts';
import { boxOfPoints } from '../../mesh/place.ts';
import type { Arrangement, ArriveOptions, Proposal } from '../kind.ts';

/** Files without a unit keep their size unless it is this many times more, or less, than what drawings land at. */
const STRANGE = 200;

/** @param parts as `readMeshes` gives them */
export function arrangeMeshes(
  parts: readonly Part[],
  format: MeshFormatId,
  { unit, fallbackSize = 100 }: ArriveOptions,
): Arrangement {
  const box = boxOfPoints(parts.map(({ mesh }) => mesh.positions));
  const longest = Math.max(...[0, 1, 2].map((k) => box.max[k]! - box.min[k]!)) || 1;
  const warnings: Warning[] = [];
  // Files without metres say nothing of their unit.
  let scale = (factsOf(format) as MeshFacts).isMetric ? 1000 / MM_PER_UNIT[unit] : 1;
  const share = (longest * scale) / fallbackSize;
  if (share > STRANGE || share < 1 / STRANGE) {
    scale = fallbackSize / longest;
    const message = `At its own size it would be ${Number((share * fallbackSize).toPrecision(3))} ${unit} long; it was brought to ${fallbackSize} ${unit}.`;
    warnings.push({ code: 'size', message });
  }
  const proposals = parts.map(({ name, mesh, material }, i): Proposal => {
    const own = boxOfPoints([mesh.positions]);
    return {
      name: name.slice(0, 80).trim() || 'Part',
      members: [String(i)],
      shown: true,
      ground: false,
      base: (own.min[2]! - box.min[2]!) * scale,
      depth: Math.max(1e-6, (own.max[2]! - own.min[2]!) * scale),
      reach: 0,
      material,
    };
  });
  const origin: [number, number] = [(box.min[0]! + box.max[0]!) / 2, -(box.min[1]! + box.max[1]!) / 2];
  return { placement: { scale, origin }, proposals, warnings, size: longest * scale };
}
