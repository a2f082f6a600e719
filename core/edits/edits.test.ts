// Edits of outlines: what each does to the shapes, and that a list of them can be done again from the document alone.
import { describe, expect, it } from 'vitest';
import type { Drawing, Shape } from '../drawing.ts';
import { coverOf } from '../outline/cover.ts';
import { regionsArea } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { flatten } from '../path/flatten.ts';
import { printPath } from '../path/print.ts';
import { drawingOf, filledShape, strokedShape } from '../testing/drawings.ts';
import { applyEdit, type Edited } from './apply.ts';
import type { EditAction } from './schema.ts';
import { partAreas, smallPartLimit } from './split.ts';

const edited = (drawing: Drawing, ...actions: EditAction[]): Edited =>
  actions.reduce<Edited>((state, action, i) => applyEdit(state, { id: `e${i + 1}`, on: true, action }), {
    drawing,
    outcomes: [],
  });
const shapesAfter = (drawing: Drawing, ...actions: EditAction[]) => edited(drawing, ...actions).drawing.shapes;
const ids = (shapes: readonly Shape[]) => shapes.map(({ id }) => id);
const area = (shape: Shape) => regionsArea(coverOf(shape, 1e-4));

const SQUARE = filledShape('a', 'M0 0h10v10h-10z');
const OVER = filledShape('b', 'M5 0h10v10h-10z', '#a04020');

describe('edits', () => {
  it('leave every other shape the very same object', () => {
    const [a, b, c] = [SQUARE, OVER, filledShape('c', 'M0 20h5v5h-5z')];
    const shapes = shapesAfter(drawingOf(a, b, c), { do: 'grow', shapes: ['a'], by: 1, join: 'mitre' });
    expect(shapes[1]).toBe(b);
    expect(shapes[2]).toBe(c);
  });

  it('say what they did, with counts before and after', () => {
    const { outcomes } = edited(drawingOf(SQUARE, OVER), { do: 'combine', how: 'union', shapes: ['a', 'b'] });
    expect(outcomes).toEqual([
      {
        id: 'e1',
        said: '2 shapes united',
        missing: [],
        isDone: true,
        before: { shapes: 2, points: 8 },
        after: { shapes: 1, points: 4 },
      },
    ]);
  });

  it('name the shapes that are not there, and do the rest', () => {
    const { outcomes, drawing } = edited(drawingOf(SQUARE), { do: 'remove', shapes: ['a', 'ghost'] });
    expect(outcomes[0]!.missing).toEqual(['ghost']);
    expect(drawing.shapes).toEqual([]);
  });
});

describe('combining shapes', () => {
  it('tells how far it has come, and stops when told to', () => {
    const many = Array.from({ length: 40 }, (_, i) => filledShape(`s${i}`, `M${i} 0h2v2h-2z`));
    const action: EditAction = { do: 'combine', how: 'union', shapes: ids(many) };
    const edit = { id: 'e', on: true, action };
    const start: Edited = { drawing: drawingOf(...many), outcomes: [] };
    const shares: number[] = [];
    expect(applyEdit(start, edit, (share) => shares.push(share)).drawing.shapes).toHaveLength(1);
    expect(shares.length).toBeGreaterThan(40);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    const stop = (share: number) => {
      if (share > 0.4) throw new Error('enough');
    };
    expect(() => applyEdit(start, edit, stop)).toThrow('enough');
  });

  it('keeps the first and its place in the paint order', () => {
    const drawing = drawingOf(filledShape('under', 'M0 0h1v1h-1z'), SQUARE, OVER, filledShape('top', 'M0 0h1v1h-1z'));
    const shapes = shapesAfter(drawing, { do: 'combine', how: 'subtract', shapes: ['b', 'a'] });
    expect(ids(shapes)).toEqual(['under', 'b', 'top']);
    expect(area(shapes[1]!)).toBeCloseTo(50, 3);
    expect(shapes[1]!.colour).toBe('#a04020');
  });

  it('takes strokes for what they cover', () => {
    const bar = strokedShape('bar', 'M-5 5H20', 2);
    const [shape] = shapesAfter(drawingOf(SQUARE, bar), { do: 'combine', how: 'intersect', shapes: ['a', 'bar'] });
    expect(area(shape!)).toBeCloseTo(20, 3);
  });

  it('says when nothing is left', () => {
    const { drawing, outcomes } = edited(drawingOf(SQUARE, filledShape('far', 'M50 50h5v5h-5z')), {
      do: 'combine',
      how: 'intersect',
      shapes: ['a', 'far'],
    });
    expect(drawing.shapes).toEqual([]);
    expect(outcomes[0]!.said).toMatch(/nothing is left/);
  });
});

describe('growing and shrinking', () => {
  // Steiner's formula: area + perimeter · r + πr² for a convex outline with round corners, a square's corners for mitres.
  it.each([
    ['round', 2, 100 + 40 * 2 + Math.PI * 4],
    ['mitre', 2, 196],
    ['round', -2, 36],
  ] as const)('%s by %d', (join, by, expected) => {
    const [shape] = shapesAfter(drawingOf(SQUARE), { do: 'grow', shapes: ['a'], by, join });
    expect(area(shape!)).toBeCloseTo(expected, 1);
  });

  it('says what shrank away', () => {
    const { drawing, outcomes } = edited(drawingOf(SQUARE), { do: 'grow', shapes: ['a'], by: -6, join: 'mitre' });
    expect(drawing.shapes).toEqual([]);
    expect(outcomes[0]!.said).toMatch(/1 shape shrank away/);
  });

  it('shrinks shapes that cross themselves by their outside only', () => {
    const twice = filledShape('t', 'M0 0h10v10h-10z M5 0h10v10h-10z');
    const [shape] = shapesAfter(drawingOf(twice), { do: 'grow', shapes: ['t'], by: -1, join: 'mitre' });
    expect(area(shape!)).toBeCloseTo(13 * 8, 2);
  });
});

describe('closing gaps', () => {
  it('joins ends within the limit, across shapes, and leaves wider ones open', () => {
    const drawing = drawingOf(
      strokedShape('a', 'M0 0L10 0', 1),
      strokedShape('b', 'M10.3 0L10 10L0 10', 1),
      strokedShape('far', 'M0 12L-5 12', 1),
    );
    const { drawing: closed, outcomes } = edited(drawing, { do: 'close', shapes: ['a', 'b', 'far'], gap: 0.5 });
    expect(outcomes[0]!.said).toBe('1 gap closed; 4 ends still open');
    expect(ids(closed.shapes)).toEqual(['a', 'far']);
    expect(printPath(closed.shapes[0]!.path)).toBe('M0 0L10.15 0L10 10L0 10');
  });

  it('makes a ring of lines drawn in any order and direction', () => {
    const sides = ['M0 0H9.9', 'M10 10V0.1', 'M10 10H0', 'M0 0V10'].map((d, i) => strokedShape(`s${i}`, d, 1));
    const [ring, ...rest] = shapesAfter(drawingOf(...sides), { do: 'close', shapes: ids(sides), gap: 0.3 });
    expect(rest).toEqual([]);
    expect(ring!.path.at(-1)).toEqual(['Z']);
    expect(ring!.path.filter(([letter]) => letter === 'M')).toHaveLength(1);
    expect(regionsArea(regionsOf(flatten(ring!.path, 1e-3), 'nonzero'))).toBeCloseTo(99.5, 4);
  });

  it('leads ends on to the line they stop short of, straight where that is near, and leaves that line as it is', () => {
    const room = strokedShape('room', 'M0 0H40V30H0Z', 1);
    const wall = strokedShape('wall', 'M20 0.4L20.2 29.7', 1);
    const aslant = strokedShape('aslant', 'M30 10L39.8 10.5', 1);
    const done: EditAction = { do: 'close', shapes: ['room', 'wall', 'aslant'], gap: 0.5 };
    const { drawing, outcomes } = edited(drawingOf(room, wall, aslant), done);
    expect(outcomes[0]!.said).toBe('3 gaps closed, 3 of them onto lines; 1 end still open');
    const [same, straight, slant] = drawing.shapes;
    expect(printPath(same!.path)).toBe(printPath(room.path));
    const ends = (shape: Shape | undefined) => printPath(shape!.path, 3);
    expect(ends(straight)).toMatch(/^M19\.997 0L20 0\.4L20\.2 29\.7L20\.202 30$/);
    expect(ends(slant)).toBe('M30 10L39.8 10.5L40 10.51');
  });

  it('joins no line to itself where it only bends, but where it comes back to itself', () => {
    const hook = strokedShape('hook', 'M0 0H10V10H0.2V0.3', 1);
    const { drawing } = edited(drawingOf(hook), { do: 'close', shapes: ['hook'], gap: 0.25 });
    expect(printPath(drawing.shapes[0]!.path, 3)).toBe('M0 0L10 0L10 10L0.2 10L0.2 0.3');
    const nearer = edited(drawingOf(hook), { do: 'close', shapes: ['hook'], gap: 0.32 });
    expect(nearer.outcomes[0]!.isDone).toBe(true);
  });

  it('bridges what is wide beside the pieces it joins', () => {
    const [shape] = shapesAfter(drawingOf(strokedShape('u', 'M0 0L0 3L3 3L3 0', 1)), {
      do: 'close',
      shapes: ['u'],
      gap: 4,
    });
    expect(printPath(shape!.path)).toBe('M0 0L0 3L3 3L3 0Z');
  });
});

describe('splitting', () => {
  it('keeps what lies to one side and makes a shape of the other', () => {
    const shapes = shapesAfter(drawingOf(SQUARE), { do: 'split', shapes: ['a'], line: 'M3 -1L3 2' });
    expect(ids(shapes)).toEqual(['a', 'a/e1']);
    expect(shapes.map(area).sort((p, q) => p - q)).toEqual([expect.closeTo(30, 3), expect.closeTo(70, 3)]);
    expect(shapes[1]!.from).toBe('a');
  });

  it('cuts the line of a stroke, which stays one', () => {
    const stroke = strokedShape('s', 'M0 0L10 0', 1);
    const shapes = shapesAfter(drawingOf(stroke), { do: 'split', shapes: ['s'], line: 'M4 -1L4 1' });
    expect(shapes.map(({ path }) => printPath(path, 6)).sort()).toEqual(['M0 0L4 0', 'M4 0L10 0']);
    expect(shapes.map((shape) => shape.stroke)).toEqual([stroke.stroke, stroke.stroke]);
  });

  it('does nothing to a shape the line does not meet', () => {
    const { drawing, outcomes } = edited(drawingOf(SQUARE), { do: 'split', shapes: ['a'], line: 'M30 0V9' });
    expect(drawing.shapes[0]).toBe(SQUARE);
    expect(outcomes[0]!.said).toBe('0 shapes split in two');
  });

  it('separates parts that do not touch, the largest keeping the id', () => {
    const parts = filledShape('p', 'M0 0h2v2h-2z M10 0h5v5h-5z M20 0h1v1h-1z');
    const shapes = shapesAfter(drawingOf(parts), { do: 'separate', shapes: ['p'] });
    expect(ids(shapes)).toEqual(['p', 'p/e1.1', 'p/e1.2']);
    expect(shapes.map((shape) => Math.round(area(shape)))).toEqual([25, 4, 1]);
  });

  it('separates dots from bodies by a size that the parts themselves tell', () => {
    const word = filledShape('w', 'M0 0h40v12h-40z M50 0h20v12h-20z M10 20h3v3h-3z M20 20h3v3h-3z');
    const limit = smallPartLimit(partAreas(word))!;
    const [body, dots] = shapesAfter(drawingOf(word), { do: 'separate', shapes: ['w'], below: limit });
    expect([area(body!), area(dots!)].map(Math.round)).toEqual([720, 18]);
    expect(smallPartLimit([100, 90, 80])).toBeNull();
  });
});

describe('faces', () => {
  it('fills those that were pointed at and takes the lines away', () => {
    const lines = ['M0 0H10', 'M0 10H10', 'M0 0V10', 'M5 0V10', 'M10 0V10'].map((d, i) => strokedShape(`l${i}`, d, 1));
    const { drawing, outcomes } = edited(drawingOf(...lines), {
      do: 'faces',
      shapes: ids(lines),
      places: [
        [7, 5],
        [50, 50],
      ],
      colour: '#336699',
      keepsLines: false,
    });
    expect(drawing.shapes.map((shape) => [shape.id, shape.colour, area(shape), shape.from])).toEqual([
      ['e1.1', '#336699', 50, undefined],
    ]);
    expect(outcomes[0]!.said).toBe('1 face of 2 filled; 1 place no longer enclosed');
  });
});

describe('simplifying', () => {
  it('takes points away within the tolerance and says how many', () => {
    const points = Array.from({ length: 90 }, (_, i) => {
      const a = (2 * Math.PI * i) / 90;
      return `${(50 + 40 * Math.cos(a)).toFixed(5)} ${(50 + 40 * Math.sin(a)).toFixed(5)}`;
    });
    const ring = filledShape('r', `M${points.join('L')}Z`);
    const { drawing, outcomes } = edited(drawingOf(ring), { do: 'simplify', shapes: ['r'], tolerance: 0.2 });
    const [shape] = drawing.shapes;
    expect(shape!.path.length).toBeLessThan(20);
    expect(area(shape!)).toBeCloseTo(area(ring), -1.7);
    expect(outcomes[0]!.said).toMatch(/^90 points became \d+$/);
  });

  it('keeps corners', () => {
    const [shape] = shapesAfter(drawingOf(filledShape('s', 'M0 0L5 0L10 0L10 10L0 10Z')), {
      do: 'simplify',
      shapes: ['s'],
      tolerance: 0.1,
    });
    expect(printPath(shape!.path)).toBe('M0 0L10 0L10 10L0 10Z');
  });
});

describe('copies and order', () => {
  const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => filledShape(id, 'M0 0h10v10h-10z'));
  const all = drawingOf(a!, b!, c!, d!);
  const ordered = (to: 'front' | 'forward' | 'backward' | 'back', ...shapes: string[]) =>
    ids(shapesAfter(all, { do: 'order', shapes, to })).join('');

  it('copies lie in front, know what they are of, and are moved, turned and mirrored as they are told', () => {
    const shapes = shapesAfter(all, { do: 'copy', shapes: ['b'], matrix: [-1, 0, 0, 2, 30, 5] });
    expect(ids(shapes)).toEqual(['a', 'b', 'c', 'd', 'b/e1']);
    expect(shapes[4]).toMatchObject({ from: 'b', fillRule: b!.fillRule });
    expect(area(shapes[4]!)).toBeCloseTo(200, 9);
    expect(shapes[1]).toBe(b);
  });

  it('shapes go to an end, or past the next one, and keep their own order', () => {
    expect([ordered('front', 'a', 'c'), ordered('back', 'd', 'b')]).toEqual(['bdac', 'bdac']);
    expect([ordered('forward', 'a', 'b'), ordered('backward', 'c', 'd')]).toEqual(['cabd', 'acdb']);
    expect([ordered('forward', 'd'), ordered('backward', 'a')]).toEqual(['abcd', 'abcd']);
  });

  it('nothing done is said as such', () => {
    const last = edited(all, { do: 'order', shapes: ['d'], to: 'front' }).outcomes[0]!;
    expect(last.isDone).toBe(false);
    expect(edited(all, { do: 'order', shapes: ['a'], to: 'front' }).outcomes[0]!.isDone).toBe(true);
    expect(edited(all, { do: 'close', shapes: ['a', 'b'], gap: 1 }).outcomes[0]!.isDone).toBe(false);
  });

  it('drawn shapes keep their fill rule', () => {
    const drawn = { id: 'x', name: 'x', d: 'M0 0h9v9h-9zM3 3h3v3h-3z', colour: '#112233', stroke: null };
    const [one] = shapesAfter(drawingOf(), { do: 'draw', shapes: [{ ...drawn, fillRule: 'evenodd' }] });
    expect(area(one!)).toBeCloseTo(72, 6);
  });
});
