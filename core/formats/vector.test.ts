// Vector files whatever their format: those that lie far from the origin are brought to it, and that is said.
import { describe, expect, it } from 'vitest';
import { regionsArea } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { flatten } from '../path/flatten.ts';
import { readVector } from './vector.ts';

const svg = (x: number, y: number, side: number, sheet: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${sheet}"><path d="M${x} ${y}h${side}v${side}h${-side}z"/></svg>`;

describe('a drawing ten million units away', () => {
  it('is brought to the origin with all its digits', () => {
    const drawing = readVector(svg(1e7, 2e7, 2.125, '0 0 100 100'));
    expect(drawing.warnings.map(({ code, message }) => [code, message])).toEqual([
      ['recentred', 'The drawing lies 22360681 units from the origin; it was moved there by -10000001, -20000001.'],
    ]);
    const [shape] = drawing.shapes;
    expect(regionsArea(regionsOf(flatten(shape!.path, 1e-6), 'nonzero'))).toBeCloseTo(2.125 ** 2, 9);
    // Nothing lay on the sheet, so it says nothing.
    expect(drawing.sheet).toEqual({ x: -1, y: -1, width: 2.125, height: 2.125 });
  });

  it('needs no move where its sheet lies as far away', () => {
    const drawing = readVector(svg(1e7, 2e7, 2.125, '10000000 20000000 10 10'));
    expect(drawing.warnings).toEqual([]);
    expect(drawing.shapes[0]!.path[0]).toEqual(['M', 0, 0]);
  });

  it('stays where it is when it is as large as it is far', () => {
    const drawing = readVector(svg(1e7, 2e7, 1e6, '0 0 100 100'));
    expect(drawing.warnings).toEqual([]);
    expect(drawing.shapes[0]!.path[0]).toEqual(['M', 1e7, 2e7]);
    // A small mark in the corner of a large sheet is no survey.
    expect(readVector(svg(900, 900, 4, '0 0 1000 1000')).warnings).toEqual([]);
  });
});
