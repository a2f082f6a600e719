// set-unit.ts — every length restated in another unit, so that nothing changes its real size. Which numbers are lengths is what the
// schemas declare.
import { z } from 'zod';
import { asTyped } from '../../base/figures.ts';
import { withLengths } from '../../base/quantities.ts';
import { MM_PER_UNIT, UNITS } from '../../base/units.ts';
import { ProjectSchema } from '../schema.ts';
import type { CommandKind } from './kind.ts';

const schema = z.object({ do: z.literal('set-unit'), unit: z.enum(UNITS) });

export const setUnit = {
  do: 'set-unit',
  schema,
  apply(project, { unit }) {
    if (unit === project.unit) return project;
    const factor = MM_PER_UNIT[project.unit] / MM_PER_UNIT[unit];
    const restated = withLengths(ProjectSchema, project, (length) => asTyped(length * factor));
    return { ...restated, unit };
  },
} as const satisfies CommandKind<z.infer<typeof schema>>;
