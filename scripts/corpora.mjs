// corpora.mjs — `npm run corpora`: builds what is missing and runs the built measurement.
import { ensureBuilt } from './setup.mjs';

await ensureBuilt();
await import('../dist/node/corpora.js');
