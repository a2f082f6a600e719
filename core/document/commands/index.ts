// index.ts — every kind of command, and applying one. The interface, tests and scripts all speak these.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { kindNamed, schemasOf } from '../../base/kinds.ts';
import { sourceKind } from '../../sources/index.ts';
import { settled } from '../groups.ts';
import { type Layer, LayerSchema, LIMITS, type Project, ProjectSchema } from '../schema.ts';
import { addSource } from './add-source.ts';
import { changeLayers } from './change-layers.ts';
import { changeSource } from './change-source.ts';
import { copyLayer } from './copy-layer.ts';
import { followRule } from './follow-rule.ts';
import { group } from './group.ts';
import type { CommandKind } from './kind.ts';
import { markEdges } from './mark-edges.ts';
import { paint } from './paint.ts';
import { place } from './place.ts';
import { removeLayer } from './remove-layer.ts';
import { removeProfile } from './remove-profile.ts';
import { removeRule } from './remove-rule.ts';
import { removeSource } from './remove-source.ts';
import { renameGroup } from './rename-group.ts';
import { renameProject } from './rename-project.ts';
import { renewRule } from './renew-rule.ts';
import { reorder } from './reorder.ts';
import { resize } from './resize.ts';
import { saveProfile } from './save-profile.ts';
import { scaleSource } from './scale-source.ts';
import { setBases } from './set-bases.ts';
import { setRule } from './set-rule.ts';
import { setTolerance } from './set-tolerance.ts';
import { setUnit } from './set-unit.ts';
import { splitLayer } from './split-layer.ts';
import { ungroup } from './ungroup.ts';

export const COMMAND_KINDS = [
  renameProject,
  setUnit,
  setTolerance,
  addSource,
  removeSource,
  scaleSource,
  changeSource,
  saveProfile,
  removeProfile,
  changeLayers,
  copyLayer,
  splitLayer,
  reorder,
  removeLayer,
  setBases,
  setRule,
  followRule,
  renewRule,
  removeRule,
  group,
  renameGroup,
  ungroup,
  place,
  resize,
  paint,
  markEdges,
] as const;

export const CommandSchema = z.discriminatedUnion('do', schemasOf(COMMAND_KINDS));
export type Command = z.infer<typeof CommandSchema>;

/**
 * The project after `command`; `project` is not modified and unchanged parts are shared.
 * @throws {GeometryError} 'unknown-id' when the command names a layer or source that is not there, 'out-of-range' when
 * the result would not be a valid project
 */
export function applyCommand(project: Project, command: Command): Project {
  const kind = kindNamed<CommandKind<Command>>(COMMAND_KINDS, 'do', command.do);
  const { sources, layers, ...frame } = settled<Project, Layer>(kind.apply(project, command));
  return {
    ...checked(FrameSchema, frame, project),
    sources: checkedList(({ kind: of }) => sourceKind(of).schema, sources, project.sources, LIMITS.sources, 'sources'),
    layers: checkedList(() => LayerSchema, layers, project.layers, LIMITS.layers, 'layers'),
  };
}

/** A project without its lists. */
const FrameSchema = ProjectSchema.omit({ sources: true, layers: true });

function checkedList<T extends { readonly id: string }>(
  schemaOf: (member: T) => z.ZodType,
  list: T[],
  before: readonly T[],
  most: number,
  what: string,
): T[] {
  if (list.length > most) {
    throw new GeometryError('out-of-range', `The change was not made: a project holds at most ${most} ${what}.`);
  }
  if (list.length === before.length && list.every((member, i) => member === before[i])) return before as T[];
  const known = new Map(before.map((member) => [member.id, member]));
  return list.map((member) => {
    const was = known.get(member.id);
    return member === was ? member : checked(schemaOf(member) as z.ZodObject, member, was);
  });
}

/** Only fields that are new are looked at, and those that are not stay the very same objects: lists of members can be long. */
function checked<T extends object>(schema: z.ZodObject, value: T, before: object | undefined): T {
  const result: Record<string, unknown> = {};
  for (const [field, part] of Object.entries(schema.shape)) {
    const [next, was] = [value[field as keyof T], before?.[field as keyof typeof before]];
    if (next === undefined ? part.safeParse(next).success : before && Object.is(next, was)) {
      if (next !== undefined) result[field] = next;
      continue;
    }
    const parsed = part.safeParse(next);
    if (!parsed.success) {
      const issue = parsed.error.issues[0]!;
      const path = [field, ...issue.path].join('.');
      throw new GeometryError('out-of-range', `The change was not made: ${path}: ${issue.message}.`);
    }
    result[field] = parsed.data;
  }
  return result as T;
}
