// projects.ts — /api/projects: list, create, read, save, delete; and projects as files.
import express, { Router } from 'express';
import { z } from 'zod';
import {
  assetsOf,
  CreateProjectSchema,
  emptyProject,
  fileName,
  GeometryError,
  PROJECT_FILE,
  PROJECT_FILE_LIMITS,
  RenameProjectSchema,
  SaveProjectSchema,
} from '../../core/index.ts';
import { NotFound } from '../errors.ts';
import type { FileThreads } from '../jobs/threads.ts';
import type { AssetStore } from '../stores/assets.ts';
import type { ProjectStore } from '../stores/projects.ts';

interface ProjectDeps {
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
  readonly files: FileThreads;
}

/** The most a small picture needs. */
const PICTURE_LIMIT = '512kb';
const PictureQuerySchema = z.object({ revision: z.coerce.number().int().min(1) });
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** Before bodies are read as JSON: a project file and a picture are bytes. */
export function projectFileRoutes({ projects, assets, files }: ProjectDeps): Router {
  const router = Router();
  const body = express.raw({ type: () => true, limit: PROJECT_FILE_LIMITS.bytes });
  router.get('/projects/:id/file', async (request, response) => {
    const { document } = await projects.get(request.params.id);
    const bytes = await files.packProject({ document, assets: await assets.all(assetsOf(document)) });
    response.attachment(`${fileName(document.name)}.${PROJECT_FILE.extension}`).type(PROJECT_FILE.mime);
    response.send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  });
  router.post('/projects/file', body, async (request, response) => {
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new GeometryError('bad-file', 'The file is empty.');
    const file = await files.unpackProject(bytes);
    for (const each of Object.values(file.assets)) await assets.put(Buffer.from(each));
    response.status(201).json(await projects.create(file.document));
  });
  router.get('/projects/:id/picture', async (request, response) => {
    const bytes = await projects.picture(request.params.id);
    if (!bytes) throw new NotFound('The project has no picture yet.');
    response.set({ 'cache-control': 'private, max-age=31536000, immutable' }).type('png').send(bytes);
  });
  router.put(
    '/projects/:id/picture',
    express.raw({ type: () => true, limit: PICTURE_LIMIT }),
    async (request, response) => {
      const { revision } = PictureQuerySchema.parse(request.query);
      const bytes: unknown = request.body;
      if (!Buffer.isBuffer(bytes) || !bytes.subarray(0, PNG.length).equals(PNG)) {
        throw new GeometryError('bad-file', 'The picture of a project must be a PNG.');
      }
      await projects.setPicture(request.params.id, revision, bytes);
      response.status(204).end();
    },
  );
  return router;
}

export function projectRoutes({ projects }: Pick<ProjectDeps, 'projects'>): Router {
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
  router.patch('/projects/:id', async (request, response) => {
    const { name } = RenameProjectSchema.parse(request.body);
    response.json({ revision: await projects.rename(request.params.id, name) });
  });
  router.post('/projects/:id/copy', async (request, response) => {
    response.status(201).json(await projects.copy(request.params.id));
  });
  router.post('/projects/:id/bring-back', async (request, response) => {
    await projects.bringBack(request.params.id);
    response.status(204).end();
  });
  router.delete('/projects/:id', async (request, response) => {
    await projects.remove(request.params.id);
    response.status(204).end();
  });
  return router;
}
