// What typing finds.
import { describe, expect, it } from 'vitest';
import { type Findable, matching } from './finder.ts';

const all: Findable[] = [
  ['Go to Build', 'station'],
  ['Undo', 'command'],
  ['Look straight from the back', 'command'],
  ['Étoile', 'layer'],
  ['Build or leave out', 'layers'],
  ['Rebuild', 'project'],
].map(([words, kind]) => ({ id: words!, words: words!, kind: kind!, act: () => {} }));
const found = (typed: string) => matching(all, typed).map(({ id }) => id);

describe('finding by typing', () => {
  it('finds everything while nothing is typed', () => expect(matching(all, '  ')).toBe(all));
  it('has what begins so first, then words that do, then the rest', () =>
    expect(found('build')).toEqual(['Build or leave out', 'Go to Build', 'Rebuild']));
  it('takes words in any order and without accents', () => {
    expect(found('back look')).toEqual(['Look straight from the back']);
    expect(found('ETOILE')).toEqual(['Étoile']);
  });
  it('finds by kind, and nothing where nothing is', () => {
    expect(found('station')).toEqual(['Go to Build']);
    expect(found('xyz')).toEqual([]);
  });
});
