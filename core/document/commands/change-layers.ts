// change-layers.ts — settings of some layers; what is not named stays. Of a build's settings each layer takes those it has.
import { z } from 'zod';
import { BuildChangeSchema, buildKind } from '../../builds/index.ts';
import { MaterialSchema } from '../../materials/schema.ts';
import { type Layer, LayerSchema, ShadingSchema } from '../schema.ts';
import { type CommandKind, layerOf } from './kind.ts';

const LayerChangeSchema = LayerSchema.omit({ id: true, source: true, members: true })
  .extend({ build: BuildChangeSchema, shading: ShadingSchema.partial(), material: MaterialSchema.partial() })
  .partial();

export type LayerChange = z.infer<typeof LayerChangeSchema>;

const schema = z.object({ do: z.literal('change-layers'), layers: z.array(z.string()), change: LayerChangeSchema });

export const changeLayers = {
  do: 'change-layers',
  schema,
  apply(project, { layers, change }) {
    const ids = new Set(layers.map((id) => layerOf(project, id).id));
    return { ...project, layers: project.layers.map((layer) => (ids.has(layer.id) ? changed(layer, change) : layer)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

function changed(layer: Layer, { build, shading, material, ...change }: LayerChange): Layer {
  const has = build && buildKind(layer.build.kind).change.shape;
  const own = Object.entries(build ?? {}).filter(([setting]) => has && setting in has);
  return {
    ...layer,
    ...change,
    ...(own.length > 0 ? { build: merged(layer.build, Object.fromEntries(own)) } : {}),
    ...(shading ? { shading: { ...layer.shading, ...shading } } : {}),
    ...(material ? { material: { ...layer.material, ...material } } : {}),
  };
}

/** Settings of settings are changed one by one; everything else is replaced. */
function merged<T extends object>(settings: T, change: Record<string, unknown>): T {
  const next = { ...settings } as Record<string, unknown>;
  for (const [name, value] of Object.entries(change)) {
    const before = next[name];
    next[name] = isRecord(before) && isRecord(value) ? merged(before, value) : value;
  }
  return next as T;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
