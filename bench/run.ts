// run.ts — `npm run bench`: ours and reference libraries side by side in one run. Prints medians and ratios; never fails.
import { compareGrowth } from './growth.ts';
import { compareOutlines } from './outlines.ts';
import { compareSolids } from './solids.ts';
import { compareTraces } from './traces.ts';

compareSolids();
console.log();
compareGrowth();
console.log();
await compareTraces();
console.log();
compareOutlines();
