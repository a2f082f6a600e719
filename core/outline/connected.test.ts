// Shapes that hang together, by their outlines and not by their boxes.
import { describe, expect, it } from 'vitest';
import { filledShape, strokedShape } from '../testing/drawings.ts';
import { connectedShapes } from './connected.ts';

describe('connected shapes', () => {
  it('are those whose outlines touch, cross or follow one another', () => {
    const shapes = [
      strokedShape('a', 'M0 0L10 0', 0.1),
      strokedShape('b', 'M10 0L10 10', 0.1),
      strokedShape('c', 'M5 5L20 5', 0.1),
      // Its box covers all of them.
      strokedShape('far', 'M-20 -20L40 -20L40 40', 0.1),
      filledShape('alone', 'M1 1L2 1L2 2Z'),
    ];
    expect(connectedShapes(shapes, ['a'])).toEqual(['a', 'b', 'c']);
    expect(connectedShapes(shapes, ['alone'])).toEqual(['alone']);
    expect(connectedShapes(shapes, ['gone'])).toEqual([]);
    expect(connectedShapes([], ['gone'])).toEqual(['gone']);
  });

  it('reach as far as their strokes are wide', () => {
    const apart = (width: number) => [strokedShape('a', 'M0 0L10 0', width), strokedShape('b', 'M0 2L10 2', width)];
    expect(connectedShapes(apart(1.9), ['a'])).toEqual(['a']);
    expect(connectedShapes(apart(2.1), ['a'])).toEqual(['a', 'b']);
  });

  it('may be a dot on a line', () => {
    expect(connectedShapes([filledShape('dot', 'M5 0'), strokedShape('a', 'M0 0L10 0', 0.1)], ['a'])).toEqual([
      'dot',
      'a',
    ]);
  });
});
