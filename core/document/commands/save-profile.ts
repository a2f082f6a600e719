// save-profile.ts — a drawn profile, in place of the one of that name, or of `was` and then under a new name everywhere.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { DrawnProfileSchema, type EdgeShape } from '../../builds/slab/schema.ts';
import { withProfile } from '../../builds/slab/slab.ts';
import type { Project } from '../schema.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('save-profile'), profile: DrawnProfileSchema, was: z.string().optional() });

export const saveProfile = {
  do: 'save-profile',
  schema,
  apply(project, { profile, was = profile.name }) {
    const isKnown = (name: string) => project.profiles.some((known) => known.name === name);
    if (profile.name !== was && isKnown(profile.name)) {
      throw new GeometryError('out-of-range', `There is a profile called “${profile.name}” already.`);
    }
    return {
      ...profileEverywhere(project, was, { drawn: profile.name }),
      profiles: isKnown(was)
        ? project.profiles.map((known) => (known.name === was ? profile : known))
        : [...project.profiles, profile],
    };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;

/** The project with another profile wherever edges have the drawn one of this name. */
export function profileEverywhere(project: Project, drawn: string, profile: EdgeShape['profile']): Project {
  return {
    ...project,
    layers: project.layers.map((layer) => {
      const build = layer.build.kind === 'slab' ? withProfile(layer.build, drawn, profile) : layer.build;
      return build === layer.build ? layer : { ...layer, build };
    }),
  };
}
