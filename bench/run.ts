// run.ts — `npm run bench`: ours and reference libraries side by side in one run. Prints medians and ratios; never fails.
import { compareFiles } from './files.ts';
import { compareGrowth } from './growth.ts';
import { compareLarge } from './large.ts';
import { compareOutlines } from './outlines.ts';
import { compareSolids } from './solids.ts';
import { compareTraces } from './traces.ts';

compareSolids();
console.log();
await compareFiles();
console.log();
compareGrowth();
console.log();
await compareLarge();
console.log();
await compareTraces();
console.log();
compareOutlines();
