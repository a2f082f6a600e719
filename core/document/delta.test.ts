// What changed between documents: applied to the first it gives the second, and what did not change is shared.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deltaOf, withDelta } from './delta.ts';

const layer = fc.record({
  id: fc.constantFrom('a', 'b', 'c', 'd'),
  base: fc.integer(),
  members: fc.array(fc.string()),
});
const document = fc.record(
  {
    name: fc.string(),
    layers: fc.uniqueArray(layer, { selector: ({ id }) => id }),
    stage: fc.option(fc.record({ lamps: fc.array(fc.integer()) }), { nil: undefined }),
  },
  { requiredKeys: ['name', 'layers'] },
);

describe('a delta', () => {
  it('leads from any document to any other, also when it has crossed to another thread', () => {
    fc.assert(
      fc.property(document, document, (before, after) => {
        expect(withDelta(before, structuredClone(deltaOf(before, after)))).toEqual(after);
        expect(withDelta(null, structuredClone(deltaOf(null, after)))).toEqual(after);
      }),
    );
  });

  it('holds what changed and nothing else, and leaves the rest the very same objects', () => {
    const members = Array.from({ length: 5000 }, (_, i) => `shape ${i}`);
    const before = {
      unit: 'mm',
      profiles: [],
      layers: [
        { id: 'low', base: 0, members, build: { kind: 'slab', depth: 2 } },
        { id: 'high', base: 2, members, build: { kind: 'slab', depth: 1 } },
      ],
    };
    const [low, high] = before.layers as [(typeof before.layers)[0], (typeof before.layers)[0]];
    const after = { ...before, layers: [{ ...high, build: { ...high.build, depth: 9 } }, low] };
    const delta = structuredClone(deltaOf(before, after));
    expect(JSON.stringify(delta).length).toBeLessThan(300);
    const next = withDelta(before, delta) as typeof before;
    expect(next).toEqual(after);
    expect(next.layers[1]).toBe(low);
    expect(next.layers[0]!.members).toBe(members);
    expect(next.profiles).toBe(before.profiles);
  });
});
