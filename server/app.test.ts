// The HTTP interface, over HTTP.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type JobReply, type ProjectReply, readSvg, writeProjectFile } from '../core/index.ts';
import { projectOf } from '../core/testing/projects.ts';
import { validateBytes } from '../core/testing/validator.ts';
import { revisions } from './db/schema.ts';
import { seedDemo } from './demo/seed.ts';
import { JobStore } from './stores/jobs.ts';
import { startApp } from './testing.ts';

let server: Awaited<ReturnType<typeof startApp>>;
beforeAll(async () => {
  server = await startApp();
});
afterAll(() => server.close());

const create = async (name = 'Sign'): Promise<ProjectReply> => (await server.call('POST', '/projects', { name })).body;

describe('projects', () => {
  it('are created, listed, read, saved and deleted', async () => {
    const made = await server.call('POST', '/projects', { name: 'Sign' });
    expect(made).toMatchObject({
      status: 201,
      body: { revision: 1, isDemo: false, document: { name: 'Sign', unit: 'mm' } },
    });
    const { id, document } = made.body as ProjectReply;
    const saved = await server.call('PUT', `/projects/${id}`, {
      base: 1,
      document: { ...document, name: 'Sign of the heron' },
    });
    expect(saved).toMatchObject({ status: 200, body: { revision: 2 } });
    expect((await server.call('GET', `/projects/${id}`)).body).toMatchObject({
      revision: 2,
      document: { name: 'Sign of the heron' },
    });
    const { body: list } = await server.call('GET', '/projects');
    expect(list.find((entry: { id: string }) => entry.id === id)).toMatchObject({
      name: 'Sign of the heron',
      layers: 0,
      stack: [],
    });
    expect((await server.call('DELETE', `/projects/${id}`)).status).toBe(204);
    expect((await server.call('GET', `/projects/${id}`)).status).toBe(404);
  });

  it('that were deleted are gone for everyone, and are brought back as they were', async () => {
    const { id, document } = await create('Kept');
    await server.call('DELETE', `/projects/${id}`);
    const listed = async () => (await server.call('GET', '/projects')).body.map((entry: { id: string }) => entry.id);
    expect(await listed()).not.toContain(id);
    expect((await server.call('PUT', `/projects/${id}`, { base: 1, document })).status).toBe(404);
    expect((await server.call('POST', `/projects/${id}/bring-back`)).status).toBe(204);
    expect((await server.call('GET', `/projects/${id}`)).body).toEqual({ id, revision: 1, isDemo: false, document });
    expect((await server.call('POST', `/projects/${id}/bring-back`)).status).toBe(404);
    await server.call('DELETE', `/projects/${id}`);
    await server.projects.purge(new Date(Date.now() + 1000));
    expect((await server.call('POST', `/projects/${id}/bring-back`)).status).toBe(404);
  });

  it('are renamed and copied, each under a name of its own, with their picture', async () => {
    const { id } = await create('Gauge');
    expect((await server.call('PATCH', `/projects/${id}`, { name: 'Tide gauge' })).body).toEqual({ revision: 2 });
    expect((await server.call('PATCH', `/projects/${id}`, { name: ' ' })).status).toBe(400);
    const png = readFileSync('docs/screenshots/projects.png').subarray(0, 4000);
    const send = (body: BodyInit, revision: string) =>
      fetch(`${server.url}/projects/${id}/picture?revision=${revision}`, { method: 'PUT', body });
    expect((await send(new Uint8Array(png), '2')).status).toBe(204);
    expect((await send('<svg/>', '2')).status).toBe(422);
    expect((await send(new Uint8Array(png), 'x')).status).toBe(400);
    const { body: copy } = await server.call('POST', `/projects/${id}/copy`);
    expect(copy).toMatchObject({ revision: 1, document: { name: 'Tide gauge 2' } });
    for (const each of [id, copy.id]) {
      const reply = await fetch(`${server.url}/projects/${each}/picture`);
      expect([reply.headers.get('content-type'), Buffer.from(await reply.arrayBuffer())]).toEqual(['image/png', png]);
    }
    const { body: list } = await server.call('GET', '/projects');
    expect(list.find((entry: { id: string }) => entry.id === id)).toMatchObject({ name: 'Tide gauge', picture: 2 });
  });

  it('refuse a save that is not based on the newest revision, and send that one along', async () => {
    const { id, document } = await create();
    await server.call('PUT', `/projects/${id}`, { base: 1, document: { ...document, name: 'Theirs' } });
    const mine = await server.call('PUT', `/projects/${id}`, { base: 1, document: { ...document, name: 'Mine' } });
    expect(mine).toMatchObject({
      status: 409,
      body: { error: { code: 'conflict' }, current: { revision: 2, document: { name: 'Theirs' } } },
    });
    expect((await server.call('GET', `/projects/${id}`)).body.document.name).toBe('Theirs');
  });

  it('let exactly one of many simultaneous saves through', async () => {
    const { id, document } = await create();
    const saves = Array.from({ length: 12 }, (_, i) =>
      server.call('PUT', `/projects/${id}`, { base: 1, document: { ...document, name: `Save ${i}` } }),
    );
    const statuses = (await Promise.all(saves)).map(({ status }) => status).sort();
    expect(statuses).toEqual([200, ...Array.from({ length: 11 }, () => 409)]);
  });

  it('answer 400 with the fields that do not fit', async () => {
    const { id, document } = await create();
    const wrong = await server.call('PUT', `/projects/${id}`, {
      base: 'one',
      document: { ...document, unit: 'furlong' },
    });
    expect(wrong).toMatchObject({ status: 400, body: { error: { code: 'bad-request' } } });
    expect(wrong.body.error.fields.map(({ path }: { path: string }) => path)).toEqual(['base', 'document.unit']);
    expect(await server.call('POST', '/projects', '{"name":')).toMatchObject({
      status: 400,
      body: { error: { code: 'bad-json' } },
    });
    expect((await server.call('POST', '/projects', {})).body.error.fields[0].path).toBe('name');
  });

  it('answer 404 for what is not there', async () => {
    const { document } = await create();
    for (const [method, path, body] of [
      ['GET', '/projects/nobody'],
      ['PUT', '/projects/nobody', { base: 1, document }],
      ['DELETE', '/projects/nobody'],
      ['GET', '/jobs/nobody'],
      ['POST', '/jobs/nobody/cancel'],
      ['GET', '/exports/nobody/file'],
      ['GET', '/nowhere'],
      ['GET', `/assets/${'0'.repeat(64)}`],
    ] as const) {
      expect([path, (await server.call(method, path, body)).status]).toEqual([path, 404]);
    }
  });
});

describe('project files', () => {
  const fileOf = async (id: string) =>
    new Uint8Array(await (await fetch(`${server.url}/projects/${id}/file`)).arrayBuffer());

  it('hold everything, and open as a project of their own', async () => {
    const { body: demo } = await server.call('POST', '/demo/restore');
    const file = await fileOf(demo.id);
    const opened = await server.call('POST', '/projects/file', file);
    expect(opened).toMatchObject({ status: 201, body: { revision: 1, isDemo: false, document: demo.document } });
    expect(opened.body.id).not.toBe(demo.id);
    expect(Buffer.from(await fileOf(opened.body.id)).equals(file)).toBe(true);
  });

  it('of many megabytes hold nobody up while they are packed and unpacked', async () => {
    const drawing = new TextEncoder().encode(
      `<svg viewBox="0 0 9 9">${'<path d="M1 1H8V8Z"/>'.repeat(10)}${' '.repeat(6e7)}</svg>`,
    );
    const asset = createHash('sha256').update(drawing).digest('hex');
    const { project } = projectOf(readSvg('<svg viewBox="0 0 9 9"><path d="M1 1H8V8Z"/></svg>'));
    const document = { ...project, sources: project.sources.map((source) => ({ ...source, asset })) };
    const order: string[] = [];
    const done = async <T>(name: string, answer: Promise<T>): Promise<T> => {
      const value = await answer;
      order.push(name);
      return value;
    };
    const file = writeProjectFile({ document, assets: { [asset]: drawing } });
    const [{ body }] = await Promise.all([
      done('unpacked', server.call('POST', '/projects/file', file)),
      done('asked', server.call('GET', '/health')),
    ]);
    const [again] = await Promise.all([done('packed', fileOf(body.id)), done('asked', server.call('GET', '/health'))]);
    expect(Buffer.from(again).equals(file)).toBe(true);
    expect(order).toEqual(['asked', 'unpacked', 'asked', 'packed']);
  });

  it.each([
    ['nothing', new Uint8Array(), 'The file is empty.'],
    ['something else', new TextEncoder().encode('<svg/>'), 'This is not a project file'],
    ['a torn one', null, 'The project file is damaged'],
  ])('refuse %s in a sentence', async (_, bytes, sentence) => {
    const torn = (await fileOf((await create()).id)).slice(0, 100);
    const reply = await server.call('POST', '/projects/file', bytes ?? torn);
    expect([reply.status, reply.body.error.code]).toEqual([422, 'bad-file']);
    expect(reply.body.error.message).toContain(sentence);
  });

  it('of a version that is not known yet are refused, and such a project is left as it is', async () => {
    const { id, document } = await create('From tomorrow');
    const tomorrow = { ...document, version: 99, tide: 'high' };
    await server.database.write((tx) =>
      tx
        .update(revisions)
        .set({ document: tomorrow as never })
        .where(eq(revisions.projectId, id)),
    );
    for (const [method, path] of [
      ['GET', `/projects/${id}`],
      ['GET', `/projects/${id}/file`],
      ['POST', `/projects/${id}/exports`],
    ] as const) {
      const body = method === 'POST' ? { format: 'glb', lengths: 'metres', revision: 1 } : undefined;
      const reply = await server.call(method, path, body);
      expect([path, reply.status >= 400 && reply.status < 500]).toEqual([path, true]);
      expect(reply.body.error.message).toMatch(/newer/);
    }
    const { body: list } = await server.call('GET', '/projects');
    expect(list.some((entry: { id: string }) => entry.id === id)).toBe(true);
    const [row] = await server.database.db.select().from(revisions).where(eq(revisions.projectId, id));
    expect(row!.document).toEqual(tomorrow);
  });
});

describe('assets', () => {
  it('are kept once, by their content, and never served as pictures', async () => {
    const bytes = new TextEncoder().encode('<svg/>');
    const first = await server.call('POST', '/assets', bytes);
    expect(first).toMatchObject({ status: 201, body: { bytes: 6 } });
    expect((await server.call('POST', '/assets', bytes)).body.hash).toBe(first.body.hash);
    const reply = await fetch(`${server.url}/assets/${first.body.hash}`);
    expect(await reply.text()).toBe('<svg/>');
    expect(reply.headers.get('content-type')).toBe('application/octet-stream');
    expect(reply.headers.get('content-disposition')).toContain('attachment');
    expect(reply.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('of fonts that unpack to gigabytes are refused while others are answered', async () => {
    // 48 tables that share the same packed bytes (WOFF 1.0 §5), 30 MB each.
    const packed = deflateSync(new Uint8Array(30 * 2 ** 20));
    const bytes = new Uint8Array(44 + 20 * 48 + packed.length);
    const view = new DataView(bytes.buffer);
    for (const [i, v] of [0x774f4646, 0x00010000, bytes.length].entries()) view.setUint32(4 * i, v);
    view.setUint16(12, 48);
    for (let i = 0; i < 48; i++) {
      const entry = [0x61626300 + i, 44 + 20 * 48, packed.length, 30 * 2 ** 20, 0];
      for (const [k, v] of entry.entries()) view.setUint32(44 + 20 * i + 4 * k, v);
    }
    bytes.set(packed, 44 + 20 * 48);
    const { body } = await server.call('POST', '/assets', bytes);
    const font = await server.call('GET', `/assets/${body.hash}/font`);
    expect([font.status, font.body.error.message]).toEqual([413, expect.stringMatching(/unpacks to more than 32 MB/)]);
  });

  it('of fonts are given out unpacked', async () => {
    const file = 'node_modules/@fontsource/archivo/files/archivo-latin-700-normal';
    const { body } = await server.call('POST', '/assets', new Uint8Array(readFileSync(`${file}.woff2`)));
    const reply = await fetch(`${server.url}/assets/${body.hash}/font`);
    // The version tag of a font with TrueType outlines (OpenType 1.9, "Table Directory").
    expect(new DataView(await reply.arrayBuffer()).getUint32(0)).toBe(0x00010000);
  });

  it('are refused when they are too large or have no address', async () => {
    expect((await server.call('POST', '/assets', new Uint8Array(30 * 2 ** 20))).status).toBe(413);
    expect((await server.call('GET', '/assets/../secret')).status).toBe(404);
    expect((await server.call('GET', '/assets/abc')).status).toBe(400);
  });
});

describe('pictures', () => {
  const picture = () =>
    sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><circle cx="30" cy="20" r="15"/></svg>',
      ),
    );

  it('are kept as they are, and given out as pixels', async () => {
    const bytes = await picture().png().toBuffer();
    const { status, body } = await server.call('POST', '/assets', new Uint8Array(bytes));
    expect(status).toBe(201);
    const response = await fetch(`${server.url}/assets/${body.hash}/pixels`);
    expect(JSON.parse(response.headers.get('x-picture')!)).toEqual({ width: 60, height: 40, format: 'png', dpi: null });
    const pixels = new Uint8Array(await response.arrayBuffer());
    expect(pixels).toHaveLength(60 * 40 * 4);
    expect([...pixels.subarray(4 * (20 * 60 + 30), 4 * (20 * 60 + 30) + 4)]).toEqual([0, 0, 0, 255]);
    const plain = await fetch(`${server.url}/assets/${body.hash}/pixels`, {
      headers: { 'accept-encoding': 'identity' },
    });
    expect(new Uint8Array(await plain.arrayBuffer())).toEqual(pixels);
  });

  it('that are broken or too large are refused with the reason when their pixels are asked for', async () => {
    const bomb = await picture().png().toBuffer();
    bomb.writeUInt32BE(60_000, 16);
    bomb.writeUInt32BE(60_000, 20);
    for (const [bytes, reason] of [
      [bomb, /60000 × 60000 pixels|damaged/],
      [(await picture().jpeg().toBuffer()).subarray(0, 250), /damaged or ends early/],
    ] as const) {
      const { body } = await server.call('POST', '/assets', new Uint8Array(bytes));
      const pixels = await server.call('GET', `/assets/${body.hash}/pixels`);
      expect([pixels.status, pixels.body.error.message]).toEqual([expect.any(Number), expect.stringMatching(reason)]);
      expect(pixels.status).toBeGreaterThanOrEqual(400);
      expect(pixels.status).toBeLessThan(500);
    }
  });

  it('become exports like everything else', async () => {
    const { body: list } = await server.call('GET', '/projects');
    const crest = list.find(({ name }: { name: string }) => name === 'Saltmarsh crest') ?? (await restoredCrest());
    const { body: job } = await server.call('POST', `/projects/${crest.id}/exports`, {
      format: 'stl',
      revision: crest.revision,
    });
    const { state, report } = await finished(job);
    expect([state, report?.ok]).toEqual(['done', true]);
  });

  const restoredCrest = async () => {
    await server.call('POST', '/demo/restore');
    const { body } = await server.call('GET', '/projects');
    return body.find(({ name }: { name: string }) => name === 'Saltmarsh crest');
  };
});

const finished = async (job: JobReply): Promise<JobReply> => {
  for (let tries = 0; tries < 400; tries++) {
    const { body } = await server.call('GET', `/jobs/${job.id}`);
    if (!['waiting', 'running'].includes(body.state)) return body;
    await new Promise((wait) => setTimeout(wait, 50));
  }
  throw new Error('The job does not end.');
};

describe('the demo and its exports', () => {
  const demo = async (): Promise<ProjectReply> => (await server.call('POST', '/demo/restore')).body;

  it('is restored as it came, all its projects', async () => {
    const first = await demo();
    expect(first.document.layers.map(({ name }) => name)).toEqual([
      'Ground',
      'Night',
      'Marsh',
      'Tide',
      'Moon',
      'Heron',
      'Rim',
    ]);
    await server.call('PUT', `/projects/${first.id}`, { base: 1, document: { ...first.document, layers: [] } });
    const restored = await server.call('POST', `/projects/${first.id}/restore`);
    expect(restored.body).toEqual({ ...first, revision: 3 });
    const { id: own } = await create();
    expect((await server.call('POST', `/projects/${own}/restore`)).status).toBe(404);
    const second = await demo();
    expect(second.document).toEqual(first.document);
    const { body: list } = await server.call('GET', '/projects');
    expect(list.filter(({ isDemo }: { isDemo: boolean }) => isDemo)).toHaveLength(5);
  });

  it('is seeded only into an empty database', async () => {
    const fresh = await startApp();
    await seedDemo({ ...fresh, demoFolder: 'demo' });
    await seedDemo({ ...fresh, demoFolder: 'demo' });
    expect((await fresh.call('GET', '/projects')).body).toHaveLength(5);
    await fresh.close();
  });

  it('goes out as a GLB that the validator passes, read back before it is offered', async () => {
    const { id, revision } = await demo();
    const started = await server.call('POST', `/projects/${id}/exports`, { format: 'glb', revision });
    expect(started.status).toBe(202);
    const { state, report } = await finished(started.body);
    expect(state).toBe('done');
    expect(report).toMatchObject({ ok: true, format: 'glb', fileName: 'Saltmarsh_mission_patch.glb' });
    const reply = await fetch(`${server.url}/exports/${started.body.id}/file`);
    const bytes = new Uint8Array(await reply.arrayBuffer());
    expect(bytes).toHaveLength(report!.bytes);
    const { issues, info } = await validateBytes(bytes);
    expect(issues.messages).toEqual([]);
    expect(String(info.totalTriangleCount)).toBe(report!.rows.find(({ what }) => what === 'triangles')!.read);
  });

  it('goes out in parts, and as OBJ and STL', async () => {
    const { id, revision, document } = await demo();
    const heron = document.layers.find(({ name }) => name === 'Heron')!;
    for (const format of ['obj', 'stl']) {
      const started = await server.call('POST', `/projects/${id}/exports`, { format, revision, layers: [heron.id] });
      const { report } = await finished(started.body);
      expect(report!.rows.find(({ what }) => what === 'closed parts')).toMatchObject({ built: '1', read: '1' });
    }
  });

  it('says why nothing can be exported, and tries again when asked', async () => {
    const { id, revision } = await create('Empty');
    const started = await server.call('POST', `/projects/${id}/exports`, { format: 'stl', revision });
    const failed = await finished(started.body);
    expect(failed).toMatchObject({ state: 'failed', error: { code: 'nothing-to-build' } });
    const again = await server.call('POST', `/jobs/${failed.id}/retry`);
    expect(again.status).toBe(200);
    expect((await finished(again.body)).state).toBe('failed');
    expect((await server.call('GET', `/exports/${failed.id}/file`)).status).toBe(404);
  });

  it('can be cancelled', async () => {
    const { id, revision } = await demo();
    const jobs = await Promise.all(
      [1, 2, 3].map(() => server.call('POST', `/projects/${id}/exports`, { format: 'obj', revision })),
    );
    const last = jobs.at(-1)!.body as JobReply;
    expect((await server.call('POST', `/jobs/${last.id}/cancel`)).body.state).toBe('cancelled');
    expect((await finished(jobs[0]!.body)).state).toBe('done');
    expect((await finished(last)).state).toBe('cancelled');
  });

  it('keeps the newest twenty files of a project', async () => {
    const { id, revision } = await create();
    const jobs = new JobStore(server.database);
    const made: string[] = [];
    for (let k = 0; k < 23; k++) {
      const job = await jobs.create(id, 'export', { format: 'stl', lengths: 'units', revision });
      await jobs.begin(job.id);
      made.push(job.id);
      const report = { fileName: 'x.stl', format: 'stl' as const, bytes: 1, ok: true, rows: [], ms: 1 };
      await jobs.finish(job.id, { fileName: 'x.stl', mime: 'model/stl', bytes: Buffer.from([k]), report });
      await new Promise((tick) => setTimeout(tick, 2));
    }
    const statuses = await Promise.all(
      made.map(async (job) => (await server.call('GET', `/exports/${job}/file`)).status),
    );
    expect(statuses).toEqual(made.map((_, k) => (k < 3 ? 404 : 200)));
  });

  it('refuses formats and revisions that do not exist', async () => {
    const { id } = await demo();
    expect((await server.call('POST', `/projects/${id}/exports`, { format: 'doc', revision: 1 })).status).toBe(400);
    expect((await server.call('POST', `/projects/${id}/exports`, { format: 'glb', revision: 99 })).status).toBe(404);
  });
});

describe('a server that is killed', () => {
  it('has every save it acknowledged', async () => {
    const data = mkdtempSync(join(tmpdir(), 'outline-stack-'));
    const port = await freePort();
    const start = async () => {
      const child = spawn(process.execPath, ['dist/node/server.js'], {
        env: { ...process.env, NODE_ENV: undefined, PORT: String(port), DATA_DIR: data },
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      await new Promise((ready) => child.stdout!.once('data', ready));
      return child;
    };
    const api = (method: string, path: string, body?: object) =>
      fetch(`http://127.0.0.1:${port}/api${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        ...(body ? { body: JSON.stringify(body) } : {}),
      }).then((reply) => reply.json());
    let child = await start();
    const { id, document } = (await api('POST', '/projects', { name: 'Kept' })) as ProjectReply;
    for (let base = 1; base <= 20; base++) {
      await api('PUT', `/projects/${id}`, { base, document: { ...document, name: `Kept ${base}` } });
    }
    child.kill('SIGKILL');
    await new Promise((gone) => child.once('exit', gone));
    child = await start();
    // Strict, whatever the environment says: not the development page, and nothing but our own files.
    const page = await fetch(`http://127.0.0.1:${port}/`);
    expect(page.headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(await page.text()).not.toContain('/@vite/client');
    expect(await api('GET', `/projects/${id}`)).toMatchObject({ revision: 21, document: { name: 'Kept 20' } });
    child.kill('SIGTERM');
    await new Promise((gone) => child.once('exit', gone));
    expect(readFileSync(join(data, 'outline-stack.db')).length).toBeGreaterThan(0);
    rmSync(data, { recursive: true, force: true });
  });
});

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}
