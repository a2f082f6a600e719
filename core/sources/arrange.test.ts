// What layers of a file become: those of a DXF file keep the names that their makers gave them.
import { describe, expect, it } from 'vitest';
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
