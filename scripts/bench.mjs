// bench.mjs — `npm run bench`: builds what is missing and runs the built comparison, so that nothing but the code is timed.
import { ensureBuilt } from './setup.mjs';

await ensureBuilt();
await import('../dist/node/bench.js');
