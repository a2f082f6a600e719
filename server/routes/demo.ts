// demo.ts — brings the demo projects back to how they came, all of them or one.
import { Router } from 'express';
import type { DemoDeps } from '../demo/seed.ts';
import { restoreDemo, restoreOneDemo } from '../demo/seed.ts';

export function demoRoutes(deps: DemoDeps): Router {
  const router = Router();
  router.post('/demo/restore', async (_request, response) => {
    response.json(await restoreDemo(deps));
  });
  router.post('/projects/:id/restore', async (request, response) => {
    response.json(await restoreOneDemo(deps, request.params.id));
  });
  return router;
}
