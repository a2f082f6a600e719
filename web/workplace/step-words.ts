// step-words.ts — a step of the work in words: what is different from one document to the next.
import { heightOf, type Layer, type Project, type Source } from '../../core/index.ts';
import { countOf } from '../format.ts';
import { nameOf } from '../stations/outline/words.ts';

/** “Depth of Night”, “3 layers added”, “hall.dxf: Close gaps”. */
export function stepWords(before: Project, after: Project): string {
  // A unit restates every length.
  if (after.unit !== before.unit) return `Unit: ${after.unit}`;
  const sources = compared(before.sources, after.sources);
  const [came] = sources.added;
  if (came) return `${came.name} brought in`;
  const [went] = sources.removed;
  if (went) return `${went.name} taken out`;
  const [changed] = sources.changed;
  if (changed) return `${changed[1].name}: ${sourceWords(...changed)}`;
  if (after.name !== before.name) return `Renamed to ${after.name}`;
  return (
    groupWords(before, after) ??
    layerWords(before, after) ??
    (after.tolerance !== before.tolerance ? 'Tolerance of curves' : 'Drawn profiles')
  );
}

interface Compared<T> {
  readonly added: readonly T[];
  readonly removed: readonly T[];
  readonly changed: readonly (readonly [before: T, after: T])[];
}

function compared<T extends { readonly id: string }>(before: readonly T[], after: readonly T[]): Compared<T> {
  const [was, is] = [before, after].map((list) => new Map(list.map((each) => [each.id, each]))) as [
    Map<string, T>,
    Map<string, T>,
  ];
  return {
    added: after.filter(({ id }) => !was.has(id)),
    removed: before.filter(({ id }) => !is.has(id)),
    changed: after.flatMap((each) => {
      const old = was.get(each.id);
      return old && old !== each ? [[old, each] as const] : [];
    }),
  };
}

function sourceWords(before: Source, after: Source): string {
  const { added, removed, changed } = compared(before.edits, after.edits);
  if (added.length > 0) return nameOf(added[0]!.action);
  if (removed.length > 0) return `without “${nameOf(removed[0]!.action)}”`;
  const [edit] = changed;
  if (edit) {
    const [was, is] = edit;
    return `${nameOf(is.action)}${is.on === was.on ? '' : is.on ? ' on' : ' off'}`;
  }
  if (before.kind === 'picture' && after.kind === 'picture') {
    if (before.asset !== after.asset) return 'another picture';
    if (before.prepare !== after.prepare) return 'preparation';
    if (before.trace !== after.trace) return 'trace';
  }
  if (before.scale !== after.scale) return 'size';
  return before.kind === 'lettering' ? 'lettering' : 'changed';
}

function groupWords(before: Project, after: Project): string | null {
  if (before.groups === after.groups) return null;
  const { added, removed, changed } = compared(before.groups ?? [], after.groups ?? []);
  // A group whose last layer was removed went with it.
  if (before.layers.length > after.layers.length) return null;
  if (added[0]) return `${added[0].name} grouped`;
  if (removed[0]) return `${removed[0].name} ungrouped`;
  const [was, is] = changed[0] ?? [];
  if (!was || !is) return null;
  if (was.name !== is.name) return `Name of ${is.name}`;
  return was.placement === is.placement ? 'Order of the layers' : `Placement of ${is.name}`;
}

/** What can be told of a layer, as it is spoken of. */
const PARTS: readonly (readonly [words: string, part: (layer: Layer) => unknown])[] = [
  ['Name', ({ name }) => name],
  ['Depth', ({ build }) => heightOf(build)],
  ['Base', ({ base }) => base],
  ['Edge', ({ build }) => build.kind === 'slab' && JSON.stringify([build.edge, build.backEdge])],
  ['Faces', ({ build }) => build.kind === 'slab' && `${build.caps} ${build.faces} ${build.cell} ${build.wallRows}`],
  ['Material', ({ material }) => material],
  ['Shading', ({ shading }) => shading],
  ['UV layout', ({ uv }) => uv],
  ['Tidying', ({ tidy }) => tidy],
  ['Marked edges', ({ marks }) => marks],
  ['Placement', ({ placement }) => placement],
  ['Size', ({ scale }) => scale],
  ['Group', ({ group }) => group],
  ['Lock', ({ locked }) => locked ?? false],
  ['Shapes', ({ members }) => members],
  ['Shapes', ({ skipped }) => skipped],
];

function layerWords(before: Project, after: Project): string | null {
  const { added, removed, changed } = compared(before.layers, after.layers);
  if (added.length > 0) return `${layersOf(added)} added`;
  if (removed.length > 0) return `${layersOf(removed)} removed`;
  const [first] = changed;
  if (!first) return after.layers.some((layer, i) => layer !== before.layers[i]) ? 'Order of the layers' : null;
  const [was, is] = first;
  const which = layersOf(changed.map(([, layer]) => layer));
  if (was.shown !== is.shown) return `${which} ${is.shown ? 'built' : 'left out'}`;
  const part = PARTS.find(([, of]) => of(was) !== of(is));
  return `${part?.[0] ?? 'Settings'} of ${which}`;
}

const layersOf = (layers: readonly Layer[]) =>
  layers.length === 1 ? layers[0]!.name : countOf(layers.length, 'layer');
