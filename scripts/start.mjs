// start.mjs — `npm start`: installs and builds what is missing, then serves the application with its demo.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ROOT } from './setup.mjs';

console.log('Outline Stack is being made ready.');
await ensureBuilt();
console.log('Opening the demo projects…');
const server = spawn(process.execPath, [join(ROOT, 'dist', 'node', 'server.js')], {
  cwd: ROOT,
  stdio: 'inherit',
  env: process.env,
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
