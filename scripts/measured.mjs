// measured.mjs — `npm run corpora`, `flats` and `scans`: builds what is missing and runs the built measurement of that name.
import { ensureBuilt, ensureSets } from './setup.mjs';

const [name] = process.argv.splice(2, 1);
await ensureBuilt();
ensureSets();
await import(`../dist/node/${name}.js`);
