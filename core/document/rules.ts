// rules.ts — values of many layers computed from something they have. Nothing can be set yet.
import { z } from 'zod';

export const RulesSchema = z.array(z.strictObject({})).max(0);
