// openers.ts — how every kind of source is opened.
import { kindNamed } from '../base/kinds.ts';
import { drawingOpener } from './drawing/open.ts';
import type { Source, SourceKindName } from './index.ts';
import type { Opener } from './kind.ts';
import { letteringOpener } from './lettering/open.ts';
import { meshOpener } from './mesh/open.ts';
import { pictureOpener } from './picture/open.ts';
import { vectorOpener } from './vector/open.ts';

const OPENERS = [pictureOpener, meshOpener, letteringOpener, drawingOpener, vectorOpener] as const;

/** The opener of a kind. Sources go to the kind they name, so that each sees only its own. */
export function openerOf(kind: SourceKindName): Opener<Source, unknown, unknown> {
  return kindNamed(OPENERS, 'kind', kind);
}
