// delta.ts — what changed from one document to the next, as plain data: so that only that has to go to another thread, and what did
// not change stays the very same objects there too.

/** `same`: as it was. `value`: something else. `fields`: an object of which some fields changed. `items`: a list of things with ids. */
export type Delta =
  | { readonly is: 'same' }
  | { readonly is: 'value'; readonly value: unknown }
  | { readonly is: 'fields'; readonly fields: Readonly<Record<string, Delta>>; readonly gone: readonly string[] }
  | { readonly is: 'items'; readonly items: readonly Item[] };

/** A member as it was, by its old place; or what became of the one there; or a new one. */
type Item = number | { readonly from: number; readonly delta: Delta } | { readonly value: unknown };

const SAME: Delta = { is: 'same' };

/** @param before null for nothing known */
export function deltaOf(before: unknown, after: unknown): Delta {
  if (Object.is(before, after)) return SAME;
  if (Array.isArray(before) && Array.isArray(after) && areIdentified(before) && areIdentified(after)) {
    return { is: 'items', items: itemsOf(before, after) };
  }
  if (isRecord(before) && isRecord(after)) {
    const fields: Record<string, Delta> = {};
    for (const [name, value] of Object.entries(after)) {
      if (!Object.is(before[name], value)) fields[name] = deltaOf(before[name], value);
    }
    return { is: 'fields', fields, gone: Object.keys(before).filter((name) => !(name in after)) };
  }
  return { is: 'value', value: after };
}

function itemsOf(before: readonly Identified[], after: readonly Identified[]): Item[] {
  const places = new Map(before.map(({ id }, i) => [id, i]));
  return after.map((member): Item => {
    const from = places.get(member.id);
    if (from === undefined) return { value: member };
    return before[from] === member ? from : { from, delta: deltaOf(before[from], member) };
  });
}

/** The document that `delta` leads to from `before`. */
export function withDelta(before: unknown, delta: Delta): unknown {
  switch (delta.is) {
    case 'same':
      return before;
    case 'value':
      return delta.value;
    case 'items': {
      const list = before as readonly unknown[];
      return delta.items.map((item) => {
        if (typeof item === 'number') return list[item];
        return 'from' in item ? withDelta(list[item.from], item.delta) : item.value;
      });
    }
    case 'fields': {
      const next: Record<string, unknown> = { ...(before as Record<string, unknown>) };
      for (const name of delta.gone) delete next[name];
      for (const [name, field] of Object.entries(delta.fields)) next[name] = withDelta(next[name], field);
      return next;
    }
  }
}

interface Identified {
  readonly id: string;
}

const areIdentified = (list: readonly unknown[]): list is readonly Identified[] =>
  list.every((member) => isRecord(member) && typeof member.id === 'string');

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
