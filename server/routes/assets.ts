// assets.ts — /api/assets: bytes in, hash out; a picture's pixels. What comes in is sniffed by content, never by name.
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import express, { Router } from 'express';
import { z } from 'zod';
import {
  DXF_LIMITS,
  GeometryError,
  MESH_LIMITS,
  PICTURE_HEADER,
  PICTURE_LIMITS,
  type PictureReply,
  sniffFont,
  sniffMesh,
  sniffOutlines,
  sniffPicture,
  vectorLimit,
} from '../../core/index.ts';
import { decodeAsset } from '../../node/decode.ts';
import type { FileThreads } from '../jobs/threads.ts';
import type { AssetStore } from '../stores/assets.ts';

const Hash = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in hex');
interface AssetDeps {
  readonly assets: AssetStore;
  readonly files: FileThreads;
}

export function assetRoutes({ assets, files }: AssetDeps): Router {
  const router = Router();
  const body = express.raw({
    type: () => true,
    limit: Math.max(PICTURE_LIMITS.bytes, DXF_LIMITS.bytes, MESH_LIMITS.bytes),
  });
  router.post('/assets', body, async (request, response) => {
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw new GeometryError('bad-file', 'The file is empty.');
    if (!sniffPicture(bytes) && !sniffFont(bytes) && !sniffMesh(bytes)) checkVector(bytes);
    response.status(201).json({ hash: await assets.put(bytes), bytes: bytes.length });
  });
  router.get('/assets/:hash', async (request, response) => {
    const bytes = await assets.get(Hash.parse(request.params.hash));
    // Never as an image: an SVG shown by the browser itself could run scripts.
    response.set({ 'cache-control': IMMUTABLE, 'content-disposition': 'attachment' });
    response.type('application/octet-stream').send(bytes);
  });
  router.get('/assets/:hash/pixels', async (request, response) => {
    const { picture, format, dpi } = await decodeAsset(await assets.get(Hash.parse(request.params.hash)));
    const { width, height, data } = picture;
    const about: PictureReply = { width, height, format, dpi };
    response.set({ 'cache-control': IMMUTABLE, [PICTURE_HEADER]: JSON.stringify(about) });
    response.type('application/octet-stream');
    const bytes = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
    if (!request.acceptsEncodings('gzip')) {
      response.send(bytes);
      return;
    }
    response.set({ 'content-encoding': 'gzip', vary: 'accept-encoding' });
    await pipeline([bytes], createGzip({ level: 1 }), response);
  });
  router.get('/assets/:hash/font', async (request, response) => {
    const bytes = await files.unpackFont(await assets.get(Hash.parse(request.params.hash)));
    response.set({ 'cache-control': IMMUTABLE, 'content-disposition': 'attachment' });
    response.type('application/octet-stream').send(Buffer.from(bytes));
  });
  return router;
}

const IMMUTABLE = 'private, max-age=31536000, immutable';

function checkVector(bytes: Buffer): void {
  const limit = vectorLimit(bytes);
  if (bytes.length > limit) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    throw new GeometryError(
      'too-large',
      `The file has ${mb(bytes.length)} MB; ${mb(limit)} MB is the most for a drawing. Simplify it first.`,
    );
  }
  if (sniffOutlines(bytes)) return;
  throw new GeometryError(
    'bad-file',
    'This is neither a drawing (SVG, DXF) nor a picture (PNG, JPEG, WebP, TIFF, GIF, BMP) nor a mesh (GLB, OBJ, STL) nor a font that can be read.',
  );
}
