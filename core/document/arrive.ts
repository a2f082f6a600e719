// arrive.ts — what was brought in becomes a source and layers of a project.
import type { Warning } from '../base/errors.ts';
import { uniqueName } from '../base/names.ts';
import { type Build, buildKind } from '../builds/index.ts';
import type { Edge, EdgeShape } from '../builds/slab/schema.ts';
import type { Drawing, LeftOut } from '../drawing.ts';
import { ONLY_WELDED } from '../mesh/tidy/tidy.ts';
import type { Region } from '../outline/types.ts';
import { arrange } from '../sources/arrange.ts';
import { type Source, type SourceKindName, sourceKind } from '../sources/index.ts';
import type { Arrangement, ArriveOptions, Proposal, Report, Stages } from '../sources/kind.ts';
import { openerOf } from '../sources/openers.ts';
import type { Group } from './groups.ts';
import { FINISH_DEFAULTS, type Layer, LIMITS } from './schema.ts';

/** What layers are to be like where something else is wished for than what suits them. */
export interface LayerWishes extends Omit<ArriveOptions, 'wantsReach'> {
  readonly build?: BuildWishes | undefined;
  readonly finish?: Partial<Pick<Layer, keyof typeof FINISH_DEFAULTS>> | undefined;
  readonly newId: () => string;
  /** Names that layers may not take. */
  readonly takenNames?: Iterable<string> | undefined;
}

/** Settings that take the place of those a build starts with; `edge` spares looking for one that suits. */
export interface BuildWishes {
  readonly edge?: Edge;
  readonly backEdge?: EdgeShape | null;
  readonly [setting: string]: unknown;
}

/** What came of a file, or of a text, before it is in the project. */
export interface Arrival {
  readonly source: Source;
  readonly layers: readonly Layer[];
  /** That they are in. */
  readonly groups: readonly Group[];
  readonly warnings: readonly Warning[];
  readonly leftOut: readonly LeftOut[];
  /** Longest side of what is built, in project units. */
  readonly size: number;
  /** Outlines of the layers, where they were found on the way. */
  readonly outlines?: readonly (readonly Region[])[] | undefined;
}

/** What of a source is known before it lies on the sheet, as its kind takes it. */
export interface Origin {
  readonly id: string;
  readonly name: string;
  readonly [field: string]: unknown;
}

/**
 * @param content as the kind opens it
 * @throws {GeometryError} 'nothing-to-build'
 */
export function arrive(
  kind: SourceKindName,
  origin: Origin,
  content: unknown,
  stages: Stages,
  wishes: LayerWishes,
  report?: Report,
): Arrival {
  const arrived = openerOf(kind).arrive(origin, content, stages, optionsOf(wishes), report);
  const { source, leftOut, size, outlines } = arrived;
  const proposals = arrived.proposals.slice(0, LIMITS.layers);
  const left = arrived.proposals.length - proposals.length;
  const warnings =
    left > 0
      ? [...arrived.warnings, { code: 'layers', message: `${left} layers more than ${LIMITS.layers} were left out.` }]
      : arrived.warnings;
  const layers = layersOf({ proposals, size }, source.id, sourceKind(kind).build, wishes);
  return { source, warnings, leftOut, size, outlines, ...grouped(layers, proposals, wishes.newId) };
}

export interface ArrangedLayers extends Omit<Arrangement, 'proposals'> {
  readonly layers: readonly Layer[];
}

/** Layers for the shapes of a drawing that is known. @throws {GeometryError} 'nothing-to-build' when no shape has area */
export function arrangeLayers(drawing: Drawing, source: string, wishes: LayerWishes): ArrangedLayers {
  const { proposals, ...arranged } = arrange(drawing, optionsOf(wishes));
  return { ...arranged, layers: layersOf({ proposals, size: arranged.size }, source, 'slab', wishes) };
}

const optionsOf = (wishes: LayerWishes): ArriveOptions => ({ ...wishes, wantsReach: wishes.build?.edge === undefined });

function layersOf(
  { proposals, size }: Pick<Arrangement, 'proposals' | 'size'>,
  source: string,
  build: Build['kind'],
  { build: wished = {}, finish, newId, takenNames }: LayerWishes,
): Layer[] {
  const names = new Set(takenNames ?? []);
  const kind = buildKind(build);
  return proposals.slice(0, LIMITS.layers).map((proposed: Proposal): Layer => {
    const { depth, reach, name, members, groups: _, ...proposal } = proposed;
    return {
      id: newId(),
      name: uniqueName(name, names),
      source,
      members: [...members],
      skipped: [],
      ...proposal,
      build: { ...kind.start({ depth, reach, size }), ...wished } as Build,
      ...FINISH_DEFAULTS,
      // Points in one place are one: files of meshes repeat them wherever light changes.
      ...(kind.from === 'meshes' ? { tidy: ONLY_WELDED } : {}),
      ...finish,
    };
  });
}

/** Layers in the groups that were proposed for them: of groups with one layer only that layer remains. */
function grouped(
  layers: readonly Layer[],
  proposals: readonly Proposal[],
  newId: () => string,
): { layers: Layer[]; groups: Group[] } {
  const chainsOf = proposals.map(({ groups = [] }) =>
    groups.map((_, depth) => JSON.stringify(groups.slice(0, depth + 1))),
  );
  const sizes = new Map<string, number>();
  for (const chain of chainsOf) for (const key of chain) sizes.set(key, (sizes.get(key) ?? 0) + 1);
  const groups = new Map<string, Group>();
  const inGroups = layers.map((layer, i): Layer => {
    let within: Group | undefined;
    for (const [depth, key] of chainsOf[i]!.entries()) {
      // A group around just what the one in it holds tells nothing apart.
      const inner = chainsOf[i]![depth + 1];
      if (sizes.get(key) === 1 || (inner !== undefined && sizes.get(inner) === sizes.get(key))) continue;
      const known = groups.get(key);
      const name = proposals[i]!.groups![depth]!;
      within = known ?? { id: newId(), name, ...(within ? { within: within.id } : {}) };
      groups.set(key, within);
    }
    return within ? { ...layer, group: within.id } : layer;
  });
  return { layers: inGroups, groups: [...groups.values()] };
}
