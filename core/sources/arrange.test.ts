// What layers of a file become: those of a DXF file keep the names that their makers gave them.
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { readVector } from '../formats/vector.ts';
import { projectOf } from '../testing/projects.ts';

/** Circles on named layers, in colours by their number (DXF Reference, group codes 8 and 62), side by side. */
const dxf = (...circles: readonly (readonly [layer: string, colour: number])[]) =>
  [
    ['0', 'SECTION', '2', 'ENTITIES'],
    ...circles.map(([layer, colour], i) => [
      '0',
      'CIRCLE',
      '8',
      layer,
      '62',
      `${colour}`,
      '10',
      `${30 * i}`,
      '20',
      '0',
      '40',
      '10',
    ]),
    ['0', 'ENDSEC', '0', 'EOF'],
  ]
    .flat()
    .join('\n');

const namesIn = (text: string) => projectOf(readVector(text)).project.layers.map(({ name }) => name);

describe('layers of a DXF file', () => {
  it('keep their names to the letter, also those that say little', () => {
    expect(namesIn(dxf(['A-WALL-FULL', 1], ['Layer1', 1], ['0', 1], ['door_swings', 1], ['Ränder', 1]))).toEqual([
      'A-WALL-FULL',
      'Layer1',
      '0',
      'door_swings',
      'Ränder',
    ]);
  });

  // Indexed colours 1, 3 and 5 are red, green and blue.
  it('become one a colour where they have several, told apart by them', () => {
    expect(namesIn(dxf(['A-GLAZ', 1], ['A-GLAZ', 5], ['A-GLAZ', 1], ['CUT', 3], ['A-GLAZ', 3]))).toEqual([
      'A-GLAZ',
      'A-GLAZ, blue',
      'CUT',
      expect.stringMatching(/^A-GLAZ, (green|lime)$/),
    ]);
  });
});

/** Squares one within the other, each of its own colour, 100 units wide. */
const nested = (count: number) =>
  readVector(
    `<svg viewBox="0 0 100 100">${Array.from({ length: count }, (_, i) => {
      const inset = (45 * i) / count;
      const hex = (0x20_20_40 + 0x01_01_01 * i).toString(16);
      return `<rect x="${inset}" y="${inset}" width="${100 - 2 * inset}" height="${100 - 2 * inset}" fill="#${hex}"/>`;
    }).join('')}</svg>`,
  );

describe('a stack of many colours', () => {
  const topOf = ({ layers }: ReturnType<typeof projectOf>['project']) =>
    Math.max(...layers.map(({ base, build }) => base + heightOf(build)));

  it.each([9, 40, 130])(
    'of %i layers is no taller than a third of its width, and each rests on the one below',
    (count) => {
      const { project } = projectOf(nested(count));
      expect(project.layers).toHaveLength(count);
      expect(topOf(project)).toBeLessThanOrEqual(100 / 3);
      // The lowest keeps its depth of 4 in 100, the others have a quarter of it at the most.
      expect(project.layers[0]!.base + heightOf(project.layers[0]!.build)).toBe(4);
      for (const [i, { base, build }] of project.layers.entries()) {
        const below = project.layers[i - 1];
        if (!below) continue;
        expect(base).toBeCloseTo(below.base + heightOf(below.build), 9);
        expect(heightOf(build)).toBeLessThanOrEqual(1);
      }
    },
  );

  it('says what it would have been', () => {
    const found = projectOf(nested(40)).warnings.filter(({ code }) => code === 'tower');
    expect(found.map(({ message }) => message)).toEqual([
      '40 layers that lie one on the other would make a tower: each that lies on others is only 0.75 mm deep, so that the whole is a third as tall as it is wide.',
    ]);
    expect(projectOf(nested(20)).warnings.filter(({ code }) => code === 'tower')).toEqual([]);
  });

  it('has the depth that was asked for, and a quarter of it in each step where none was', () => {
    expect(topOf(projectOf(nested(40), { depth: 2 }).project)).toBeCloseTo(80, 9);
    expect(topOf(projectOf(nested(8)).project)).toBeCloseTo(4 + 7, 9);
  });
});
