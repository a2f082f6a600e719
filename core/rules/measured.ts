// measured.ts — rules that measure: from one value where the measure is least to another where it is greatest, and evenly between.
import { z } from 'zod';
import { height } from '../base/quantities.ts';
import type { RuleKind } from './kind.ts';

const ends = { from: height(), to: height() };
type Ends = Readonly<Record<keyof typeof ends, number>>;

/** Where all measure the same, all have the first value. */
function spanned({ from, to }: Ends, measures: readonly number[]): number[] {
  const [least, most] = [Math.min(...measures), Math.max(...measures)];
  return measures.map((measure) => from + (most > least ? ((to - from) * (measure - least)) / (most - least) : 0));
}

const LightnessSchema = z.object({ kind: z.literal('lightness'), ...ends });
const AreaSchema = z.object({ kind: z.literal('area'), ...ends });
const DistanceSchema = z.object({ kind: z.literal('distance'), ...ends, at: z.tuple([height(), height()]) });
const AlongSchema = z.object({ kind: z.literal('along'), ...ends, towardsDeg: z.number().min(-360).max(360) });

/** From the darkest to the lightest colour. */
export const lightness = {
  kind: 'lightness',
  schema: LightnessSchema,
  word: 'lightness',
  start: (wishes) => ({ kind: 'lightness', ...wishes }),
  values: (settings, subjects) =>
    spanned(
      settings,
      subjects.map((subject) => subject.lightness),
    ),
} as const satisfies RuleKind<z.infer<typeof LightnessSchema>>;

/** From the smallest to the largest, by the side of a square as large: areas themselves are mostly one large and many small. */
export const area = {
  kind: 'area',
  schema: AreaSchema,
  word: 'size',
  start: (wishes) => ({ kind: 'area', ...wishes }),
  values: (settings, subjects) =>
    spanned(
      settings,
      subjects.map((subject) => Math.sqrt(subject.area)),
    ),
} as const satisfies RuleKind<z.infer<typeof AreaSchema>>;

/** From the nearest to a place to the farthest from it. */
export const distance = {
  kind: 'distance',
  schema: DistanceSchema,
  word: 'distance from a point',
  start: (wishes) => ({ kind: 'distance', ...wishes, at: [0, 0] }),
  values: (settings, subjects) =>
    spanned(
      settings,
      subjects.map(({ centre: [x, y] }) => Math.hypot(x - settings.at[0], y - settings.at[1])),
    ),
} as const satisfies RuleKind<z.infer<typeof DistanceSchema>>;

/** From the first along a direction to the last: 0° to the right, 90° up. */
export const along = {
  kind: 'along',
  schema: AlongSchema,
  word: 'position along a line',
  start: (wishes) => ({ kind: 'along', ...wishes, towardsDeg: 0 }),
  values(settings, subjects) {
    const turn = (settings.towardsDeg * Math.PI) / 180;
    const [dx, dy] = [Math.cos(turn), Math.sin(turn)];
    return spanned(
      settings,
      subjects.map(({ centre: [x, y] }) => x * dx + y * dy),
    );
  },
} as const satisfies RuleKind<z.infer<typeof AlongSchema>>;
