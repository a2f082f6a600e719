// validation.ts — imported before anything that has a schema: the content security policy allows no code from strings,
// which the validator would otherwise try the moment a schema is made.
import { z } from 'zod';

z.config({ jitless: true });
