// dev.mjs — `npm run dev`: the server from its sources, and the page as it is edited.
import { createServer } from 'vite';
import { ensureBuilt, ROOT } from './setup.mjs';

await ensureBuilt();
const loader = await createServer({
  root: ROOT,
  configFile: false,
  server: { middlewareMode: true },
  appType: 'custom',
});
await loader.ssrLoadModule('/server/dev.ts');
