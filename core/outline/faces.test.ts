// Faces between lines, against Euler's formula for planar graphs and closed forms.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import { parsePath } from '../path/parse.ts';
import type { Path } from '../path/types.ts';
import { pointInRing } from './apart.ts';
import { facesBetween, placeInside } from './faces.ts';
import { ringArea } from './measure.ts';

const path = (d: string) => parsePath(d).path;
const areas = (paths: Path[]) =>
  facesBetween(paths)
    .map((face) => flatten(face, 1e-5).reduce((sum, ring) => sum + ringArea(ring), 0))
    .sort((a, b) => a - b);

describe('faces between lines', () => {
  it('are found where loose lines cross', () => {
    // Two lines across two others: one cell; every end hangs free.
    expect(areas(['M0 1H9', 'M0 4H9', 'M2 0V9', 'M6 0V9'].map(path))).toEqual([12]);
  });

  it('of a circle cut by a chord are its two segments', () => {
    const [small, large] = areas([ellipsePath(0, 0, 2, 2), path('M1 -5V5')]);
    // Segment of height r/2: r²·(acos(1/2) − √3/4).
    const segment = 4 * (Math.acos(0.5) - Math.sqrt(3) / 4);
    expect(small).toBeCloseTo(segment, 3);
    expect(large).toBeCloseTo(4 * Math.PI - segment, 3);
  });

  it('nest: a loop inside another is a face, and a hole of the one around it', () => {
    expect(areas([path('M0 0h10v10h-10z'), path('M2 2h3v3h-3z')])).toEqual([9, 91]);
  });

  it('do not have the lines that only link them, or hang into them', () => {
    const rings = [path('M0 0h10v10h-10z'), path('M2 2h3v3h-3z'), path('M0 0L2 2'), path('M10 10L7 8')];
    expect(areas(rings)).toEqual([9, 91]);
  });

  it('are none where nothing is enclosed', () => {
    expect(facesBetween([path('M0 0L9 9L9 0'), path('M0 5H4')])).toEqual([]);
  });

  it('are as many as Euler’s formula says: edges − vertices + pieces', () => {
    // m level and n upright lines that all cross: m·n crossings, (m − 1)(n − 1) cells.
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 7 }), fc.integer({ min: 1, max: 7 }), (m, n) => {
        const level = Array.from({ length: m }, (_, i) => path(`M-1 ${i}H${n}`));
        const upright = Array.from({ length: n }, (_, i) => path(`M${i} -1V${m}`));
        expect(facesBetween([...level, ...upright])).toHaveLength((m - 1) * (n - 1));
      }),
    );
  });

  it('have a place inside, and not in what is cut out of them', () => {
    const ring = path('M0 0h10v10h-10z M1 1v8h8v-8z');
    const [x, y] = placeInside(ring)!;
    const [outer, hole] = flatten(ring, 0.01);
    expect([pointInRing(x, y, outer!), pointInRing(x, y, hole!)]).toEqual([true, false]);
    expect(placeInside(path('M0 0L5 5Z'))).toBeNull();
  });

  it('of one curve that crosses itself are its loops', () => {
    expect(facesBetween([path('M0 0C12 10 -8 10 4 0')])).toHaveLength(1);
  });
});
