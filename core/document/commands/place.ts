// place.ts — where layers and groups stand. Nothing is built anew for it.
import { z } from 'zod';
import { PlacementSchema } from '../placement.ts';
import type { Project } from '../schema.ts';
import { type CommandKind, unlockedLayerOf } from './kind.ts';

const PlaceSchema = z.object({
  /** Of a layer or a group. */
  id: z.string(),
  /** Null for where it was drawn. */
  placement: z.nullable(PlacementSchema),
});
export type Place = z.infer<typeof PlaceSchema>;

const schema = z.object({ do: z.literal('place'), places: z.array(PlaceSchema) });

export const place = {
  do: 'place',
  schema,
  apply: (project, { places }) => withPlacements(project, places),
} as const satisfies CommandKind<z.infer<typeof schema>>;

/** @throws {GeometryError} 'unknown-id', 'locked' */
export function withPlacements(project: Project, places: readonly Place[]): Project {
  const wanted = new Map(places.map(({ id, placement }) => [id, placement]));
  const isGroup = (id: string) => project.groups?.some((group) => group.id === id);
  for (const id of wanted.keys()) if (!isGroup(id)) unlockedLayerOf(project, id);
  const placed = <T extends { readonly id: string; readonly placement?: unknown }>(thing: T): T => {
    if (!wanted.has(thing.id)) return thing;
    const { placement: _, ...rest } = thing;
    const placement = wanted.get(thing.id);
    return (placement ? { ...rest, placement } : rest) as T;
  };
  const { groups } = project;
  return { ...project, layers: project.layers.map(placed), ...(groups ? { groups: groups.map(placed) } : {}) };
}
