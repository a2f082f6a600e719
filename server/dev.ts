// dev.ts — the server from its sources, with the development build of the page.
import { createServer } from 'vite';
import { serve } from './serve.ts';

await serve({
  // A worker thread does not inherit the development loader: it runs the built module.
  thread: new URL('../dist/node/server-thread.js', import.meta.url),
  isStrict: false,
  async pages(app, server) {
    const vite = await createServer({ server: { middlewareMode: true, hmr: { server } }, appType: 'spa' });
    app.use(vite.middlewares);
  },
});
