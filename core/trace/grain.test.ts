// The noise of a picture, against the deviation it was made with.
import { describe, expect, it } from 'vitest';
import { noisy, painting } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { noiseIn } from './grain.ts';
import { planesOf } from './planes.ts';

const SCENE = painting(160, 120, '#7080a0', [
  [[rectangle(20.3, 20.4, 60.2, 70.3)], '#c9a050'],
  [[rectangle(90.3, 30.7, 50.2, 40.1)], '#50a070'],
]);
/** Of independent noise on red, green and blue, by the weights of the luma (ITU-R BT.601). */
const LUMA = Math.hypot(0.299, 0.587, 0.114);

describe('noise', () => {
  it.each([1, 3, 6, 12])('of deviation %s is measured to a tenth', (deviation) => {
    const found = noiseIn(planesOf(noisy(SCENE, deviation), false));
    expect(Math.abs(found / (LUMA * deviation) - 1)).toBeLessThan(0.1);
  });

  it('is none in a clean drawing, nor in an even ramp', () => {
    expect(noiseIn(planesOf(SCENE, false))).toBe(0);
    const ramp = { width: 128, height: 64, data: new Uint8ClampedArray(4 * 128 * 64) };
    for (let i = 0; i < 128 * 64; i++) ramp.data.set([2 * (i % 128), 2 * (i % 128), 2 * (i % 128), 255], 4 * i);
    expect(noiseIn(planesOf(ramp, false))).toBe(0);
  });
});
