// The check list: each kind of trouble made on purpose, found once, and gone after its mend.
import { describe, expect, it } from 'vitest';
import type { Drawing, Shape } from '../drawing.ts';
import { applyEdit } from '../edits/apply.ts';
import { coverOf } from '../outline/cover.ts';
import { regionsArea } from '../outline/measure.ts';
import { drawingOf, filledShape, strokedShape } from '../testing/drawings.ts';
import { checkOutlines } from './check.ts';
import type { Finding, FindingKind } from './finding.ts';

const found = (drawing: Drawing, kind: FindingKind): Finding | undefined =>
  checkOutlines(drawing).find((finding) => finding.kind === kind);
const mended = (drawing: Drawing, { mend }: Finding): Drawing =>
  applyEdit({ drawing, outcomes: [] }, { id: 'mend', on: true, action: mend! }).drawing;
const area = (drawing: Drawing) => drawing.shapes.reduce((sum, shape) => sum + regionsArea(coverOf(shape, 1e-3)), 0);

/** Something as large as the sheet, so that sizes are told against it. */
const FRAME = filledShape('frame', 'M0 0H100V4H0Z', '#777777');

interface Case {
  readonly shapes: Shape[];
  readonly places: [number, number][];
  readonly isSafe: boolean;
  readonly sizes?: number[];
}

const LETTERS = 'HELLO'
  .split('')
  .map((letter, i) => filledShape(`t-${letter}${i}`, `M${50 + 4 * i} 90h3v4h-3z`, '#111111'));

const CASES: Record<Exclude<FindingKind, 'pale'>, Case> = {
  gap: {
    shapes: [strokedShape('a', 'M10 20H40', 1), strokedShape('b', 'M40.3 20V60', 1)],
    places: [[40.15, 20]],
    sizes: [expect.closeTo(0.3, 9) as unknown as number],
    isSafe: true,
  },
  open: { shapes: [filledShape('a', 'M10 10H40V40')], places: [[10, 10]], sizes: [Math.hypot(30, 30)], isSafe: true },
  crossing: { shapes: [filledShape('a', 'M10 10L30 30H10L30 10Z')], places: [[20, 20]], isSafe: true },
  nesting: { shapes: [filledShape('a', 'M10 10h40v40h-40z M20 20h10v10h-10z')], places: [[25, 25]], isSafe: false },
  duplicate: {
    shapes: [filledShape('a', 'M10 10h20v20h-20z'), filledShape('b', 'M30 30v-20h-20v20z')],
    places: [[20, 20]],
    isSafe: true,
  },
  overlap: {
    shapes: [filledShape('a', 'M10 10h20v20h-20z'), filledShape('b', 'M25 10h20v20h-20z')],
    places: [[27.5, 20]],
    sizes: [expect.closeTo(100, 2) as unknown as number],
    isSafe: false,
  },
  point: { shapes: [filledShape('a', 'M50 50Z')], places: [[50, 50]], isSafe: true },
  stray: { shapes: [strokedShape('a', 'M50 50H60', 0.5)], places: [[55, 50]], isSafe: false },
  dust: {
    shapes: [filledShape('a', 'M50 50h.004v.004h-.004z')],
    places: [[50.002, 50.002]],
    sizes: [expect.closeTo(16e-6, 9) as unknown as number],
    isSafe: true,
  },
  tiny: {
    shapes: [filledShape('a', 'M50 50h.2v.2h-.2z')],
    places: [[50.1, 50.1]],
    sizes: [expect.closeTo(0.04, 9) as unknown as number],
    isSafe: false,
  },
  lettering: { shapes: LETTERS, places: [[51.5, 92]], isSafe: false },
  unfilled: { shapes: [strokedShape('a', 'M10 10h20v20h-20z', 1)], places: [[20, 20]], isSafe: false },
  ground: {
    shapes: [],
    places: [[50, 50]],
    isSafe: false,
  },
};

describe('the check list', () => {
  it.each(Object.entries(CASES) as [FindingKind, Case][])('finds %s, and its mend does away with it', (kind, one) => {
    const ground = kind === 'ground' ? [filledShape('paper', 'M0 0H100V100H0Z', '#fdfdf8')] : [];
    const drawing = drawingOf(...ground, FRAME, ...one.shapes);
    const finding = found(drawing, kind)!;
    expect(finding.places).toHaveLength(one.places.length);
    for (const [i, place] of one.places.entries()) {
      expect(finding.places[i]![0]).toBeCloseTo(place[0], 6);
      expect(finding.places[i]![1]).toBeCloseTo(place[1], 6);
    }
    if (one.sizes) expect(finding.sizes).toEqual(one.sizes);
    expect(finding.isSafe).toBe(one.isSafe);
    const after = mended(drawing, finding);
    expect(found(after, kind)).toBeUndefined();
    expect(after.shapes).toContain(FRAME);
  });

  it('changes nothing that is seen by mends it calls safe', () => {
    const shapes = [
      ...CASES.open.shapes,
      filledShape('dot', 'M50 50Z'),
      filledShape('x', 'M60 10L80 30H60L80 10Z'),
      filledShape('y', 'M60 60h9v9h-9z'),
      filledShape('z', 'M60 60v9h9v-9z'),
    ];
    let drawing = drawingOf(FRAME, ...shapes);
    const covered = area(drawingOf(...drawing.shapes.filter(({ id }) => id !== 'z')));
    for (const kind of ['open', 'point', 'crossing', 'duplicate'] as const) {
      const finding = found(drawing, kind)!;
      expect(finding.isSafe, kind).toBe(true);
      drawing = mended(drawing, finding);
    }
    expect(area(drawing)).toBeCloseTo(covered, 3);
  });

  it('shows white shapes without calling them wrong', () => {
    const finding = found(drawingOf(FRAME, filledShape('w', 'M10 10h9v9h-9z', '#ffffff')), 'pale')!;
    expect(finding).toMatchObject({ shapes: ['w'], mend: null, isSafe: false });
    // On a dark one, lying on it or in a hole of it, it is seen; where most of it reaches past that, it is not.
    for (const [dark, isFound] of [
      ['M5 5h20v20h-20z', false],
      ['M5 5h20v20h-20z M10 10v9h9v-9z', false],
      ['M5 5h8v20h-8z', true],
    ] as const) {
      const white = filledShape('w', 'M10 10h9v9h-9z', '#ffffff');
      expect(!!found(drawingOf(FRAME, filledShape('d', dark, '#204060'), white), 'pale'), dark).toBe(isFound);
    }
  });

  it('finds nothing in a clean drawing, nor in shapes that are switched off', () => {
    const clean = drawingOf(FRAME, filledShape('a', 'M10 10h40v40h-40z M20 20v10h10v-10z', '#204060'));
    expect(checkOutlines(clean)).toEqual([]);
    const bad = drawingOf(FRAME, ...CASES.crossing.shapes);
    expect(checkOutlines(bad, new Set(['a']))).toEqual([]);
  });

  it('takes dots with round ends for dots, and a dashed ring for whole', () => {
    expect(found(drawingOf(FRAME, strokedShape('i', 'M50 50L50 50', 3)), 'point')).toBeUndefined();
  });
});

describe('what lies between', () => {
  const [back, front] = [
    filledShape('back', 'M0 10H30V40H0Z', '#c02020'),
    filledShape('front', 'M20 20H50V30H20Z', '#c02020'),
  ];

  it('keeps two shapes of one colour apart that another colour parts', () => {
    const band = filledShape('band', 'M22 5H28V45H22Z', '#2040c0');
    expect(found(drawingOf(FRAME, back, band, front), 'overlap')).toBeUndefined();
  });

  it('is nothing where it lies beside, below or above both', () => {
    const beside = filledShape('beside', 'M60 5H70V45H60Z', '#2040c0');
    const band = filledShape('band', 'M22 5H28V45H22Z', '#2040c0');
    for (const shapes of [
      [FRAME, back, beside, front],
      [FRAME, band, back, front],
      [FRAME, back, front, band],
    ]) {
      expect(found(drawingOf(...shapes), 'overlap')!.places).toHaveLength(1);
    }
  });

  it('is mended lot by lot: colours stay apart', () => {
    const blue = (id: string, x: number) => filledShape(id, `M${x} 60h20v10h-20z`, '#2040c0');
    const drawing = drawingOf(FRAME, back, front, blue('p', 0), blue('q', 15), blue('r', 70), blue('s', 80));
    const after = mended(drawing, found(drawing, 'overlap')!);
    expect(after.shapes.map(({ id, colour }) => [id, colour])).toEqual([
      ['frame', '#777777'],
      ['back', '#c02020'],
      ['p', '#2040c0'],
      ['r', '#2040c0'],
    ]);
  });
});
