// profile.ts — the shape of an edge between wall and front, as rows from the wall (row 0) to the front (last row). The names
// are those of mouldings, as joiners and masons use them.
import { monotoneCurve } from '../path/monotone.ts';

/** A row: how far inside the outline, in shares of the reach, and how high above the wall, in shares of the rise. */
export type Row = readonly [inset: number, height: number];

/** A profile of the trade. */
export interface Moulding {
  /** What an edge with it is. */
  readonly word: string;
  /** Whether a curve stands behind its rows, so that more steps come nearer to it. */
  readonly isCurved: boolean;
  readonly rows: (steps: number) => readonly Row[];
}

const MOULDINGS = {
  /** A quarter ellipse in equal angles: it leaves the wall upright and arrives flat at the front. */
  round: { word: 'rounded', isCurved: true, rows: (steps) => shares(steps).map(quarter) },
  chamfer: { word: 'chamfered', isCurved: false, rows: (steps) => shares(steps).map((share) => [share, share]) },
  /** The quarter of `round`, hollow: it leaves the wall flat and arrives upright. */
  cove: { word: 'coved', isCurved: true, rows: (steps) => shares(steps).map((share) => opposite(quarter(1 - share))) },
  /** A hollow half below, a round half above. */
  ogee: {
    word: 'ogee-shaped',
    isCurved: true,
    rows(steps) {
      const half = Math.ceil(steps / 2);
      const halved = ([x, y]: Row, by: number): Row => [by + x / 2, by + y / 2];
      const cove = shares(half).map((share) => halved(opposite(quarter(1 - share)), 0));
      const round = shares(Math.max(1, steps - half)).map((share) => halved(quarter(share), 0.5));
      return [...cove, ...round.slice(1)];
    },
  },
  /** Treads first, so that the wall ends in a ledge. */
  step: {
    word: 'stepped',
    isCurved: false,
    rows: (steps) => [
      [0, 0],
      ...shares(steps)
        .slice(1)
        .flatMap((share, k): Row[] => [
          [share, k / steps],
          [share, share],
        ]),
    ],
  },
  /** A half round along the rim, and a groove between it and the front. */
  bead: {
    word: 'beaded',
    isCurved: false,
    rows: (steps) => [
      ...shares(2 * steps).map((share): Row => {
        const angle = Math.PI * share;
        return [share === 1 ? BEAD : (BEAD / 2) * (1 - Math.cos(angle)), share === 1 ? 0 : Math.sin(angle)];
      }),
      [1, 0],
      [1, 1],
    ],
  },
} as const satisfies Readonly<Record<string, Moulding>>;

export type Profile = keyof typeof MOULDINGS;
export const PROFILES = Object.keys(MOULDINGS) as [Profile, ...Profile[]];

/** What an edge with a profile is: “rounded”. */
export const profileWord = (profile: Profile): string => MOULDINGS[profile].word;

/** Whether a curve stands behind the rows of a profile. */
export const isCurved = (profile: Profile | ProfileCurve): boolean =>
  typeof profile === 'string' && MOULDINGS[profile].isCurved;

/** Most points of a drawn profile. */
export const MOST_CURVE_POINTS = 40;

/** A drawn profile: from the wall at (0, 0) to the front at (1, 1), x in shares of the reach, y in shares of the rise. */
export interface ProfileCurve {
  /** Neither end; x never falls, and both stay within 0 and 1. */
  readonly points: readonly (readonly [x: number, y: number])[];
  /** Whether a smooth curve leads through the points, or straight lines. */
  readonly isSmooth: boolean;
}

/** A drawn profile by its name. */
export interface NamedProfile extends ProfileCurve {
  readonly name: string;
}

/**
 * Row k lies `insets[k]` of the reach inside the outline and `heights[k]` of the rise above the wall; both begin at 0 and end
 * at 1, and insets never fall. Rows at one inset have upright faces between them.
 */
export interface ProfileRows {
  readonly insets: readonly number[];
  readonly heights: readonly number[];
}

/** @param steps strips of faces across the edge, ≥ 1; for `step` treads, for a drawn one strips between two of its points */
export function profileRows(profile: Profile | ProfileCurve, steps: number): ProfileRows {
  const rows = typeof profile === 'string' ? MOULDINGS[profile].rows(steps) : curveRows(profile, steps);
  return { insets: rows.map(([inset]) => inset), heights: rows.map(([, height]) => height) };
}

/** 0 … 1 in equal parts. */
const shares = (steps: number) => Array.from({ length: steps + 1 }, (_, k) => k / steps);

/** How much of the reach a bead takes; the groove has the rest. */
const BEAD = 0.8;

function quarter(share: number): Row {
  if (share === 0 || share === 1) return [share, share];
  const angle = (share * Math.PI) / 2;
  return [1 - Math.cos(angle), Math.sin(angle)];
}

/** Turned half around the middle. */
const opposite = ([x, y]: Row): Row => [1 - x, 1 - y];

function curveRows({ points, isSmooth }: ProfileCurve, steps: number): Row[] {
  const all: Row[] = [[0, 0], ...points, [1, 1]];
  const at = isSmooth ? monotoneCurve(all) : null;
  return all.flatMap((to, i): Row[] => {
    const from = all[i - 1];
    if (!from) return [to];
    // Upright and straight pieces need no points between.
    const parts = at && to[0] > from[0] ? steps : 1;
    return shares(parts)
      .slice(1)
      .map((share) => {
        const x = from[0] + share * (to[0] - from[0]);
        return share === 1 || !at ? to : [x, at(x)];
      });
  });
}
