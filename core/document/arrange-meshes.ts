// arrange-meshes.ts — the parts of a mesh file become layers: each as high and as deep as it is, the whole in the middle.
import type { Warning } from '../base/errors.ts';
import { MM_PER_UNIT } from '../base/units.ts';
import type { MeshFormat } from '../formats/meshes.ts';
import type { Part } from '../formats/part.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { type Arrangement, type ArrangeOptions, NO_EDGE, roundFigure } from './arrange.ts';
import { uniqueName } from './names.ts';
import { type Layer, LIMITS, MESH_DEFAULTS } from './schema.ts';

/** Files without a unit keep their size unless it is this many times more, or less, than what drawings land at. */
const STRANGE = 200;

/** Points in one place are one: files repeat them wherever light changes. */
const WELDED = { weld: 0, straight: -1, flat: -1 };

/** @param parts as `readMeshes` gives them */
export function arrangeMeshes(
  parts: readonly Part[],
  sourceId: string,
  format: MeshFormat,
  { unit, fallbackSize = 100, newId, takenNames }: ArrangeOptions,
): Arrangement {
  const box = boxOfPoints(parts.map(({ mesh }) => mesh.positions));
  const longest = Math.max(...[0, 1, 2].map((k) => box.max[k]! - box.min[k]!)) || 1;
  const warnings: Warning[] = [];
  // glTF is in metres; the others say nothing.
  let scale = format === 'glb' ? 1000 / MM_PER_UNIT[unit] : 1;
  const share = (longest * scale) / fallbackSize;
  if (share > STRANGE || share < 1 / STRANGE) {
    scale = fallbackSize / longest;
    const message = `At its own size it would be ${Number((share * fallbackSize).toPrecision(3))} ${unit} long; it was brought to ${fallbackSize} ${unit}.`;
    warnings.push({ code: 'size', message });
  }
  const size = longest * scale;
  const names = new Set(takenNames ?? []);
  const layers = parts.slice(0, LIMITS.layers).map(({ name, mesh, material }, i): Layer => {
    const own = boxOfPoints([mesh.positions]);
    return {
      id: newId('layer'),
      name: uniqueName(name.slice(0, 80).trim() || 'Part', names),
      source: sourceId,
      members: [String(i)],
      skipped: [],
      shown: true,
      ground: false,
      base: (own.min[2]! - box.min[2]!) * scale,
      depth: Math.max(1e-6, (own.max[2]! - own.min[2]!) * scale),
      edge: NO_EDGE,
      backEdge: null,
      ...MESH_DEFAULTS,
      tidy: WELDED,
      cell: roundFigure(size / 40),
      material,
    };
  });
  const origin: [number, number] = [(box.min[0]! + box.max[0]!) / 2, -(box.min[1]! + box.max[1]!) / 2];
  return { placement: { scale, origin }, layers, warnings, size };
}
