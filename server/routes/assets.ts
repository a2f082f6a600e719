// assets.ts — /api/assets: bytes in, hash out. What comes in is sniffed by content, never by name.
import express, { Router } from 'express';
import { z } from 'zod';
import { decodeXml, GeometryError, SVG_LIMITS } from '../../core/index.ts';
import type { AssetStore } from '../stores/assets.ts';

const Hash = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in hex');
/** How far into the file its `<svg` must begin; editors write comments and style sheets before it. */
const HEAD = 64 * 1024;

export function assetRoutes({ assets }: { assets: AssetStore }): Router {
  const router = Router();
  const body = express.raw({ type: () => true, limit: SVG_LIMITS.bytes });
  router.post('/assets', body, async (request, response) => {
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new GeometryError('bad-file', 'The file is empty.');
    if (!/<(svg:)?svg[\s/>]/.test(decodeXml(bytes).slice(0, HEAD))) {
      throw new GeometryError('bad-file', 'This is not an SVG file: no <svg> element begins in it.');
    }
    response.status(201).json({ hash: await assets.put(bytes), bytes: bytes.length });
  });
  router.get('/assets/:hash', async (request, response) => {
    const bytes = await assets.get(Hash.parse(request.params.hash));
    // Never as an image: an SVG shown by the browser itself could run scripts.
    response.set({ 'cache-control': 'private, max-age=31536000, immutable', 'content-disposition': 'attachment' });
    response.type('application/octet-stream').send(bytes);
  });
  return router;
}
