// A picture traced again keeps its layers: other settings, a better scan, and what finds no match.
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { Evaluator } from '../evaluate/evaluator.ts';
import { drawingKey } from '../evaluate/keys.ts';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import type { Picture } from '../picture/types.ts';
import type { Source } from '../sources/index.ts';
import type { PictureSource } from '../sources/picture/picture.ts';
import { painting } from '../testing/pictures.ts';
import { NO_STAGES, wishesOf } from '../testing/projects.ts';
import { rectangle } from '../testing/shapes.ts';
import { TRACE_DEFAULTS } from '../trace/settings.ts';
import { arrive } from './arrive.ts';
import { applyCommand } from './commands/index.ts';
import { readProject } from './migrate.ts';
import { retrace } from './retrace.ts';
import { emptyProject, type Project } from './schema.ts';

const disc = (cx: number, cy: number, r: number) => flatten(ellipsePath(cx, cy, r, r), 0.001)[0]!;

/** A green board with a red and a yellow lamp on it, `scale` times as large. */
const sign = (
  scale = 1,
  lamps: readonly [number, number][] = [
    [40, 40],
    [80, 40],
  ],
) =>
  painting(120 * scale, 80 * scale, '#f4efe2', [
    [[rectangle(10.3 * scale, 10.4 * scale, 99.2 * scale, 60.1 * scale)], '#2f6f60'],
    ...lamps.map(([x, y], i) => [[disc(x * scale, y * scale, 12 * scale)], ['#c9593f', '#efc94c'][i]!] as const),
  ]);

const pictures = new Map<string, Picture>();
const contentOf = (source: Source) => ({ picture: pictures.get((source as PictureSource).asset)!, dpi: null });
const evaluator = () => new Evaluator({ content: contentOf });
const asset = (n: number, picture: Picture) => {
  const hash = String(n).repeat(64);
  pictures.set(hash, picture);
  return hash;
};
const options = wishesOf({ fallbackSize: 100 });

function projectOf(picture: Picture, mode: 'ink' | 'colours' = 'colours', file = 1): Project {
  const origin = { id: 'sign', name: 'sign.png', asset: asset(file, picture), trace: { ...TRACE_DEFAULTS, mode } };
  const { source, layers } = arrive('picture', origin, { picture, dpi: null }, NO_STAGES, options);
  return applyCommand(emptyProject('Sign'), { do: 'add-source', source, layers: [...layers] });
}

const sourceOf = (project: Project) => project.sources[0] as PictureSource;

/** Traces again with other settings and makes that the project's. */
function again(project: Project, change: Partial<PictureSource>): Project {
  const source = { ...sourceOf(project), ...change };
  const { source: next, layers, gone } = retrace(project, source, evaluator().traced(source), options);
  return applyCommand(project, { do: 'change-source', source: next, layers: [...layers], gone: [...gone] });
}

const stranded = (project: Project) => project.layers.flatMap((layer) => evaluator().outlines(project, layer).stranded);
const byColour = (project: Project, colour: string) =>
  project.layers.find(({ material }) => material.colour === colour)!;

describe('a picture brought in', () => {
  const project = projectOf(sign());

  it('becomes a layer a colour, its paper off, at its size', () => {
    expect(project.layers.map(({ material, shown }) => [material.colour, shown])).toEqual([
      ['#f4efe2', false],
      ['#2f6f60', true],
      ['#c9593f', true],
      ['#efc94c', true],
    ]);
    // What is built is 99.2 px wide and 100 mm.
    expect(sourceOf(project).scale).toBeCloseTo(100 / 99.2, 1);
    expect(stranded(project)).toEqual([]);
  });

  it('rests its colours on each other', () => {
    const [, board, red] = project.layers;
    expect(red!.base).toBeCloseTo(board!.base + heightOf(board!.build), 10);
  });

  it('is saved and read as any project', () => {
    expect(readProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
  });

  it('evaluates to the same outlines from the document alone', () => {
    const [first, second] = [evaluator(), evaluator()];
    for (const layer of project.layers) {
      expect(first.outlines(project, layer).regions).toEqual(second.outlines(project, layer).regions);
    }
  });
});

describe('the size that was promised', () => {
  // A mark 60 px wide in the middle of the sheet and a speck far to its left, which is what makes the whole 100 px wide.
  const spotted = painting(140, 80, '#ffffff', [
    [[rectangle(60, 20, 60, 40)], '#000000'],
    [[rectangle(20, 30, 2, 2)], '#000000'],
  ]);
  const specks = { prepare: [{ id: 'specks', on: true, action: { do: 'specks', ink: 20, holes: 0 } as const }] };
  const longest = (project: Project) => {
    const boxes = project.layers.flatMap((layer) =>
      layer.shown
        ? evaluator()
            .outlines(project, layer)
            .regions.map(({ outer }) => outer)
        : [],
    );
    const xs = boxes.flatMap((ring) => [...ring].filter((_, i) => i % 2 === 0));
    return [Math.min(...xs), Math.max(...xs)];
  };

  it('stays when specks go, in the middle of the sheet, and when they come back', () => {
    const project = projectOf(spotted, 'ink', 7);
    expect(longest(project)).toEqual([expect.closeTo(-50, 6), expect.closeTo(50, 6)]);
    const cleaned = again(project, specks);
    expect(longest(cleaned)).toEqual([expect.closeTo(-50, 3), expect.closeTo(50, 3)]);
    expect(sourceOf(cleaned).scale).toBeCloseTo(100 / 60, 2);
    expect(longest(again(cleaned, { prepare: [] }))).toEqual([expect.closeTo(-50, 3), expect.closeTo(50, 3)]);
    expect(longest(again(cleaned, { trace: { ...sourceOf(cleaned).trace, smooth: 0.5 } }))).toEqual([
      expect.closeTo(-50, 3),
      expect.closeTo(50, 3),
    ]);
  });

  it('gives way to one that was measured', () => {
    const project = projectOf(spotted, 'ink', 7);
    const measured = applyCommand(project, { do: 'scale-source', source: 'sign', scale: 0.7123 });
    expect(sourceOf(again(measured, specks))).toMatchObject({ scale: 0.7123, origin: sourceOf(measured).origin });
  });
});

describe('an underlay', () => {
  const painted = projectOf(sign());
  const none = { trace: { ...sourceOf(painted).trace, mode: 'none' } as const };

  it('has no pieces, and of its layers those that hold what was drawn over it', () => {
    const red = byColour(painted, '#c9593f');
    const drawnToo = {
      ...painted,
      layers: painted.layers.map((layer) =>
        layer === red ? { ...layer, members: [...layer.members, 'drawn-1'], skipped: [layer.members[0]!] } : layer,
      ),
    };
    const source = { ...sourceOf(drawnToo), ...none };
    const { source: next, layers, gone } = retrace(drawnToo, source, evaluator().traced(source), options);
    expect(next.pieces).toEqual([]);
    expect(evaluator().traced(next).drawing).toMatchObject({ shapes: [], warnings: [] });
    expect(layers).toEqual([{ ...red, members: ['drawn-1'] }]);
    expect(gone).toEqual(painted.layers.filter((layer) => layer !== red).map(({ id }) => id));
  });

  it('lies where it lay, and becomes layers when it is traced after all', () => {
    const bare = again(painted, none);
    expect(bare.layers).toEqual([]);
    const { scale, origin } = sourceOf(painted);
    expect(sourceOf(bare)).toMatchObject({ scale, origin });
    const traced = again(bare, { trace: sourceOf(painted).trace });
    expect(traced.layers.map(({ material }) => material.colour)).toEqual(
      painted.layers.map(({ material }) => material.colour),
    );
    expect(readProject(JSON.parse(JSON.stringify(bare)))).toEqual(bare);
  });
});

describe('traced again', () => {
  const painted = projectOf(sign());
  const red = byColour(painted, '#c9593f');
  const worked = applyCommand(painted, {
    do: 'change-layers',
    layers: [red.id],
    change: { name: 'Port lamp', build: { depth: 9, edge: { profile: 'chamfer' } }, material: { roughness: 0.1 } },
  });

  it('with other settings, layers keep their names, recipes and pieces', () => {
    const next = again(worked, { trace: { ...sourceOf(worked).trace, smooth: 0.5, corner: 40 } });
    expect(next.layers.map(({ id }) => id)).toEqual(worked.layers.map(({ id }) => id));
    expect(next.layers.find(({ id }) => id === red.id)).toMatchObject({
      name: 'Port lamp',
      build: { depth: 9 },
      material: { roughness: 0.1 },
    });
    expect(stranded(next)).toEqual([]);
    expect(drawingKey(sourceOf(next))).not.toBe(drawingKey(sourceOf(worked)));
  });

  it('from a scan three times as large, everything stays where it was and as large as it was', () => {
    const next = again(worked, { asset: asset(3, sign(3)), width: 360, height: 240 });
    expect(next.layers.map(({ id }) => id)).toEqual(worked.layers.map(({ id }) => id));
    expect(stranded(next)).toEqual([]);
    for (const layer of worked.layers) {
      const box = (project: Project) => {
        const [region] = evaluator().outlines(project, project.layers.find(({ id }) => id === layer.id)!).regions;
        const xs = region!.outer.filter((_, i) => i % 2 === 0);
        return [Math.min(...xs), Math.max(...xs)];
      };
      for (const [i, v] of box(worked).entries()) expect(Math.abs(box(next)[i]! - v)).toBeLessThan(0.2);
    }
  });

  it('what the new trace does not have is stranded, not lost; it comes back when it can', () => {
    const one = again(worked, { asset: asset(4, sign(1, [[40, 40]])) });
    const yellow = byColour(worked, '#efc94c');
    expect(stranded(one)).toEqual(yellow.members);
    expect(one.layers.find(({ id }) => id === yellow.id)!.members).toEqual(yellow.members);
    const both = again(one, { asset: sourceOf(worked).asset });
    expect(stranded(both)).toEqual([]);
    expect(both.layers.map(({ id }) => id)).toEqual(worked.layers.map(({ id }) => id));
  });

  it('what is new gets a layer of its own colour, or joins the one it has', () => {
    const three = painting(120, 80, '#f4efe2', [
      [[rectangle(10.3, 10.4, 99.2, 60.1)], '#2f6f60'],
      [[disc(40, 40, 12)], '#c9593f'],
      [[disc(80, 40, 12)], '#efc94c'],
      [[disc(60, 22, 7)], '#c9593f'],
      [[disc(60, 58, 7)], '#20344a'],
    ]);
    const next = again(worked, { asset: asset(5, three) });
    expect(next.layers.find(({ id }) => id === red.id)!.members).toHaveLength(2);
    expect(next.layers).toHaveLength(worked.layers.length + 1);
    expect(next.layers.at(-1)!.material.colour).toBe('#20344a');
  });

  it('a colour that was taken from the picture follows it, one that was chosen stays', () => {
    const chosen = applyCommand(worked, {
      do: 'change-layers',
      layers: [byColour(worked, '#efc94c').id],
      change: { material: { colour: '#ffffff' } },
    });
    const faded = painting(120, 80, '#f4efe2', [
      [[rectangle(10.3, 10.4, 99.2, 60.1)], '#3a7a6b'],
      [[disc(40, 40, 12)], '#c9593f'],
      [[disc(80, 40, 12)], '#e8c040'],
    ]);
    const next = again(chosen, { asset: asset(6, faded) });
    const colourOf = (n: number) => next.layers[n]!.material.colour;
    expect([colourOf(1), colourOf(3)]).toEqual(['#3a7a6b', '#ffffff']);
  });
});
