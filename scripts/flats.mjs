// flats.mjs — `npm run flats`: builds what is missing and runs the built measurement.
import { ensureBuilt, ensureSets } from './setup.mjs';

await ensureBuilt();
ensureSets();
await import('../dist/node/flats.js');
