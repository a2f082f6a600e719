// Strokes made outlines on an open set of stroke icons (lucide-static, ISC licence): closed regions, the area of the stroke,
// curves kept.
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../formats/svg/read.ts';
import { coverOf } from '../outline/cover.ts';
import { regionsArea } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { flatten } from '../path/flatten.ts';
import { applyEdit } from './apply.ts';

const FOLDER = new URL('../../bench/sets/node_modules/lucide-static/icons/', import.meta.url);
/** Every file takes minutes; this many are enough to see a fault, and the rest is for `npm run bench`. */
const EVERY = 24;

describe('stroke icons', () => {
  const files = readdirSync(FOLDER).filter((name, i) => name.endsWith('.svg') && i % EVERY === 0);

  it('become outlines that cover what the strokes covered', () => {
    expect(files.length).toBeGreaterThan(80);
    for (const name of files) {
      const drawing = readSvg(readFileSync(new URL(name, FOLDER), 'utf8'));
      const shapes = drawing.shapes.map(({ id }) => id);
      const edit = { id: 'outline', on: true, action: { do: 'outline' as const, shapes } };
      const { drawing: outlined } = applyEdit({ drawing, outcomes: [] }, edit);
      for (const [i, shape] of outlined.shapes.entries()) {
        expect(shape.stroke, name).toBeUndefined();
        const stroke = regionsArea(coverOf(drawing.shapes[i]!, 1e-3));
        // Rings that do not cross: the fill rule makes no difference.
        for (const rule of ['nonzero', 'evenodd'] as const) {
          const covered = regionsArea(regionsOf(flatten(shape.path, 1e-3), rule));
          expect(Math.abs(covered / stroke - 1), `${name} ${shape.id}`).toBeLessThan(2e-3);
        }
        expect(shape.path.length, name).toBeLessThan(300);
      }
    }
  });
});
