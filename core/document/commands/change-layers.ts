// change-layers.ts — settings of some layers; what is not named stays. Of a build's settings each layer takes those it has.
import { z } from 'zod';
import { BuildChangeSchema, buildKind } from '../../builds/index.ts';
import { MaterialSchema } from '../../materials/schema.ts';
import { type Layer, LayerSchema, ShadingSchema, TidySchema } from '../schema.ts';
import { type CommandKind, layerOf, unlockedLayerOf } from './kind.ts';

const LayerChangeSchema = LayerSchema.omit({ id: true, source: true, members: true, placement: true, group: true })
  .extend({
    build: BuildChangeSchema,
    shading: ShadingSchema.partial(),
    material: MaterialSchema.partial(),
    tidy: z.nullable(TidySchema.partial()),
  })
  .partial();

export type LayerChange = z.infer<typeof LayerChangeSchema>;

const schema = z.object({ do: z.literal('change-layers'), layers: z.array(z.string()), change: LayerChangeSchema });

export const changeLayers = {
  do: 'change-layers',
  schema,
  apply(project, { layers, change }) {
    // What is locked can only be unlocked.
    const find = change.locked === undefined ? unlockedLayerOf : layerOf;
    const ids = new Set(layers.map((id) => find(project, id).id));
    return { ...project, layers: project.layers.map((layer) => (ids.has(layer.id) ? changed(layer, change) : layer)) };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

function changed(layer: Layer, { build, shading, material, tidy, ...change }: LayerChange): Layer {
  const kind = buildKind(layer.build.kind);
  const own = Object.entries(build ?? {}).filter(([setting]) => setting in kind.change.shape);
  return {
    ...layer,
    ...change,
    ...(own.length > 0 ? { build: kind.changed(layer.build, Object.fromEntries(own)) } : {}),
    ...(shading ? { shading: { ...layer.shading, ...shading } } : {}),
    ...(material ? { material: { ...layer.material, ...material } } : {}),
    ...(tidy === undefined ? {} : { tidy: tidied(layer.tidy, tidy) }),
  };
}

/** A layer that is not tidied is from then on only where the change says all there is to say. */
function tidied(before: Layer['tidy'], change: NonNullable<LayerChange['tidy']> | null): Layer['tidy'] {
  if (change === null) return null;
  if (before) return { ...before, ...change };
  const whole = TidySchema.safeParse(change);
  return whole.success ? whole.data : null;
}
