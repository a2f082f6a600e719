// What the server answers is what the protocol lists, and docs/api.md is written from that list: `npx vitest run server/routes -u`
// writes it anew.
import type { Router } from 'express';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { ErrorReplySchema, ProjectSchema, ROUTES, type Route } from '../../core/index.ts';
import { assetRoutes } from './assets.ts';
import { demoRoutes } from './demo.ts';
import { exportRoutes } from './exports.ts';
import { projectFileRoutes, projectRoutes } from './projects.ts';

/** Routers are asked for their routes alone. */
const NOTHING = {} as never;

const keyOf = ({ method, path }: Pick<Route, 'method' | 'path'>) => `${method} ${path}`;

function answered(router: Router): string[] {
  return router.stack.flatMap(({ route }) =>
    route ? route.stack.map(({ method }) => keyOf({ method: method as Route['method'], path: route.path })) : [],
  );
}

describe('the list of requests', () => {
  it('is that of the routes there are', () => {
    const routers = [assetRoutes, demoRoutes, exportRoutes, projectFileRoutes, projectRoutes];
    const there = new Set(['get /health', ...routers.flatMap((routes) => answered(routes(NOTHING)))]);
    expect(new Set(ROUTES.map(keyOf))).toEqual(there);
  });

  it('is written out in docs/api.md', async () => {
    await expect(page().replace(/ +\n/g, '\n')).toMatchFileSnapshot('../../docs/api.md');
  });
});

interface Json {
  readonly type?: string;
  readonly properties?: Readonly<Record<string, Json>>;
  readonly required?: readonly string[];
  readonly items?: Json;
  readonly prefixItems?: readonly Json[];
  readonly additionalProperties?: Json | boolean;
  readonly anyOf?: readonly Json[];
  readonly oneOf?: readonly Json[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly minimum?: number;
  readonly exclusiveMinimum?: number;
  readonly maximum?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly pattern?: string;
}

const jsonOf = (schema: z.ZodType) => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Json;
const DOCUMENT = JSON.stringify(jsonOf(ProjectSchema));

function page(): string {
  const requests = ROUTES.map(({ method, path, does, query, body, reply }) =>
    [
      `### ${method.toUpperCase()} /api${path}`,
      does,
      ...(query ? [`Query:\n\n${told(jsonOf(query))}`] : []),
      ...(body ? [`Takes ${loadOf(body)}`] : []),
      reply ? `Answers with ${loadOf(reply)}` : 'Answers with nothing (204).',
    ].join('\n\n'),
  );
  return `# The HTTP interface

Written from the Zod schemas in \`core/protocol/http.ts\` by a test, which fails when it is out of date. JSON unless said otherwise; lengths in the project's unit, y up. Requests that change something must come from the page's own origin.

What fails is answered with 400 (what was sent is wrong), 403 (from elsewhere), 404 (not there), 409 (something newer was saved), 413 (too large) or 500, and

${told(jsonOf(ErrorReplySchema))}

## Requests

${requests.join('\n\n')}

## The document

${told(jsonOf(ProjectSchema))}
`;
}

const loadOf = (load: z.ZodType | string) => (typeof load === 'string' ? `${load}.` : `\n\n${told(jsonOf(load))}`);

/** A schema as a list, fields inside fields further in. */
function told(schema: Json, depth = 0): string {
  const inset = '  '.repeat(depth);
  if (schema.items && !schema.properties) return `${inset}- a list of\n${told(schema.items, depth + 1)}`;
  const required = new Set(schema.required);
  return Object.entries(schema.properties ?? {})
    .map(([name, field]) => `${inset}- \`${name}\`${required.has(name) ? '' : ', if need be'}: ${kindOf(field, depth)}`)
    .join('\n');
}

function kindOf(field: Json, depth: number): string {
  const { $schema: _, ...plain } = field as Json & { $schema?: string };
  if (depth === 0 && isDocument(plain)) return 'the document, as below';
  const choices = field.anyOf ?? field.oneOf;
  if (choices) return choices.map((each) => kindOf(each, depth)).join(', or ');
  if (field.enum) return field.enum.map((value) => `\`${value}\``).join(', ');
  if (field.const !== undefined) return `\`${field.const}\``;
  if (field.prefixItems) return `[${field.prefixItems.map((each) => kindOf(each, depth)).join('; ')}]`;
  if (field.type === 'array') return `a list of ${kindOf(field.items ?? {}, depth)}`;
  if (field.properties) return `\n${told(field, depth + 1)}`;
  if (typeof field.additionalProperties === 'object') return `by name, ${kindOf(field.additionalProperties, depth)}`;
  if (field.type === 'null') return 'null';
  const limits = [
    field.minimum === undefined || field.minimum < -1e15 ? '' : `from ${field.minimum}`,
    field.exclusiveMinimum === undefined ? '' : `above ${field.exclusiveMinimum}`,
    field.maximum === undefined || field.maximum > 1e15 ? '' : `to ${field.maximum}`,
    field.maxLength === undefined ? '' : `to ${field.maxLength} letters`,
  ].filter(Boolean);
  return [
    { integer: 'a whole number', number: 'a number', string: 'a text', boolean: 'true or false' }[field.type ?? ''] ??
      'anything',
    ...limits,
  ].join(' ');
}

const isDocument = (field: Json) =>
  JSON.stringify(field.properties) === JSON.stringify((JSON.parse(DOCUMENT) as Json).properties);
