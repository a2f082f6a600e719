// testing.ts — the application on a port of its own with an empty database, for tests.
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { type AppDeps, createApp } from './app.ts';
import { openDatabase } from './db/open.ts';

export interface Reply {
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: tests look into replies of every shape
  readonly body: any;
}

export async function startApp(options: Pick<AppDeps, 'hosts'> = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
  const database = await openDatabase(join(folder, 'test.db'), resolve('server/migrations'));
  const thread = pathToFileURL(resolve('dist/node/server-thread.js'));
  const built = createApp({ database, thread, demoFolder: resolve('demo'), ...options });
  const server = built.app.listen(0, '127.0.0.1');
  // Tests work in the same thread: while one is busy for longer than that, a connection that it means to use again would be closed.
  server.keepAliveTimeout = 60_000;
  await new Promise((ready) => server.once('listening', ready));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;

  /** @param body an object goes as JSON, text as it stands, bytes as bytes */
  const call = async (
    method: string,
    path: string,
    body?: object | string | Uint8Array<ArrayBuffer>,
  ): Promise<Reply> => {
    const isBytes = body instanceof Uint8Array;
    const response = await fetch(url + path, {
      method,
      ...(body === undefined ? {} : { body: isBytes || typeof body === 'string' ? body : JSON.stringify(body) }),
      headers: { 'content-type': isBytes ? 'application/octet-stream' : 'application/json' },
    });
    const text = await response.text();
    const isJson = response.headers.get('content-type')?.includes('json');
    return { status: response.status, body: isJson ? JSON.parse(text) : text };
  };
  const close = async () => {
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    await built.close();
    database.close();
    rmSync(folder, { recursive: true, force: true });
  };
  return { ...built, database, url, call, close };
}
