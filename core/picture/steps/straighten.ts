// straighten.ts — a picture turned by a small angle. Nothing is cut off: the sheet grows, filled with the paper's colour.
import { z } from 'zod';
import type { Picture, Prepared } from '../types.ts';
import { borderColour } from './ground.ts';
import { centred } from './rearrange.ts';

export const StraightenSchema = z.object({
  do: z.literal('straighten'),
  /** Clockwise, degrees. */
  by: z.number().min(-45).max(45),
});

export function straighten({ picture, frame, level }: Prepared, { by }: z.infer<typeof StraightenSchema>): Prepared {
  if (by === 0) return { picture, frame, level };
  const turned = turn(picture, (by * Math.PI) / 180);
  return { picture: turned, frame: centred(frame, picture, turned.width, turned.height), level };
}

function turn(picture: Picture, angle: number): Picture {
  const { width: w, height: h, data } = picture;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const width = Math.ceil(w * Math.abs(cos) + h * Math.abs(sin));
  const height = Math.ceil(w * Math.abs(sin) + h * Math.abs(cos));
  const paper = borderColour(picture);
  const result = new Uint8ClampedArray(4 * width * height);
  const [wx, wy] = [new Float64Array(4), new Float64Array(4)];
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p += 4) {
      const [dx, dy] = [x + 0.5 - width / 2, y + 0.5 - height / 2];
      const sx = cos * dx + sin * dy + w / 2 - 0.5;
      const sy = cos * dy - sin * dx + h / 2 - 0.5;
      const [ix, iy] = [Math.floor(sx), Math.floor(sy)];
      catmullRom(sx - ix, wx);
      catmullRom(sy - iy, wy);
      let [r, g, b, a] = [0, 0, 0, 0];
      for (let j = 0; j < 4; j++) {
        for (let i = 0; i < 4; i++) {
          const [u, v] = [ix - 1 + i, iy - 1 + j];
          const weight = wx[i]! * wy[j]!;
          const isInside = u >= 0 && v >= 0 && u < w && v < h;
          const q = 4 * (v * w + u);
          const alpha = weight * (isInside ? data[q + 3]! : paper[3]);
          r += alpha * (isInside ? data[q]! : paper[0]);
          g += alpha * (isInside ? data[q + 1]! : paper[1]);
          b += alpha * (isInside ? data[q + 2]! : paper[2]);
          a += alpha;
        }
      }
      if (a <= 0) continue;
      result[p] = r / a;
      result[p + 1] = g / a;
      result[p + 2] = b / a;
      result[p + 3] = a;
    }
  }
  return { width, height, data: result };
}

/** Weights of four neighbours for a place `t` between the middle two (Catmull & Rom 1974). */
function catmullRom(t: number, weights: Float64Array): void {
  weights[0] = ((-0.5 * t + 1) * t - 0.5) * t;
  weights[1] = (1.5 * t - 2.5) * t * t + 1;
  weights[2] = ((-1.5 * t + 2) * t + 0.5) * t;
  weights[3] = (0.5 * t - 0.5) * t * t;
}
