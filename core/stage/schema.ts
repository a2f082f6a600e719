// schema.ts — the scene of a project: floor, lamps, surroundings, cameras. Nothing can be set yet.
import { z } from 'zod';

export const StageSchema = z.strictObject({});
