// commands.ts — every change to a project, as plain data applied by a pure function. The interface, tests and scripts
// all speak these.
import { z } from 'zod';
import { GeometryError } from '../base/errors.ts';
import { MM_PER_UNIT, UNITS } from '../base/units.ts';
import {
  DrawnProfileSchema,
  EdgeSchema,
  type EdgeShape,
  type Layer,
  LayerSchema,
  LIMITS,
  MaterialSchema,
  type Project,
  ProjectSchema,
  ShadingSchema,
  SourceSchema,
  VectorSourceSchema,
} from './schema.ts';

const LayerChangeSchema = LayerSchema.omit({ id: true, source: true, members: true })
  .extend({ edge: EdgeSchema.partial(), shading: ShadingSchema.partial(), material: MaterialSchema.partial() })
  .partial();

export type LayerChange = z.infer<typeof LayerChangeSchema>;

export const CommandSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('rename-project'), name: ProjectSchema.shape.name }),
  z.object({ do: z.literal('set-unit'), unit: z.enum(UNITS) }),
  z.object({ do: z.literal('set-tolerance'), tolerance: ProjectSchema.shape.tolerance }),
  z.object({
    do: z.literal('add-source'),
    source: SourceSchema,
    layers: z.array(LayerSchema),
    /** For the first source, by the size of which it follows. */
    tolerance: ProjectSchema.shape.tolerance.optional(),
  }),
  z.object({ do: z.literal('remove-source'), source: z.string() }),
  z.object({ do: z.literal('scale-source'), source: z.string(), scale: VectorSourceSchema.shape.scale }),
  /** A source with other settings, edits or another file, and its layers as they follow from that; new ones go on top. */
  z.object({
    do: z.literal('change-source'),
    source: SourceSchema,
    layers: z.array(LayerSchema),
    /** Layers that nothing is left of. */
    gone: z.array(z.string()).optional(),
  }),
  /** A drawn profile, in place of the one of that name, or of `was` and then under a new name everywhere. */
  z.object({ do: z.literal('save-profile'), profile: DrawnProfileSchema, was: z.string().optional() }),
  /** Edges that have it are chamfered from then on. */
  z.object({ do: z.literal('remove-profile'), name: z.string() }),
  z.object({ do: z.literal('change-layers'), layers: z.array(z.string()), change: LayerChangeSchema }),
  z.object({ do: z.literal('move-layer'), layer: z.string(), to: z.int().min(0) }),
  z.object({ do: z.literal('remove-layer'), layer: z.string() }),
]);

export type Command = z.infer<typeof CommandSchema>;

/**
 * The project after `command`; `project` is not modified and unchanged parts are shared.
 * @throws {GeometryError} 'unknown-id' when the command names a layer or source that is not there, 'out-of-range' when
 * the result would not be a valid project
 */
export function applyCommand(project: Project, command: Command): Project {
  const { sources, layers, ...rest } = changed(project, command);
  return {
    ...checked(FrameSchema, rest),
    sources: checkedList(SourceSchema, sources, project.sources, LIMITS.sources, 'sources'),
    layers: checkedList(LayerSchema, layers, project.layers, LIMITS.layers, 'layers'),
  };
}

/** A project without its lists. */
const FrameSchema = ProjectSchema.omit({ sources: true, layers: true });

/** Only members that are new are looked at, and those that are not stay the very same objects. */
function checkedList<T>(schema: z.ZodType<T>, list: T[], before: readonly T[], most: number, what: string): T[] {
  if (list.length > most) {
    throw new GeometryError('out-of-range', `The change was not made: a project holds at most ${most} ${what}.`);
  }
  const known = new Set(before);
  return list.every((member, i) => member === before[i]) && list.length === before.length
    ? (before as T[])
    : list.map((member) => (known.has(member) ? member : checked(schema, member)));
}

function checked<T>(schema: z.ZodType<T>, value: T): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  throw new GeometryError('out-of-range', `The change was not made: ${issue.path.join('.')}: ${issue.message}.`);
}

function changed(project: Project, command: Command): Project {
  switch (command.do) {
    case 'rename-project':
      return { ...project, name: command.name };
    case 'set-unit':
      return inUnit(project, command.unit);
    case 'set-tolerance':
      return { ...project, tolerance: command.tolerance };
    case 'add-source':
      return {
        ...project,
        tolerance: command.tolerance ?? project.tolerance,
        sources: [...project.sources, command.source],
        layers: [...project.layers, ...command.layers],
      };
    case 'remove-source':
      sourceOf(project, command.source);
      return {
        ...project,
        sources: project.sources.filter((source) => source.id !== command.source),
        layers: project.layers.filter((layer) => layer.source !== command.source),
      };
    case 'scale-source':
      sourceOf(project, command.source);
      return {
        ...project,
        sources: project.sources.map((source) =>
          source.id === command.source ? { ...source, scale: command.scale } : source,
        ),
      };
    case 'change-source': {
      sourceOf(project, command.source.id);
      const known = new Set(project.layers.map((layer) => layer.id));
      const gone = new Set(command.gone ?? []);
      const next = new Map(command.layers.map((layer) => [layer.id, layer]));
      return {
        ...project,
        sources: project.sources.map((source) => (source.id === command.source.id ? command.source : source)),
        layers: [
          ...project.layers.flatMap((layer) => (gone.has(layer.id) ? [] : (next.get(layer.id) ?? layer))),
          ...command.layers.filter((layer) => !known.has(layer.id)),
        ],
      };
    }
    case 'save-profile': {
      const { profile, was = profile.name } = command;
      if (profile.name !== was && project.profiles.some(({ name }) => name === profile.name)) {
        throw new GeometryError('out-of-range', `There is a profile called “${profile.name}” already.`);
      }
      const isKnown = project.profiles.some(({ name }) => name === was);
      return {
        ...withProfile(project, was, { drawn: profile.name }),
        profiles: isKnown
          ? project.profiles.map((known) => (known.name === was ? profile : known))
          : [...project.profiles, profile],
      };
    }
    case 'remove-profile':
      return {
        ...withProfile(project, command.name, 'chamfer'),
        profiles: project.profiles.filter(({ name }) => name !== command.name),
      };
    case 'change-layers': {
      const ids = new Set(command.layers.map((id) => layerOf(project, id).id));
      return {
        ...project,
        layers: project.layers.map((layer) => (ids.has(layer.id) ? changeLayer(layer, command.change) : layer)),
      };
    }
    case 'move-layer': {
      const layer = layerOf(project, command.layer);
      const others = project.layers.filter((other) => other !== layer);
      return { ...project, layers: [...others.slice(0, command.to), layer, ...others.slice(command.to)] };
    }
    case 'remove-layer': {
      const layer = layerOf(project, command.layer);
      return { ...project, layers: project.layers.filter((other) => other !== layer) };
    }
  }
}

function changeLayer(layer: Layer, { edge, shading, material, ...change }: LayerChange): Layer {
  return {
    ...layer,
    ...change,
    edge: { ...layer.edge, ...edge },
    shading: { ...layer.shading, ...shading },
    material: { ...layer.material, ...material },
  };
}

/** The project with another profile wherever edges have the drawn one of this name. */
function withProfile(project: Project, drawn: string, profile: EdgeShape['profile']): Project {
  const isIt = (shape: EdgeShape | null) => typeof shape?.profile === 'object' && shape.profile.drawn === drawn;
  return {
    ...project,
    layers: project.layers.map((layer) =>
      isIt(layer.edge) || isIt(layer.backEdge)
        ? {
            ...layer,
            edge: isIt(layer.edge) ? { ...layer.edge, profile } : layer.edge,
            backEdge: layer.backEdge && isIt(layer.backEdge) ? { ...layer.backEdge, profile } : layer.backEdge,
          }
        : layer,
    ),
  };
}

/** Every length restated in another unit, so that nothing changes its real size. */
function inUnit(project: Project, unit: Project['unit']): Project {
  const factor = MM_PER_UNIT[project.unit] / MM_PER_UNIT[unit];
  const scaled = (v: number) => Number((v * factor).toPrecision(12));
  return {
    ...project,
    unit,
    tolerance: scaled(project.tolerance),
    sources: project.sources.map((source) => ({ ...source, scale: scaled(source.scale) })),
    layers: project.layers.map((layer) => ({
      ...layer,
      base: scaled(layer.base),
      depth: scaled(layer.depth),
      cell: scaled(layer.cell),
      tidy: layer.tidy && {
        ...layer.tidy,
        weld: scaled(layer.tidy.weld),
        straight: layer.tidy.straight < 0 ? layer.tidy.straight : scaled(layer.tidy.straight),
      },
      edge: { ...layer.edge, reach: scaled(layer.edge.reach), rise: scaled(layer.edge.rise) },
      backEdge: layer.backEdge && {
        ...layer.backEdge,
        reach: scaled(layer.backEdge.reach),
        rise: scaled(layer.backEdge.rise),
      },
    })),
  };
}

function layerOf(project: Project, id: string): Layer {
  const layer = project.layers.find((candidate) => candidate.id === id);
  if (!layer) throw new GeometryError('unknown-id', `There is no layer ${id} in this project.`);
  return layer;
}

function sourceOf(project: Project, id: string): void {
  if (!project.sources.some((source) => source.id === id)) {
    throw new GeometryError('unknown-id', `There is no source ${id} in this project.`);
  }
}
