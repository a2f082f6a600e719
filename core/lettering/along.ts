// along.ts — lines that a text runs along: round a circle, over its top or through its bottom.
export const ROUND = ['over', 'under'] as const;
export type Round = (typeof ROUND)[number];

export interface TextCircle {
  readonly diameter: number;
  readonly side: Round;
  readonly centre: readonly [x: number, y: number];
}

const figure = (v: number) => Number(v.toFixed(6));

/** Path data of a circle that begins opposite the place where a text set in the middle stands, y down. */
export function circleLine({ diameter, side, centre: [x, y] }: TextCircle): string {
  const r = figure(diameter / 2);
  // Over the top a text runs clockwise; through the bottom the other way round.
  const [start, end, sweep] = side === 'over' ? [y + r, y - r, 1] : [y - r, y + r, 0];
  const [cx, from, to] = [figure(x), figure(start), figure(end)];
  return `M${cx} ${from}A${r} ${r} 0 0 ${sweep} ${cx} ${to}A${r} ${r} 0 0 ${sweep} ${cx} ${from}`;
}

/** The circle of such a line; null for any other. */
export function circleOf(along: string): TextCircle | null {
  const match = /^M(\S+) ([^A]+)A(\S+) \S+ 0 0 ([01]) /.exec(along);
  if (!match) return null;
  const [x, from, r] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const side = match[4] === '1' ? 'over' : 'under';
  const circle: TextCircle = { diameter: 2 * r, side, centre: [x, figure(side === 'over' ? from - r : from + r)] };
  return circleLine(circle) === along ? circle : null;
}
