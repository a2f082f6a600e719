// assets.ts — bytes that a project is made from, named by what they are.
import { z } from 'zod';

/** SHA-256, hex. */
export const AssetSchema = z.string().regex(/^[0-9a-f]{64}$/);
