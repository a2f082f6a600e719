// schema.ts — how things move: keys, moves, the length of the loop. Nothing can be set yet.
import { z } from 'zod';

export const MotionSchema = z.strictObject({});
