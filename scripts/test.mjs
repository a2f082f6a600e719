// test.mjs — `npm test`: installs and builds what is missing, then lint, types, unit and reference tests, browser tests.
import { bin, ensureBuilt, ensureChromium, ensureSets, run } from './setup.mjs';

await ensureBuilt();
ensureSets();
run(bin('biome'), ['ci', '.']);
run(process.execPath, ['scripts/types.mjs']);
run(bin('vitest'), ['run']);
run(bin('playwright'), ['test'], { env: { CHROMIUM: ensureChromium() } });
