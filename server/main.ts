// main.ts — the built server with the built page. Whatever the environment says, it is strict.
import { resolve } from 'node:path';
import staticFiles from 'express-static-gzip';
import { serve } from './serve.ts';

await serve({
  thread: new URL('./server-thread.js', import.meta.url),
  isStrict: true,
  pages(app) {
    const web = resolve('dist/web');
    app.use(
      staticFiles(web, {
        index: false,
        // The build has compressed them already.
        enableBrotli: true,
        orderPreference: ['br'],
        serveStatic: {
          setHeaders: (response, path) =>
            response.setHeader(
              'cache-control',
              path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
            ),
        },
      }),
    );
    app.get('/{*splat}', (_request, response) => response.sendFile('index.html', { root: web }));
  },
});
