// projects.ts — /api/projects: list, create, read, save, delete.
import { Router } from 'express';
import { CreateProjectSchema, emptyProject, SaveProjectSchema } from '../../core/index.ts';
import type { ProjectStore } from '../stores/projects.ts';

export function projectRoutes({ projects }: { projects: ProjectStore }): Router {
  const router = Router();
  router.get('/projects', async (_request, response) => {
    response.json(await projects.list());
  });
  router.post('/projects', async (request, response) => {
    const { name } = CreateProjectSchema.parse(request.body);
    response.status(201).json(await projects.create(emptyProject(name)));
  });
  router.get('/projects/:id', async (request, response) => {
    response.json(await projects.get(request.params.id));
  });
  router.put('/projects/:id', async (request, response) => {
    const { base, document } = SaveProjectSchema.parse(request.body);
    response.json({ revision: await projects.save(request.params.id, base, document) });
  });
  router.delete('/projects/:id', async (request, response) => {
    await projects.remove(request.params.id);
    response.status(204).end();
  });
  return router;
}
