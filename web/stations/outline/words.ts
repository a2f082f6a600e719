// words.ts — findings and edits in words, with their numbers in the project's unit.
import { type EditAction, type Finding, type FindingKind, MOST_OVERLAPS } from '../../../core/index.ts';
import { formatNumber } from '../../format.ts';

const NAMES: Record<FindingKind, readonly [one: string, many: string]> = {
  gap: ['gap between lines', 'gaps between lines'],
  open: ['outline left open', 'outlines left open'],
  crossing: ['outline crosses itself', 'outlines cross themselves'],
  nesting: ['hole that is filled', 'holes that are filled'],
  duplicate: ['shape that lies there twice', 'shapes that lie there twice'],
  overlap: ['overlap of one colour', 'overlaps of one colour'],
  point: ['point without length', 'points without length'],
  stray: ['line that stands alone', 'lines that stand alone'],
  dust: ['speck too small to be built', 'specks too small to be built'],
  tiny: ['tiny piece', 'tiny pieces'],
  lettering: ['row of letters', 'rows of letters'],
  unfilled: ['closed line without a fill', 'closed lines without a fill'],
  pale: ['white shape on white', 'white shapes on white'],
  ground: ['shape that looks like a ground', 'shapes that look like a ground'],
};

const MENDS: Record<FindingKind, string> = {
  gap: 'close',
  open: 'close',
  crossing: 'untangle',
  nesting: 'open',
  duplicate: 'remove',
  overlap: 'unite',
  point: 'remove',
  stray: 'remove',
  dust: 'remove',
  tiny: 'remove',
  lettering: 'remove',
  unfilled: 'fill',
  pale: '',
  ground: 'remove',
};

/** “3 gaps between lines, up to 0.4 mm”. @param scale project units in a user unit of the source */
export function wordsOf({ kind, places, sizes }: Finding, scale: number, unit: string): string {
  const [one, many] = NAMES[kind];
  const size =
    kind === 'gap' || kind === 'open'
      ? `, up to ${formatNumber(sizes.reduce((most, v) => Math.max(most, v), 0) * scale)} ${unit}`
      : '';
  const least = kind === 'overlap' && places.length === MOST_OVERLAPS ? 'at least ' : '';
  return `${least}${places.length} ${places.length === 1 ? one : many}${size}`;
}

export const mendWord = ({ kind }: Finding): string => MENDS[kind];

const ACTIONS: Record<EditAction['do'], string> = {
  remove: 'Remove',
  restyle: 'Restyle',
  path: 'Points',
  draw: 'Draw',
  move: 'Place',
  copy: 'Copy',
  order: 'Order',
  combine: 'Combine',
  merge: 'Unite overlaps',
  unite: 'Untangle',
  outline: 'Outline strokes',
  grow: 'Grow',
  close: 'Close gaps',
  faces: 'Fill faces',
  split: 'Split',
  separate: 'Separate',
  simplify: 'Simplify',
  walls: 'Walls',
};
const COMBINED = { union: 'Unite', subtract: 'Cut', intersect: 'Intersect', exclude: 'Exclude' } as const;

export function nameOf(action: EditAction): string {
  if (action.do === 'combine') return COMBINED[action.how];
  if (action.do === 'grow' && action.by < 0) return 'Shrink';
  return ACTIONS[action.do];
}
