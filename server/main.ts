// main.ts — reads the environment, opens the database, listens.
import { resolve } from 'node:path';
import express from 'express';
import { createApp } from './app.ts';
import { openDatabase } from './db/open.ts';
import { seedDemo } from './demo/seed.ts';

const port = Number(process.env.PORT ?? 3000);
const dataDir = process.env.DATA_DIR ?? 'data';
const isProduction = process.env.NODE_ENV === 'production';

const database = await openDatabase(
  process.env.DATABASE_URL ?? resolve(dataDir, 'outline-stack.db'),
  resolve('server/migrations'),
);
const demoFolder = resolve('demo');
// Threads run the built module in both modes: a worker thread does not inherit the development loader.
const thread = isProduction
  ? new URL('./server-thread.js', import.meta.url)
  : new URL('../dist/node/server-thread.js', import.meta.url);
const { app, runner, projects, assets } = createApp({ database, thread, demoFolder, isStrict: isProduction });
await seedDemo({ projects, assets, demoFolder });
await runner.resume();

const server = app.listen(port, '127.0.0.1', (error?: Error) => {
  if (error) throw error;
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  console.log(`Outline Stack is ready at http://127.0.0.1:${actual}`);
});

if (isProduction) {
  const web = resolve('dist/web');
  app.use(
    express.static(web, {
      index: false,
      setHeaders: (response, path) =>
        response.setHeader(
          'cache-control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        ),
    }),
  );
  app.get('/{*splat}', (_request, response) => response.sendFile('index.html', { root: web }));
} else {
  const { createServer } = await import('vite');
  const vite = await createServer({ server: { middlewareMode: true, hmr: { server } }, appType: 'spa' });
  app.use(vite.middlewares);
}

const stop = () => {
  server.close(() => {
    database.close();
    process.exit(0);
  });
  // Keep-alive sockets would hold the close back.
  server.closeAllConnections();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
