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
      `The project was saved by a newer version (document ${version}, this one reads up to ${DOCUMENT_VERSION}).`,
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

/** Changes of the document from one version to the next, by the older one. */
const STEPS: Readonly<Record<number, (document: Record<string, unknown>) => Record<string, unknown>>> = {
  // Sources got edits.
  1: ({ sources, ...document }) => ({
    ...document,
    sources: Array.isArray(sources) ? sources.map((source) => ({ edits: [], ...source })) : sources,
  }),
  // Edges got a way to end where they reach too far, backs an edge of their own, and walls rows.
  2: ({ layers, ...document }) => ({
    ...document,
    layers: Array.isArray(layers)
      ? layers.map(({ edge, ...layer }) => ({
          ...layer,
          edge: { way: 'in', beyond: 'ridge', corners: 'mitred', mitreLimit: 5, ...edge },
          backEdge: null,
          wallRows: 1,
        }))
      : layers,
  }),
  // Profiles could be drawn, caps left off, and meshes shaded, laid on pictures and tidied as one wishes.
  3: ({ layers, ...document }) => ({
    ...document,
    profiles: [],
    layers: Array.isArray(layers)
      ? layers.map((layer) => ({
          ...layer,
          caps: 'both',
          shading: { crease: 40, blend: 'none' },
          uv: 'none',
          tidy: null,
        }))
      : layers,
  }),
};

function brought(value: unknown, version: unknown): unknown {
  let document = value;
  for (let from = version as number; ; from++) {
    const step = STEPS[from];
    if (!step) return document;
    document = { ...step(document as Record<string, unknown>), version: from + 1 };
  }
}
