// How far picture and outlines disagree: areas of rectangles, which can be counted by hand.
import { describe, expect, it } from 'vitest';
import { unprepared } from '../picture/prepare.ts';
import { filledShape } from '../testing/drawings.ts';
import { painting } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { differenceOf } from './difference.ts';
import { TRACE_DEFAULTS, type TraceSettings } from './settings.ts';

const box = (id: string, x: number, y: number, w: number, h: number, colour?: string) =>
  filledShape(id, `M${x} ${y}h${w}v${h}h${-w}Z`, colour);
const COLOURS: TraceSettings = { ...TRACE_DEFAULTS, mode: 'colours' };

describe('what picture and outlines disagree on', () => {
  const two = unprepared(
    painting(40, 20, '#ffffff', [
      [[rectangle(4, 4, 10, 10)], '#b03020'],
      [[rectangle(20, 4, 10, 10)], '#206080'],
    ]),
  );

  it.each(['#b03020', '#20e040', '#ffffff'])('is the pixels of the form, with ink, for a shape in %s', (colour) => {
    const found = differenceOf(two, [box('a', 6, 4, 10, 10, colour)], TRACE_DEFAULTS);
    // Two columns of ten are missing, two are added; of the other rectangle everything is missing.
    expect(found).toMatchObject({ missing: 120, added: 20, drawn: 220 });
    expect([found.map[5 * 40 + 5], found.map[5 * 40 + 8], found.map[5 * 40 + 15]]).toEqual([1, 0, 2]);
  });

  it.each([
    ['their own colours', '#b03020', '#206080'],
    ['others', '#00ff00', '#000000'],
    ['one', '#777777', '#777777'],
  ])('is nothing with colours where each shape lies on its own, painted in %s', (_, first, second) => {
    const shapes = [box('a', 4, 4, 10, 10, first), box('b', 20, 4, 10, 10, second)];
    expect(differenceOf(two, shapes, COLOURS)).toMatchObject({ missing: 0, added: 0, drawn: 200 });
  });

  it('is what a traced shape takes of another colour', () => {
    const touching = unprepared(
      painting(40, 20, '#ffffff', [
        [[rectangle(4, 4, 10, 10)], '#b03020'],
        [[rectangle(14, 4, 10, 10)], '#206080'],
      ]),
    );
    const shapes = [box('a', 4, 4, 13, 10), box('b', 17, 4, 7, 10)];
    expect(differenceOf(touching, shapes, COLOURS)).toMatchObject({ missing: 30, added: 0 });
  });

  it('is nothing for a drawing by hand that covers two colours at once, in whatever colour', () => {
    const touching = unprepared(
      painting(40, 20, '#dddddd', [
        [[rectangle(4, 4, 10, 10)], '#b03020'],
        [[rectangle(14, 4, 10, 10)], '#206080'],
      ]),
    );
    for (const colour of ['#b03020', '#dddddd', '#ffff00']) {
      const whole = differenceOf(touching, [box('a', 4, 4, 20, 10, colour)], COLOURS, true);
      expect(whole).toMatchObject({ missing: 0, added: 0, drawn: 200 });
      const moved = differenceOf(touching, [box('a', 4, 5, 20, 10, colour)], COLOURS, true);
      expect(moved).toMatchObject({ missing: 20, added: 20 });
    }
  });

  it('follows the frame of a picture that was cut', () => {
    const cut = { ...two, frame: { scale: 0.5, x: 100, y: 50 } };
    expect(differenceOf(cut, [box('a', 102, 52, 5, 5), box('b', 110, 52, 5, 5)], COLOURS)).toMatchObject({
      missing: 0,
      added: 0,
    });
  });
});
