// migrate.ts — documents of any age to the current version.
import { GeometryError } from '../base/errors.ts';
import { DOCUMENT_VERSION, type Project, ProjectSchema } from './schema.ts';

/**
 * @param value a parsed document of this or an older version
 * @throws {GeometryError} 'bad-file' naming the first field that does not fit
 */
export function readProject(value: unknown): Project {
  const version = (value as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > DOCUMENT_VERSION) {
    throw new GeometryError(
      'bad-file',
      `The project was saved by a newer version of the application (document ${version}; this one reads up to ${DOCUMENT_VERSION}). It was left as it is; open it with the newer one.`,
    );
  }
  const result = ProjectSchema.safeParse(brought(value, version));
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  throw new GeometryError(
    'bad-file',
    `The project cannot be read: ${issue.path.join('.') || 'document'}: ${issue.message}.`,
  );
}

type Old = Record<string, unknown>;

/** A list with each of its members changed; what is no list is left to the schema. */
const each = (list: unknown, change: (member: Old) => Old) => (Array.isArray(list) ? list.map(change) : list);

/** Changes of the document from one version to the next, by the older one. */
const STEPS: Readonly<Record<number, (document: Old) => Old>> = {
  // Sources got edits.
  1: ({ sources, ...document }) => ({ ...document, sources: each(sources, (source) => ({ edits: [], ...source })) }),
  // Edges got a way to end where they reach too far, backs an edge of their own, and walls rows.
  2: ({ layers, ...document }) => ({
    ...document,
    layers: each(layers, ({ edge, ...layer }) => ({
      ...layer,
      edge: { way: 'in', beyond: 'ridge', corners: 'mitred', mitreLimit: 5, ...(edge as object) },
      backEdge: null,
      wallRows: 1,
    })),
  }),
  // Profiles could be drawn, caps left off, and meshes shaded, laid on pictures and tidied as one wishes.
  3: ({ layers, ...document }) => ({
    ...document,
    profiles: [],
    layers: each(layers, (layer) => ({
      ...layer,
      caps: 'both',
      shading: { crease: 40, blend: 'none' },
      uv: 'none',
      tidy: null,
    })),
  }),
  // Layers can become something else than slabs; those of meshes that were brought in never were any.
  4: ({ layers, ...document }) => {
    const sources: readonly Old[] = Array.isArray(document.sources) ? document.sources : [];
    const meshes = new Set(sources.flatMap(({ kind, id }) => (kind === 'mesh' ? [id] : [])));
    return {
      ...document,
      layers: each(layers, ({ depth, edge, backEdge, faces, cell, wallRows, caps, ...layer }) => ({
        ...layer,
        build: meshes.has(layer.source)
          ? { kind: 'part', depth }
          : { kind: 'slab', depth, edge, backEdge, faces, cell, wallRows, caps },
      })),
    };
  },
  // Tidying can close rims, and how far down an edge comes can follow how far in it reaches; edges that are as steep as they are wide do from now on.
  5: ({ layers, ...document }) => ({
    ...document,
    layers: each(layers, ({ build, tidy, ...layer }) => {
      const { edge, backEdge, ...rest } = build as Old;
      return {
        ...layer,
        build: edge ? { ...rest, edge: followed(edge), backEdge: followed(backEdge) } : build,
        tidy: tidy ? { close: false, ...(tidy as object) } : tidy,
      };
    }),
  }),
};

function followed(edge: unknown): unknown {
  const known = edge as { rise?: unknown; reach?: unknown } | null;
  return known && known.rise === known.reach ? { ...known, rise: null } : edge;
}

function brought(value: unknown, version: unknown): unknown {
  let document = value;
  for (let from = version as number; ; from++) {
    const step = STEPS[from];
    if (!step) return document;
    document = { ...step(document as Old), version: from + 1 };
  }
}
