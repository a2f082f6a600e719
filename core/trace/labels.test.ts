// Labels of pixels and colours of thin lines, against what was painted.
import { describe, expect, it } from 'vitest';
import { hexOf } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { rectangle, regularPolygon } from '../testing/shapes.ts';
import { labelled, settledLabels } from './labels.ts';
import { flatColours } from './modes.ts';
import { planesOf, rgbOfShade } from './planes.ts';
import { withThinColours } from './thin-colours.ts';

/** Colours and labels of a picture as a trace without wishes has them. */
function labelsOf(picture: Picture) {
  const planes = planesOf(picture, false);
  const { modes, cores } = flatColours(planes, 64);
  const flat = modes.map(({ shade }) => shade);
  const settled = settledLabels(planes, cores, flat);
  const palette = withThinColours(planes, settled, flat);
  return {
    colours: palette.shades.map((shade) => hexOf(rgbOfShade(shade))),
    labels: labelled(planes, cores, settled, palette),
  };
}

/** Pixels that one picture labels with another colour than the other does. */
function strays(picture: Picture, truth: Picture): number {
  const [found, wanted] = [labelsOf(picture), labelsOf(truth)];
  expect(found.colours.length).toBe(wanted.colours.length);
  const twin = new Map<number, number>();
  for (let i = 0; i < wanted.labels.length; i += 1) {
    if (!twin.has(wanted.labels[i]!))
      twin.set(wanted.labels[i]!, mostOf(found.labels, wanted.labels, wanted.labels[i]!));
  }
  return found.labels.filter((label, i) => label !== twin.get(wanted.labels[i]!)).length;
}

function mostOf(found: Uint8Array, wanted: Uint8Array, label: number): number {
  const counts = new Uint32Array(256);
  for (const [i, own] of wanted.entries()) if (own === label) counts[found[i]!]!++;
  return counts.indexOf(Math.max(...counts));
}

const SCENE = painting(160, 120, '#f4efe2', [
  [[rectangle(20, 20, 120, 40)], '#2f6f60'],
  [[rectangle(20, 60, 120, 40)], '#20344a'],
  [[regularPolygon(60, 25, 0, 80, 60)], '#c9593f'],
]);
/** Pixels that have an edge through them or beside them, about. */
const ALONG_EDGES = 2 * (2 * 120 + 2 * 80 + 120 + 2 * Math.PI * 25);

describe('labels', () => {
  it('stay through noise, and stray only along edges', () => {
    expect(strays(noisy(SCENE, 6), SCENE)).toBeLessThan(0.02 * ALONG_EDGES);
    expect(strays(noisy(SCENE, 14), SCENE)).toBeLessThan(0.08 * ALONG_EDGES);
  });

  it('of a soft edge are those of its two sides, though a third colour is their mixture', () => {
    const greys = painting(160, 100, '#ffffff', [
      [[rectangle(20, 20, 60, 60)], '#000000'],
      [[rectangle(110, 20, 30, 60)], '#808080'],
    ]);
    const { labels, colours } = labelsOf(softened(greys, 2));
    expect(colours.toSorted()).toEqual(['#000000', '#808080', '#ffffff']);
    const grey = colours.indexOf('#808080') + 1;
    for (let y = 0; y < 100; y++) expect(labels.subarray(y * 160, y * 160 + 95)).not.toContain(grey);
  });

  it.each([2, 3])('of a line %s pixels wide are its own, in noise too', (wide) => {
    const line = painting(120, 80, '#f4efe2', [
      [[rectangle(0, 40, 120, 40)], '#74b8b0'],
      [[rectangle(0, 39, 120, wide)], '#803010'],
    ]);
    for (const picture of [line, noisy(line, 6)]) {
      const { colours, labels } = labelsOf(picture);
      expect(colours).toHaveLength(3);
      const own = labels[40 * 120 + 60]!;
      const pixels = labels.filter((label) => label === own).length;
      expect(Math.abs(pixels - 120 * wide)).toBeLessThan(0.02 * 120 * wide);
    }
  });
});

describe('thin colours', () => {
  it('are found where nothing is flat, and are no new ones where they are known', () => {
    const lines = (colour: string, known: string) =>
      painting(120, 80, '#ffffff', [
        [[rectangle(10, 10.3, 100, 1.6)], colour],
        [[rectangle(10, 30, 30, 30)], known],
      ]);
    const apart = labelsOf(lines('#c03020', '#205080')).colours;
    expect(apart).toHaveLength(3);
    expect(labelsOf(lines('#205080', '#205080')).colours.toSorted()).toEqual(['#205080', '#ffffff']);
  });
});
