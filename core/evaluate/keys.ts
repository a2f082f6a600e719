// keys.ts — what results depend on, as short texts. Those of long lists and of sources are made once for each list and source that
// is the same object: unchanged parts of a document are.
import { hashOf } from '../base/hash.ts';
import { OfObject } from '../base/of-object.ts';
import { type Source, sourceKind } from '../sources/index.ts';
import { sizedFor } from '../sources/placing.ts';

/** Equal keys, equal lists. */
export const listKeys = new OfObject<readonly string[], string>((list) => hashOf(JSON.stringify(list)));

/** Keys of the drawing of a source before any edit, after the first that is on, after the second … */
export const editKeys = new OfObject<Source, readonly string[]>((source) => {
  const keys = [hashOf(`${source.kind} ${sourceKind(source.kind).drawingKey(source)}`)];
  for (const edit of source.edits) if (edit.on) keys.push(hashOf(`${keys.at(-1)}${JSON.stringify(edit)}`));
  return keys;
});

/** Equal keys, equal drawings. */
export const drawingKey = (source: Source): string => editKeys.get(source).at(-1)!;

/** Equal keys, equal shapes in equal places. */
export function membersKey(
  layer: {
    readonly members: readonly string[];
    readonly skipped: readonly string[];
    readonly scale?: number | undefined;
  },
  source: Source,
): string {
  const { members, skipped } = layer;
  const { scale, origin } = sizedFor(layer, source);
  return `${drawingKey(source)} ${scale} ${origin.join()} ${listKeys.get(members)} ${listKeys.get(skipped)}`;
}
