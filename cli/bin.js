#!/usr/bin/env node
// bin.js — starts the built command line, building it first when a source is newer than the build. It installs nothing.
import { ensureBuilt } from '../scripts/setup.mjs';

await ensureBuilt({ quiet: true, install: false });
await import('../dist/node/cli.js');
