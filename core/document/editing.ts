// editing.ts — the edits of a source changed, and its layers as they follow: what an edit takes away leaves its layer, what
// it makes joins the layer of the shape it was made of.
import type { Drawing, Shape } from '../drawing.ts';
import type { Edit } from '../edits/schema.ts';
import type { Source } from '../sources/index.ts';
import { arrangeLayers, type LayerWishes } from './arrive.ts';
import type { Layer, Project } from './schema.ts';

export interface EditedSource {
  readonly source: Source;
  /** Those that changed and those that are new. */
  readonly layers: readonly Layer[];
  /** Ids of layers that nothing is left of. */
  readonly gone: readonly string[];
}

/**
 * @param before its drawing with the edits it has
 * @param after its drawing with `edits`
 * @param options for layers that have to be made
 * @param target layer for shapes that come from no other; null to give them a layer of their own
 */
export function changeEdits(
  project: Project,
  source: Source,
  edits: readonly Edit[],
  before: Drawing,
  after: Drawing,
  options: LayerWishes,
  target: string | null = null,
): EditedSource {
  const own = project.layers.filter((layer) => layer.source === source.id);
  const homes = new Map(own.flatMap((layer) => layer.members.map((member) => [member, layer.id] as const)));
  const now = new Set(after.shapes.map(({ id }) => id));
  const was = new Map(before.shapes.map((shape) => [shape.id, shape]));
  const lost = new Set(before.shapes.flatMap(({ id }) => (now.has(id) ? [] : [id])));
  const fresh = after.shapes.filter(({ id }) => !was.has(id));
  // Going back on an edit brings shapes again that others were made of: they go where those are.
  const heirs = new Map(before.shapes.flatMap(({ id, from }) => (from === undefined ? [] : [[from, id] as const])));
  const homeOf = (shape: Shape): string | undefined => {
    const kin = [shape.id, shape.from, heirs.get(shape.id)].flatMap((id) => (id ? (homes.get(id) ?? []) : []));
    const alike = own.find(({ material, ground }) => material.colour === shape.colour && !ground);
    return kin[0] ?? target ?? (was.size > 0 || shape.from ? alike?.id : undefined);
  };
  const joining = new Map<string, Shape[]>();
  const homeless: Shape[] = [];
  for (const shape of fresh) {
    const home = homeOf(shape);
    if (home === undefined) homeless.push(shape);
    else joining.set(home, [...(joining.get(home) ?? []), shape]);
    if (home !== undefined) homes.set(shape.id, home);
  }
  const changed = own.map((layer) => withMembers(layer, lost, joining.get(layer.id) ?? []));
  return {
    source: { ...source, edits: [...edits] },
    layers: [
      ...changed.filter((layer, i) => layer !== own[i] && layer.members.length > 0),
      ...newLayers(homeless, after, source, options),
    ],
    gone: changed.flatMap((layer, i) => (layer.members.length === 0 && own[i]!.members.length > 0 ? [layer.id] : [])),
  };
}

function withMembers(layer: Layer, lost: ReadonlySet<string>, joining: readonly Shape[]): Layer {
  const kept = layer.members.filter((member) => !lost.has(member));
  const known = new Set(kept);
  const added = joining.filter(({ id }) => !known.has(id));
  if (added.length === 0 && kept.length === layer.members.length) return layer;
  const members = [...kept];
  for (const { id, from } of added) {
    const place = from === undefined ? -1 : members.indexOf(from);
    members.splice(place < 0 ? members.length : place + 1, 0, id);
  }
  return { ...layer, members, skipped: layer.skipped.filter((member) => !lost.has(member)) };
}

/** Layers for shapes without one, as a drawing of them would be arranged on the sheet. */
function newLayers(homeless: readonly Shape[], after: Drawing, source: Source, options: LayerWishes): Layer[] {
  if (homeless.length === 0) return [];
  const drawing = { ...after, shapes: homeless, ground: [] };
  const { layers } = arrangeLayers(drawing, source.id, { ...options, placement: source });
  return [...layers];
}

/** Shapes moved from whatever layers of their source hold them into one. */
export function moveMembers(project: Project, shapes: readonly string[], target: string): Layer[] {
  const layer = project.layers.find(({ id }) => id === target);
  if (!layer) return [];
  const moved = new Set(shapes);
  return project.layers.flatMap((other) => {
    if (other.source !== layer.source) return [];
    if (other.id === target) {
      const known = new Set(other.members);
      return [{ ...other, members: [...other.members, ...shapes.filter((id) => !known.has(id))] }];
    }
    const members = other.members.filter((id) => !moved.has(id));
    return members.length < other.members.length
      ? [{ ...other, members, skipped: other.skipped.filter((id) => !moved.has(id)) }]
      : [];
  });
}

/** The small parts that an edit separated, taken out of their layers into layers of their own that are built alike. */
export function layersOfMarks(project: Project, source: string, edit: string, newId: () => string): Layer[] {
  return project.layers.flatMap((layer): Layer[] => {
    const marks = layer.source === source ? layer.members.filter((member) => member.endsWith(`/${edit}.1`)) : [];
    if (marks.length === 0) return [];
    const bodies = layer.members.filter((member) => !marks.includes(member));
    const name = `${layer.name} dots`.slice(0, 120);
    return [
      { ...layer, members: bodies },
      { ...layer, id: newId(), name, members: marks, skipped: [] },
    ];
  });
}
