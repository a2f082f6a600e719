// check.ts — the list of what would trouble a build, before it is built.
import type { Drawing } from '../drawing.ts';
import { gaps, open, points, strays } from './ends.ts';
import { crossings, duplicates, nesting, overlaps } from './fills.ts';
import type { Finding } from './finding.ts';
import { dust, ground, lettering, pale, tiny, unfilled } from './looks.ts';
import { subjectOf } from './subject.ts';

const CHECKS = [
  gaps,
  open,
  crossings,
  nesting,
  duplicates,
  overlaps,
  points,
  strays,
  dust,
  tiny,
  lettering,
  unfilled,
  pale,
  ground,
];

/**
 * @param ignored shapes that are switched off and trouble nobody
 * @param report is called with the share done
 */
export function checkOutlines(
  drawing: Drawing,
  ignored: ReadonlySet<string> = new Set(),
  report: (share: number) => void = () => {},
): Finding[] {
  const subject = subjectOf({ ...drawing, shapes: drawing.shapes.filter(({ id }) => !ignored.has(id)) });
  return CHECKS.flatMap((check, i) => {
    report((i + 1) / CHECKS.length);
    return check(subject);
  });
}
