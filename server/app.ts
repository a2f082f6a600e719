// app.ts — the HTTP application, built without listening.
import compression from 'compression';
import express, { type Express } from 'express';
import type { Database } from './db/open.ts';
import { errorReplies, NotFound } from './errors.ts';
import { knownHosts, ownOrigin } from './guard.ts';
import { JobRunner } from './jobs/runner.ts';
import { startThreads } from './jobs/threads.ts';
import { assetRoutes } from './routes/assets.ts';
import { demoRoutes } from './routes/demo.ts';
import { exportRoutes } from './routes/exports.ts';
import { projectFileRoutes, projectRoutes } from './routes/projects.ts';
import { AssetStore } from './stores/assets.ts';
import { JobStore } from './stores/jobs.ts';
import { ProjectStore } from './stores/projects.ts';

export interface AppDeps {
  readonly database: Database;
  /** The module that threads run. */
  readonly thread: URL;
  readonly demoFolder: string;
  /** Names besides the machine's own that it may be reached by. */
  readonly hosts?: readonly string[];
  /** Off in development, where the page's tools run code of their own. */
  readonly isStrict?: boolean;
}

/** A document with the most layers and members stays below this. */
const JSON_LIMIT = '16mb';

/** Nothing but our own files runs, is shown or is asked for; React and the view set inline styles. */
const CONTENT_POLICY = [
  "default-src 'self'",
  // HarfBuzz is WebAssembly.
  "script-src 'self' 'wasm-unsafe-eval'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self' data:",
  "worker-src 'self' blob:",
  "object-src 'none'",
  "frame-ancestors 'none'",
].join('; ');

export function createApp({ database, thread, demoFolder, hosts = [], isStrict = true }: AppDeps) {
  const projects = new ProjectStore(database);
  const assets = new AssetStore(database);
  const jobs = new JobStore(database);
  const threads = startThreads(thread);
  const queue = new JobRunner({ jobs, projects, assets, pool: threads.jobs });
  const app: Express = express();
  app.disable('x-powered-by');
  if (isStrict) app.set('env', 'production');
  app.use((_request, response, next) => {
    response.set({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      // An isolated page: its threads may share memory, which is how one is told to stop in the middle of something.
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-embedder-policy': 'require-corp',
    });
    if (isStrict) response.set('content-security-policy', CONTENT_POLICY);
    next();
  });
  app.use(knownHosts(hosts), errorReplies);
  const api = express.Router();
  // Documents and lists; what is compressed already is left alone.
  api.use(compression(), ownOrigin);
  api.use(assetRoutes({ assets, files: threads.files }), projectFileRoutes({ projects, assets, files: threads.files }));
  api.use(express.json({ limit: JSON_LIMIT }));
  api.get('/health', (_request, response) => {
    response.json({ ok: true });
  });
  api.use(
    projectRoutes({ projects }),
    exportRoutes({ jobs, projects, queue }),
    demoRoutes({ projects, assets, demoFolder }),
  );
  api.use((request) => {
    throw new NotFound(`There is nothing at ${request.method} ${request.originalUrl}.`);
  });
  app.use('/api', api, errorReplies);
  return { app, queue, projects, assets, close: threads.close };
}
