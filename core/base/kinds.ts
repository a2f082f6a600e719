// kinds.ts — lists of kinds, from which everything else follows: unions of their schemas, and the kind that goes by a name.
import type { z } from 'zod';

/** The schemas of a list of kinds, one by one, as unions want them. */
export type SchemasOf<Kinds extends readonly { readonly schema: z.ZodType }[]> = {
  -readonly [K in keyof Kinds]: Kinds[K]['schema'];
};

export const schemasOf = <const Kinds extends readonly { readonly schema: z.ZodType }[]>(kinds: Kinds) =>
  kinds.map(({ schema }) => schema) as SchemasOf<Kinds>;

/**
 * The kind of a list whose `field` is `name`. Members of a list differ in what they take; who asks for one by the name that data
 * carries hands it that very data, so that each sees only its own, which `Any` cannot say.
 * @throws for a name that no kind has
 */
export function kindNamed<Any>(kinds: readonly object[], field: string, name: string): Any {
  const found = kinds.find((kind) => (kind as Record<string, unknown>)[field] === name);
  if (!found) throw new Error(`There is no kind whose ${field} is “${name}”.`);
  return found as Any;
}
