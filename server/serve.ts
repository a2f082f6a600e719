// serve.ts — reads the environment, opens the database, seeds the demo, listens.
import { createServer, type Server } from 'node:http';
import { resolve } from 'node:path';
import type { Express } from 'express';
import { createApp } from './app.ts';
import { openDatabase } from './db/open.ts';
import { seedDemo } from './demo/seed.ts';

export interface Serving {
  /** The module that job threads run. */
  readonly thread: URL;
  /** Off in development. */
  readonly isStrict: boolean;
  /** Adds what is served besides the API. */
  readonly pages: (app: Express, server: Server) => void | Promise<void>;
}

/** How long a deleted project can still be brought back. */
const KEPT_DELETED_MS = 7 * 24 * 3600 * 1000;

export async function serve({ thread, isStrict, pages }: Serving): Promise<void> {
  const {
    PORT = '3000',
    DATA_DIR = 'data',
    DATABASE_URL = resolve(DATA_DIR, 'outline-stack.db'),
    HOSTS = '',
  } = process.env;
  const database = await openDatabase(DATABASE_URL, resolve('server/migrations'));
  const demoFolder = resolve('demo');
  const hosts = HOSTS.split(',').flatMap((name) => name.trim().toLowerCase() || []);
  const { app, queue, projects, assets, close } = createApp({ database, thread, demoFolder, hosts, isStrict });
  await projects.purge(new Date(Date.now() - KEPT_DELETED_MS));
  await seedDemo({ projects, assets, demoFolder });
  await queue.resume();
  const server = createServer(app);
  // Whoever is told that it is ready may ask at once.
  await pages(app, server);
  server.listen(Number(PORT), '127.0.0.1', () => {
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : PORT;
    console.log(`Outline Stack is ready at http://127.0.0.1:${port}`);
  });

  const stop = () => {
    server.close(async () => {
      await close();
      database.close();
      process.exit(0);
    });
    // Keep-alive sockets would hold the close back.
    server.closeAllConnections();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}
