// types.mjs — type-checks every folder by its own configuration, which is what keeps the core free of platforms.
import { bin, run } from './setup.mjs';

for (const project of ['core', 'server', 'web', 'cli', 'docs/examples', 'tsconfig.tests.json'])
  run(bin('tsc'), ['-p', project]);
