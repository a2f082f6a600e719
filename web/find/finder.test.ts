// What typing finds.
import { describe, expect, it } from 'vitest';
import { type Findable, matching } from './finder.ts';

const all: Findable[] = [
  ['Build or leave out', 'layers'],
  ['Build', 'station'],
  ['Undo', 'command'],
  ['Look straight from the back', 'command'],
  ['Étoile', 'layer'],
  ['Boat build', 'project'],
  ['Rebuild', 'project'],
].map(([words, kind]) => ({ id: words!, words: words!, kind: kind!, act: () => {} }));
const found = (typed: string) => matching(all, typed).map(({ id }) => id);

describe('finding by typing', () => {
  it('finds everything while nothing is typed', () => expect(matching(all, '  ')).toBe(all));
  it('has what is called just so first, then what begins so, then words that do, then the rest', () =>
    expect(found('build')).toEqual(['Build', 'Build or leave out', 'Boat build', 'Rebuild']));
  it('takes words in any order and without accents', () => {
    expect(found('back look')).toEqual(['Look straight from the back']);
    expect(found('ETOILE')).toEqual(['Étoile']);
  });
  it('finds by kind, and nothing where nothing is', () => {
    expect(found('station')).toEqual(['Build']);
    expect(found('xyz')).toEqual([]);
  });
});
