// demo.ts — brings the demo project back to how it came.
import { Router } from 'express';
import type { DemoDeps } from '../demo/seed.ts';
import { restoreDemo } from '../demo/seed.ts';

export function demoRoutes(deps: DemoDeps): Router {
  const router = Router();
  router.post('/demo/restore', async (_request, response) => {
    response.json(await restoreDemo(deps));
  });
  return router;
}
