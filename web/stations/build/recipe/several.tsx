// several.tsx — what is said when several layers are changed at once.
import { heightOf, type Layer } from '../../../../core/index.ts';
import { Note } from '../../../controls/Panel.tsx';

/** The parts of a recipe, as they are spoken of. */
const PARTS: readonly (readonly [words: string, part: (layer: Layer) => unknown])[] = [
  ['depth', ({ build }) => heightOf(build)],
  ['base', ({ base }) => base],
  ['edge', ({ build }) => build.kind === 'slab' && [build.edge, build.backEdge]],
  ['faces', ({ build }) => build.kind === 'slab' && [build.caps, build.faces, build.cell, build.wallRows]],
  ['material', ({ material }) => material],
  ['shading', ({ shading }) => shading],
  ['pictures', ({ uv }) => uv],
  ['tidying', ({ tidy }) => tidy],
];

/** Whose values are shown, in what the others differ, and that a change goes to all. */
export function SeveralNote({ layers }: { layers: readonly [Layer, ...Layer[]] }) {
  const [first, ...others] = layers;
  const differing = PARTS.flatMap(([words, part]) => {
    const shown = JSON.stringify(part(first));
    return others.some((other) => JSON.stringify(part(other)) !== shown) ? [words] : [];
  });
  const who = others.length === 1 ? others[0]!.name : 'the others';
  const verb = others.length === 1 ? 'differs' : 'differ';
  return (
    <Note>
      {differing.length === 0
        ? `All ${layers.length} are built alike.`
        : `Values are those of ${first.name}; ${who} ${verb} in ${LIST.format(differing)}.`}{' '}
      What is changed here is changed in all.
    </Note>
  );
}

const LIST = new Intl.ListFormat('en-GB');
