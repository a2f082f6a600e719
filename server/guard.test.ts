// Whose requests are answered: headers as the Fetch standard has browsers send them (Fetch §3.1, "Origin header"; Fetch Metadata
// Request Headers §2.4, "Sec-Fetch-Site"). Sent by hand, because `fetch` lets nobody set them.
import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp } from './testing.ts';

let server: Awaited<ReturnType<typeof startApp>>;
let own: string;
beforeAll(async () => {
  server = await startApp();
  own = new URL(server.url).host;
});
afterAll(() => server.close());

function ask(method: string, path: string, headers: Record<string, string>, body = ''): Promise<[number, string]> {
  return new Promise((resolve, reject) => {
    const asked = request(`http://${own}${path}`, { method, headers }, (reply) => {
      let text = '';
      reply.on('data', (chunk) => {
        text += chunk;
      });
      reply.on('end', () => resolve([reply.statusCode!, text]));
    });
    asked.on('error', reject);
    // Without a length, what follows a GET would be taken for the next request.
    asked.end(['POST', 'PUT'].includes(method) ? body : '');
  });
}

const ASKED = [
  ['POST', '/api/demo/restore'],
  ['POST', '/api/assets'],
  ['DELETE', '/api/projects/some'],
  ['PUT', '/api/projects/some'],
  ['GET', '/api/projects'],
] as const;

describe.each(ASKED)('%s %s', (method, path) => {
  it.each([
    ['of another origin', { origin: 'https://elsewhere.example' }],
    ['of another port', { origin: 'http://127.0.0.1:1' }],
    ['of a page without an origin', { origin: 'null' }],
    ['across sites', { 'sec-fetch-site': 'cross-site' }],
    ['of the same site but another origin', { 'sec-fetch-site': 'same-site' }],
    ['under a name that is not ours', { host: 'rebound.example' }],
  ])('%s is refused in a sentence, and nothing is done', async (_, headers) => {
    const [status, text] = await ask(method, path, headers, '<svg/>');
    expect([status, JSON.parse(text).error.code]).toEqual([403, 'refused']);
    expect((await server.call('GET', '/projects')).body).toEqual([]);
  });
});

describe('requests of our own', () => {
  it.each([
    ['pages', { 'sec-fetch-site': 'same-origin' }],
    ['addresses that were typed', { 'sec-fetch-site': 'none' }],
    ['programs', {}],
    ['names of this machine', { host: 'localhost:3000' }],
  ])('by %s are answered', async (_, headers) => {
    expect((await ask('GET', '/api/projects', headers))[0]).toBe(200);
  });

  it('with the origin that the page has are answered', async () => {
    const [status] = await ask('POST', '/api/assets', { origin: `http://${own}` }, '<svg/>');
    expect(status).toBe(201);
  });

  it('of other names are answered where they are allowed, and the page itself only under known names', async () => {
    const named = await startApp({ hosts: ['studio.example'] });
    own = new URL(named.url).host;
    expect((await ask('GET', '/api/projects', { host: 'studio.example:8443' }))[0]).toBe(200);
    expect((await ask('GET', '/', { host: 'rebound.example' }))[0]).toBe(403);
    await named.close();
  });
});
