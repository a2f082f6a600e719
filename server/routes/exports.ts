// exports.ts — files out: a job per export, its state, and the finished file.
import { Readable } from 'node:stream';
import { Router } from 'express';
import { exportJob } from '../jobs/export.ts';
import type { Queue } from '../jobs/queue.ts';
import type { JobStore } from '../stores/jobs.ts';
import type { ProjectStore } from '../stores/projects.ts';

export function exportRoutes({
  jobs,
  projects,
  queue,
}: {
  jobs: JobStore;
  projects: ProjectStore;
  queue: Queue;
}): Router {
  const router = Router();
  router.post('/projects/:id/exports', async (request, response) => {
    const wanted = exportJob.request.parse(request.body);
    await projects.document(request.params.id, wanted.revision);
    const job = await jobs.create(request.params.id, exportJob.kind, wanted);
    queue.add(job);
    response.status(202).json(await jobs.reply(job.id));
  });
  router.get('/jobs/:id', async (request, response) => {
    response.json(await jobs.reply(request.params.id));
  });
  router.post('/jobs/:id/cancel', async (request, response) => {
    await jobs.get(request.params.id);
    await queue.cancel(request.params.id);
    response.json(await jobs.reply(request.params.id));
  });
  router.post('/jobs/:id/retry', async (request, response) => {
    const job = await jobs.get(request.params.id);
    if (await jobs.retry(job.id)) queue.add(job);
    response.json(await jobs.reply(request.params.id));
  });
  router.get('/exports/:id/file', async (request, response) => {
    const { fileName, mime, bytes } = await jobs.file(request.params.id);
    response.attachment(fileName).type(mime).set('content-length', String(bytes.length));
    Readable.from(bytes).pipe(response);
  });
  return router;
}
