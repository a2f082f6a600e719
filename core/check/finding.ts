// finding.ts — what is found about outlines before they are built, and what can be done about it in one click.
import type { EditAction } from '../edits/schema.ts';

export const FINDING_KINDS = [
  'gap',
  'open',
  'crossing',
  'nesting',
  'duplicate',
  'overlap',
  'point',
  'stray',
  'dust',
  'tiny',
  'lettering',
  'unfilled',
  'pale',
  'ground',
] as const;
export type FindingKind = (typeof FINDING_KINDS)[number];

export interface Finding {
  readonly kind: FindingKind;
  /** What was found, with its number: “3 gaps, the widest 0.4”. Lengths are in user units and stand for {@link sizes}. */
  readonly shapes: readonly string[];
  /** Where, in user units of the source; as many as there are things found. */
  readonly places: readonly (readonly [x: number, y: number])[];
  /** Size of each thing: width of a gap, area of a shape; empty where it has none. */
  readonly sizes: readonly number[];
  /** What mends all of them; null where only an eye can tell. */
  readonly mend: EditAction | null;
  /** Whether the mend cannot change what is meant: no visible change, or one far below what can be seen. */
  readonly isSafe: boolean;
}

/** A finding, or none where nothing was found. */
export function finding(
  kind: FindingKind,
  found: readonly { shapes: readonly string[]; place: readonly [number, number]; size?: number }[],
  mend: (shapes: string[]) => EditAction | null,
  isSafe: boolean,
): Finding[] {
  if (found.length === 0) return [];
  const shapes = [...new Set(found.flatMap((one) => one.shapes))];
  return [
    {
      kind,
      shapes,
      places: found.map(({ place }) => place),
      sizes: found.flatMap(({ size }) => (size === undefined ? [] : [size])),
      mend: mend(shapes),
      isSafe,
    },
  ];
}
