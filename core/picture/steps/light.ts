// light.ts — uneven light divided out: what a place of paper has too little is given to all that is near it, so that ink and paper
// are the same everywhere.
import { z } from 'zod';
import { nearPaper, type Paper, smoothPaper } from '../paper.ts';
import type { Picture, Prepared } from '../types.ts';

export const LightSchema = z.object({
  do: z.literal('light'),
  /** Whether the light falls off evenly over the picture, or shadows have borders. */
  by: z.enum(['surface', 'near']),
  /** For `near`: paper is looked for this far around, px; what is drawn must be thinner. */
  window: z.number().min(8).max(4000),
});

export function light(prepared: Prepared, { by, window }: z.infer<typeof LightSchema>): Prepared {
  const { picture } = prepared;
  const paper = by === 'near' ? nearPaper(picture, window) : smoothPaper(picture);
  return { ...prepared, picture: divided(picture, paper) };
}

/** Paper becomes as light as its lightest place. */
function divided({ width, height, data }: Picture, { side, columns, rows, values }: Paper): Picture {
  const result = data.slice();
  const lightest = values.reduce((most, v) => Math.max(most, v), 0);
  for (let y = 0, p = 0; y < height; y++) {
    const [above, below, t] = between(y, side, rows);
    for (let x = 0; x < width; x++, p += 4) {
      const [left, right, s] = between(x, side, columns);
      const top = values[above * columns + left]! * (1 - s) + values[above * columns + right]! * s;
      const bottom = values[below * columns + left]! * (1 - s) + values[below * columns + right]! * s;
      const gain = lightest / (top * (1 - t) + bottom * t);
      for (let c = 0; c < 3; c++) result[p + c] = gain * data[p + c]!;
    }
  }
  return { width, height, data: result };
}

/** The two cells whose middles a pixel lies between, and how far it is from the first to the second. */
function between(pixel: number, side: number, count: number): [first: number, second: number, share: number] {
  const place = (pixel + 0.5) / side - 0.5;
  const first = Math.min(count - 1, Math.max(0, Math.floor(place)));
  return [first, Math.min(count - 1, first + 1), Math.min(1, Math.max(0, place - first))];
}
