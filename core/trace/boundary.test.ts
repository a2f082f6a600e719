// Contours of shapes rendered with exact coverage, against the shapes.
import { describe, expect, it } from 'vitest';
import { ringArea } from '../outline/measure.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { rectangle, regularPolygon, reversed } from '../testing/shapes.ts';
import { inkContours as contours } from './ink.ts';
import { distanceFor } from './place.ts';

describe('exact coverage', () => {
  it('sums to the area', () => {
    for (const ring of [
      rectangle(1.3, 2.7, 10.25, 5.5),
      regularPolygon(5, 7.3, 0.4, 12.1, 11.7),
      regularPolygon(64, 9, 0, 12, 12),
    ]) {
      const { values } = renderCoverage([ring], 24, 24);
      const ink = values.reduce((sum, v) => sum + 1 - v, 0);
      expect(ink).toBeCloseTo(Math.abs(ringArea(ring)), 3);
    }
  });
});

describe('the distance of an edge by coverage', () => {
  it('inverts the area of a square cut by a line', () => {
    for (const angle of [0, 0.1, 0.4, Math.PI / 4]) {
      const [a, b] = [Math.cos(angle), Math.sin(angle)];
      for (const d of [-0.6, -0.3, 0, 0.2, 0.45, 0.65]) {
        // Counting a fine grid of the unit square.
        let inside = 0;
        for (let i = 0; i < 400; i++)
          for (let j = 0; j < 400; j++) {
            if (((i + 0.5) / 400 - 0.5) * a + ((j + 0.5) / 400 - 0.5) * b + d > 0) inside++;
          }
        const share = inside / 160_000;
        if (share > 0 && share < 1) expect(distanceFor(share, a, b)).toBeCloseTo(d, 2);
      }
    }
  });
});

describe('contours', () => {
  it.each([
    [0, 0],
    [0.25, 0.5],
    [0.61, 0.87],
  ])('places the edge of a circle shifted by %f, %f within 0.03 px', (dx, dy) => {
    const circle = regularPolygon(720, 20, 0, 32 + dx, 32 + dy);
    const [only, ...others] = contours(renderCoverage([circle], 64, 64), 0.5).contours;
    expect(others).toEqual([]);
    let [worst, mean] = [0, 0];
    for (let i = 0; i < only!.length; i += 2) {
      const stray = Math.hypot(only![i]! - 32 - dx, only![i + 1]! - 32 - dy) - 20;
      worst = Math.max(worst, Math.abs(stray));
      mean += stray / (only!.length / 2);
    }
    expect(Math.abs(mean)).toBeLessThan(0.005);
    expect(worst).toBeLessThan(0.03);
  });

  it('finds holes, running the other way', () => {
    const rings = [regularPolygon(360, 20, 0, 32, 32), reversed(regularPolygon(360, 10, 0, 32, 32))];
    const found = contours(renderCoverage(rings, 64, 64), 0.5).contours.map(ringArea);
    expect(found).toHaveLength(2);
    // Ink on the right with y down: outer boundaries have positive area as the shoelace counts it with y up.
    expect(Math.sign(found[0]!)).toBe(-Math.sign(found[1]!));
    expect(Math.abs(found[0]! + found[1]!)).toBeCloseTo(Math.PI * 300, -0.5);
  });

  it('closes at the border of the picture', () => {
    const { length } = contours({ width: 3, height: 3, values: new Float32Array(9) }, 0.5).contours;
    expect(length).toBe(1);
  });

  it('follows every pattern of nine pixels without losing its way', () => {
    for (let code = 0; code < 512; code++) {
      const values = Float32Array.from({ length: 9 }, (_, i) => ((code >> i) & 1 ? 0 : 1));
      const found = contours({ width: 3, height: 3, values }, 0.5).contours;
      if (code === 0) expect(found).toEqual([]);
      else expect(found.length).toBeGreaterThan(0);
      for (const ring of found) expect(ring.length).toBeGreaterThanOrEqual(4);
    }
  });
});
