// bench.mjs — `npm run bench`: builds what is missing and runs the built comparison, so that nothing but the code is timed; then
// openings and drags in the browser.
import { withPage } from './browser.mjs';
import { ensureBuilt, ensureSets } from './setup.mjs';

await ensureBuilt();
ensureSets();
await import('../dist/node/bench.js');
const { timeOpenings } = await import('../dist/node/openings.js');
const { timeDrags } = await import('../dist/node/drags.js');
await withPage(timeOpenings);
await withPage(timeDrags);
