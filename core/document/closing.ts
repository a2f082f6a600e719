// closing.ts — what makes a layer that is open closed.
import { ONLY_WELDED } from '../mesh/tidy/tidy.ts';
import type { LayerChange } from './commands/change-layers.ts';
import type { Layer } from './schema.ts';

/** Whether its recipe leaves a side off; what is open all the same came open. */
export const isLeftOpen = ({ build }: Layer): boolean => 'caps' in build && build.caps !== 'both';

/** The sides that the recipe leaves off come back; else open rims get flat caps. */
export const closingOf = (layer: Layer): LayerChange =>
  isLeftOpen(layer) ? { build: { caps: 'both' } } : { tidy: { ...(layer.tidy ?? ONLY_WELDED), close: true } };
