// The command line as its users meet it: words in, files, exit codes and one clear line out.
import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { NodeIO } from '@gltf-transform/core';
import { encode } from 'fast-png';
import { afterAll, describe, expect, it } from 'vitest';
import { readMeshes } from '../core/index.ts';
import { audit } from '../core/testing/audit.ts';
import { validateBytes } from '../core/testing/validator.ts';
import type { FileReport } from './build-file.ts';

const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function run(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin.js', ...words], { encoding: 'utf8' });
  return { status, stdout, stderr };
}

const input = (name: string, content: string | Uint8Array): string => {
  const file = join(folder, name);
  writeFileSync(file, content);
  return file;
};
const square = (attributes = '') =>
  `<svg viewBox="0 0 24 24"><rect x="2" y="2" width="20" height="10" ${attributes}/></svg>`;

/** Builds one file and returns its report. */
function build(file: string, out: string, ...options: string[]): FileReport {
  const report = join(folder, 'report.json');
  const { status, stderr } = run('build', file, '--out', join(folder, out), '--report', report, ...options);
  // What was made otherwise than it was asked for is said, a line each.
  expect([status, stderr.replaceAll(/^outline-stack: .*\n/gm, '')]).toEqual([0, '']);
  const { version, files } = JSON.parse(readFileSync(report, 'utf8'));
  expect([version, files.length]).toEqual([1, 1]);
  return files[0];
}

/** Positions of a binary STL, nine a triangle. */
function readStlPositions(bytes: Buffer): Float32Array {
  const count = bytes.readUInt32LE(80);
  const positions = new Float32Array(9 * count);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 9; k++) positions[9 * t + k] = bytes.readFloatLE(84 + 50 * t + 12 + 4 * k);
  }
  return positions;
}

describe('outline-stack build', () => {
  const file = input('sign.svg', square());

  it('writes every format, told by the ending or by --format', async () => {
    const glb = build(file, 'sign.glb', '--depth', '3');
    expect((await validateBytes(new Uint8Array(readFileSync(glb.output)))).issues.messages).toEqual([]);
    build(file, 'sign.obj');
    expect(readFileSync(join(folder, 'sign.obj'), 'utf8')).toMatch(/^mtllib sign\.mtl/);
    expect(existsSync(join(folder, 'sign.mtl'))).toBe(true);
    expect(readFileSync(build(file, 'sign.bin', '--format', 'stl').output)).toHaveLength(84 + 50 * 12);
  });

  it.each(['svg', 'dxf'])(
    'writes the outlines alone as %s, in millimetres, and builds the same from them',
    (format) => {
      const flat = build(file, `flat.${format}`, '--size', '40');
      expect(flat).toMatchObject({
        ok: true,
        counts: { points: 4, edges: 4, faces: 1, triangles: 0 },
        area: 800,
        size: [40, 20, 0],
      });
      const again = build(flat.output, 'again.stl', '--depth', '3');
      expect(again).toMatchObject({ closed: true, size: [40, 20, 3] });
      expect(again.volume).toBeCloseTo(2400, 4);
    },
  );

  it('reports what it made', () => {
    const report = build(file, 'box.stl', '--depth', '3');
    expect(report).toMatchObject({
      ok: true,
      counts: { points: 8, edges: 14, faces: 8, triangles: 12 },
      closed: true,
      crossings: 0,
      edgePath: 'none',
      size: [20, 10, 3],
      warnings: [],
    });
    expect(report.volume).toBeCloseTo(600, 6);
    expect(report.area).toBeCloseTo(2 * 200 + 60 * 3, 6);
    expect(report.safeReach).toBeCloseTo(5, 6);
    expect(Object.keys(report.ms)).toEqual(['read', 'outline', 'mesh', 'write', 'total']);
  });

  it('stands the result upright: centred on x and y, back at z = 0', () => {
    const positions = readStlPositions(readFileSync(build(file, 'box.stl', '--depth', '3').output));
    const along = (axis: number) => positions.filter((_, i) => i % 3 === axis);
    expect([Math.min(...along(0)), Math.max(...along(0))]).toEqual([-10, 10]);
    expect([Math.min(...along(1)), Math.max(...along(1))]).toEqual([-5, 5]);
    expect([Math.min(...along(2)), Math.max(...along(2))]).toEqual([0, 3]);
  });

  it('takes edges, sizes and faces as asked', () => {
    const chamfered = build(file, 'a.stl', '--depth', '4', '--edge', 'chamfer', '--reach', '1', '--steps', '1');
    // Two frusta of sections 20 × 10, 19 × 9 and 18 × 8, for which Simpson's rule is exact, and the wall between them.
    expect(chamfered.volume).toBeCloseTo(2 * 200 + 2 * ((200 + 4 * 171 + 144) / 6), 5);
    expect(chamfered.edgePath).toBe('skeleton');
    expect(build(file, 'b.stl', '--reach', '1', '--edge-on', 'front', '--rise', '2').volume).toBeGreaterThan(
      chamfered.volume,
    );
    expect(build(file, 'c.stl', '--size', '100').size[0]).toBeCloseTo(100, 4);
    expect(build(file, 'd.stl', '--faces', 'even', '--cell', '2').counts.triangles).toBeGreaterThan(100);
    expect(build(file, 'e.stl', '--edge', 'none', '--reach', '1').edgePath).toBe('none');
  });

  it('keeps physical sizes in millimetres', () => {
    const real = input('real.svg', square().replace('<svg', '<svg width="24cm" height="24cm"'));
    expect(build(real, 'real.stl').size[0]).toBeCloseTo(200, 4);
  });

  it('takes a recipe, over which options win', () => {
    const recipe = input(
      'recipe.json',
      JSON.stringify({ depth: 7, edge: { profile: 'chamfer', on: 'front', reach: 1, steps: 1 } }),
    );
    expect(build(file, 'r.stl', '--recipe', recipe).size[2]).toBeCloseTo(7, 6);
    expect(build(file, 'r.stl', '--recipe', recipe, '--depth', '5').size[2]).toBeCloseTo(5, 6);
    const wrong = input('wrong.json', '{"depth": "deep"}');
    expect(run('build', file, '--out', join(folder, 'x.stl'), '--recipe', wrong)).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/^outline-stack: --recipe .*wrong\.json: depth: .+\n$/),
    });
  });

  it('says what was left out', () => {
    const stroked = input('stroked.svg', square('filter="url(#blur)"'));
    expect(build(stroked, 's.stl').warnings).toEqual([
      { code: 'left-out', message: 'Left out: 1 × filter, first at rect 1.' },
    ]);
  });

  it('fails a file in one line and writes the others', () => {
    const many = join(folder, 'many');
    mkdirSync(join(many, 'deeper'), { recursive: true });
    writeFileSync(join(many, 'good.svg'), square());
    writeFileSync(join(many, 'deeper', 'Also Good.SVG'), square());
    writeFileSync(join(many, 'bad.svg'), '<svg><g></svg>');
    writeFileSync(join(many, 'empty.svg'), '');
    writeFileSync(join(many, 'ignored.txt'), 'x');
    const out = join(folder, 'made');
    const { status, stdout, stderr } = run('build', many, '--out', out, '--format', 'stl');
    expect([status, stdout]).toEqual([1, '2 of 4 built, 24 triangles\n']);
    expect(readdirSync(out).sort()).toEqual(['deeper', 'good.stl']);
    expect(readdirSync(join(out, 'deeper'))).toEqual(['Also Good.stl']);
    const lines = stderr.trim().split('\n');
    expect(lines).toHaveLength(2);
    expect(stderr).toMatch(/bad\.svg: The file is not well-formed XML: line 1, column \d+: .+\./);
    expect(stderr).not.toMatch(/at .*\.js:/);
  });

  it.each([
    [[], /outline-stack COMMAND/],
    [['explode'], /no command “explode”/],
    [['build'], /at least one INPUT/],
    [['build', file], /needs --out/],
    [['build', 'nowhere.svg', '--out', 'x.glb'], /nowhere\.svg: no such file/],
    [['build', file, '--out', 'x.docx'], /ends in \.docx; known formats/],
    [['build', file, '--out', 'x.glb', '--depth', 'thick'], /--depth needs a number, not “thick”/],
    [['build', file, '--out', 'x.glb', '--depth=-1'], /--depth must be more than 0/],
    [['build', file, '--out', 'x.glb', '--edge', 'wavy'], /--edge is “wavy”; it can be none, round, chamfer/],
    [['build', file, '--out', 'x.glb', '--steps', '1.5'], /--steps must be a whole number/],
    [['build', file, '--out', 'x.glb', '--depth', '-3'], /--depth must be more than 0 .*, not -3/],
    [['build', file, '--out', 'x.glb', '--colour', 'red'], /there is no option --colour/],
    [['build', file, '--out', 'x.glb', '--dpeth', '3'], /there is no option --dpeth; did you mean --depth\?/],
    [['biuld', file], /there is no command “biuld”; did you mean build\?/],
    [['build', 'body.obj', '--out', 'x.glb'], /body\.obj is a mesh, .*outline-stack proof body\.obj/],
    [['letters', 'A', '--font', 'grotesk', '--out', 'x.svg'], /no such file, and the fonts .*did you mean grotesque\?/],
    [['build', file, file, '--out', 'x.glb'], /--out x\.glb names a file, and 2 files are to be made; name a folder/],
  ])('%j is wrong usage', (words, message) => {
    const { status, stdout, stderr } = run(...(words as string[]));
    expect(status).toBe(2);
    expect(stdout + stderr).toMatch(message as RegExp);
    if ((words as string[]).length > 0) expect(stderr.trim().split('\n')).toHaveLength(1);
  });

  it('explains itself', () => {
    expect(run('--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('letters TEXT --font F') });
    expect(run('build', '--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('--edge-on both') });
    for (const verb of ['trace', 'letters', 'proof', 'project']) {
      expect(run(verb, '--help')).toMatchObject({
        status: 0,
        stdout: expect.stringMatching(`^outline-stack ${verb} `),
      });
    }
    expect(run('--version').stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
  });

  it('says what was made otherwise than it was asked for', () => {
    const out = join(folder, 'lowered.glb');
    const { status, stderr } = run('build', file, '--out', out, '--depth', '2', '--reach', '5');
    expect(status).toBe(0);
    expect(stderr).toMatch(/The edges rise 10 together, more than the depth of 2; they were lowered to fit/);
  });

  it('writes the curves of a DXF as cutters take them', () => {
    const round = join(folder, 'round.svg');
    writeFileSync(round, '<svg viewBox="0 0 20 20"><circle cx="10" cy="10" r="8"/></svg>');
    const out = join(folder, 'round.dxf');
    expect(run('build', round, '--out', out).status).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('SPLINE');
    expect(run('build', round, '--out', out, '--curves', 'arcs').status).toBe(0);
    expect(readFileSync(out, 'utf8')).not.toContain('SPLINE');
  });

  it('makes no folder under the name of a file', () => {
    const taken = join(folder, 'taken');
    writeFileSync(taken, 'a file');
    const { status, stderr } = run('build', file, '--out', join(taken, 'x.glb'));
    expect(status).toBe(1);
    expect(stderr).toMatch(/taken is a file, so nothing can be written in a folder of that name/);
  });
});

describe('a recipe', () => {
  it('says what all layers are made of', async () => {
    const recipe = input('brass.json', JSON.stringify({ depth: 3, material: { colour: '#b5893a', metalness: 1 } }));
    const drawing = input('bar.svg', square('fill="#2244aa"'));
    build(drawing, 'brass.glb', '--recipe', recipe);
    const [part] = await readMeshes(new Uint8Array(readFileSync(join(folder, 'brass.glb'))), 'glb');
    expect(part!.material).toMatchObject({ colour: '#b5893a', metalness: 1 });
  });
});

describe('a material', () => {
  const drawing = input('plate.svg', square('fill="#2244aa"'));
  const made = async (...options: string[]) => {
    build(drawing, 'plate.glb', ...options);
    return new Uint8Array(readFileSync(join(folder, 'plate.glb')));
  };
  it('of the library keeps the colour, or brings its own', async () => {
    const [enamel] = await readMeshes(await made('--material', 'enamel'), 'glb');
    expect(enamel!.material).toMatchObject({ colour: '#2244aa', roughness: 0.35 });
    const [gold] = await readMeshes(await made('--material', 'gold'), 'glb');
    expect(gold!.material).toMatchObject({ colour: '#ffe29b', metalness: 1 });
  });
  it('comes from a file, and from a recipe side by side', async () => {
    const file = input('own.json', JSON.stringify({ colour: '#102030', ior: 1.33 }));
    expect((await readMeshes(await made('--material', file), 'glb'))[0]!.material.colour).toBe('#102030');
    const side = { colour: '#ff0000', opacity: 1, roughness: 0.5, metalness: 0 };
    const recipe = input('sides.json', JSON.stringify({ sideMaterials: { wall: side } }));
    const parts = await readMeshes(await made('--recipe', recipe), 'glb');
    expect(parts.map(({ material }) => material.colour).toSorted()).toEqual(['#2244aa', '#ff0000']);
  });
  it('has pictures that lie beside its file, and says where one is missing or cannot be kept', async () => {
    const dots = encode({ width: 2, height: 1, data: new Uint8Array([255, 0, 0, 0, 0, 255]), channels: 3 });
    input('dots.png', dots);
    const file = input('pictured.json', JSON.stringify({ colour: '#ffffff', picture: { name: 'dots.png' } }));
    const bytes = await made('--material', file);
    const document = await new NodeIO().readBinary(bytes);
    const [material] = document.getRoot().listMaterials();
    expect(material!.getBaseColorTexture()!.getSize()).toEqual([2, 1]);
    expect((await validateBytes(bytes)).issues.numErrors).toBe(0);

    const side = { colour: '#ff0000', opacity: 1, roughness: 0.5, metalness: 0, picture: { name: 'dots.png' } };
    const recipe = input('pictured-sides.json', JSON.stringify({ sideMaterials: { front: side } }));
    const sided = await new NodeIO().readBinary(await made('--recipe', recipe));
    const textured = sided
      .getRoot()
      .listMaterials()
      .filter((each) => each.getBaseColorTexture());
    expect(textured).toHaveLength(1);

    for (const [name, out] of [
      ['STL', 'plate.stl'],
      ['SVG', 'plate-outlines.svg'],
    ] as const) {
      const { warnings } = build(drawing, out, '--material', file);
      expect(warnings.map(({ message }) => message)).toContain(
        `Left out: the pictures of the material, which ${name} does not hold.`,
      );
    }
    const lost = input('lost.json', JSON.stringify({ picture: { name: 'lost.png' } }));
    const { status, stderr } = run('build', drawing, '--out', join(folder, 'x.glb'), '--material', lost);
    expect(status).toBe(2);
    expect(stderr).toMatch(/there is no picture lost\.png beside it/);
    const bad = input('bad.json', JSON.stringify({ picture: { name: basename(drawing) } }));
    expect(run('build', drawing, '--out', join(folder, 'x.glb'), '--material', bad).stderr).toMatch(
      /“plate\.svg”, which lies on a side: /,
    );
  });
  it('that is not known is wrong usage', () => {
    const { status, stderr } = run('build', drawing, '--out', join(folder, 'x.glb'), '--material', 'marble');
    expect(status).toBe(2);
    expect(stderr).toMatch(/no such material; known are painted-wood/);
  });
});

describe('values by rule', () => {
  // A large black square, a small grey one on it, a white one beside them.
  const squares = input(
    'squares.svg',
    '<svg viewBox="0 0 90 50"><path d="M0 0h40v40h-40z"/><path fill="#808080" d="M5 5h10v10h-10z"/><path fill="#fffffe" d="M60 0h20v20h-20z"/></svg>',
  );
  const volumeOf = (...options: string[]) => build(squares, 'ruled.glb', '--size', '80', ...options).volume;

  it.each([
    // Areas 1600, 100 and 400.
    ['list:2,3', 2 * 1600 + 3 * 100 + 2 * 400],
    ['order:1.5', 1.5 * 1600 + 3 * 100 + 1.5 * 400],
    ['containment:4+-1', 4 * 1600 + 3 * 100 + 4 * 400],
    // Sides 40, 10 and 20.
    ['area:1..4', 4 * 1600 + 1 * 100 + 2 * 400],
  ])('--depth-by %s', (rule, volume) => {
    expect(volumeOf('--depth-by', rule)).toBeCloseTo(volume, 6);
  });

  it('are given to single outlines where layers are split into them', () => {
    const alike = input(
      'alike.svg',
      '<svg viewBox="0 0 90 50"><path d="M0 0h40v40h-40z"/><path d="M60 0h20v20h-20z"/></svg>',
    );
    const { volume } = build(alike, 'split.glb', '--size', '80', '--split', '--depth-by', 'area:1..4');
    expect(volume).toBeCloseTo(4 * 1600 + 1 * 400, 6);
  });

  it('--base-by parts what would lie on each other, from the sheet on', () => {
    const { size } = build(squares, 'based.glb', '--size', '80', '--depth', '2', '--base-by', 'order:5');
    expect(size[2]).toBeCloseTo(7, 6);
  });

  it.each([
    ['brightness:1..6', 'it can be order, containment, lightness'],
    ['lightness', 'which says no values; write them like lightness:1..6'],
    ['order:one', 'which says no values; write them like order:1 or order:2+1'],
    ['list:', 'which says no values; write them like list:2,3,5'],
    ['area:1..6@3', 'which says no values; write them like area:1..6'],
  ])('refuse %s in one line', (rule, words) => {
    const { status, stderr } = run('build', squares, '--out', join(folder, 'x.glb'), '--depth-by', rule);
    expect(status).toBe(2);
    expect(stderr).toContain(words);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });

  it('refuse what leaves nothing of a layer', () => {
    const { status, stderr } = run('build', squares, '--out', join(folder, 'x.glb'), '--depth-by', 'list:-1');
    expect(status).toBe(1);
    expect(stderr).toContain('The change was not made');
  });
});

describe('500 icons', () => {
  // The first 500 of @mdi/svg 7.4.47 by name.
  const source = 'bench/sets/node_modules/@mdi/svg/svg';
  const icons = join(folder, 'icons');
  mkdirSync(icons);
  for (const name of readdirSync(source).sort().slice(0, 500)) copyFileSync(join(source, name), join(icons, name));

  it.each(['0', '0.5', '1'])('close at a reach of %s of 24, without a face that has no area', (reach) => {
    const out = join(folder, `icons-${reach}`);
    const report = join(folder, 'icons.json');
    expect(run('build', icons, '--out', out, '--format', 'stl', '--reach', reach, '--report', report)).toMatchObject({
      status: 0,
      stderr: '',
    });
    const { files } = JSON.parse(readFileSync(report, 'utf8')) as { files: FileReport[] };
    expect(files).toHaveLength(500);
    for (const { input: name, output, closed, crossings, counts } of files) {
      const positions = readStlPositions(readFileSync(output));
      const { loose, flat, triangles } = audit(
        positions,
        Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
      );
      expect([basename(name), closed, crossings, loose, flat, triangles]).toEqual([
        basename(name),
        true,
        0,
        0,
        0,
        counts.triangles,
      ]);
    }
  });
});

describe('outline-stack proof', () => {
  const built = join(folder, 'to-prove.obj');
  build(input('to-prove.svg', square()), 'to-prove.obj', '--reach', '1', '--caps', 'both');
  build(join(folder, 'to-prove.svg'), 'to-prove.glb', '--reach', '1');

  it('proves what was built, in words and as JSON', () => {
    const said = run('proof', built);
    expect([said.status, said.stderr]).toEqual([0, '']);
    expect(said.stdout).toMatch(/to-prove\.obj: \S+: sound\n {2}\d+ points, /);
    const { status, stdout } = run('proof', built, join(folder, 'to-prove.glb'), '--json');
    expect(status).toBe(0);
    const { version, files } = JSON.parse(stdout);
    expect([version, files.length]).toEqual([1, 2]);
    expect(files[0]).toMatchObject({ ok: true, parts: [{ closed: true, sound: true, findings: [], shells: 1 }] });
  });

  it('finds what is wrong, and ends with 1', () => {
    const holed = input('holed.obj', readFileSync(built, 'utf8').replace(/\nf [^\n]*\n$/, '\n'));
    const { status, stdout } = run('proof', holed);
    expect(status).toBe(1);
    expect(stdout).toMatch(/: open\n.*\n.*\n {2}\d+ open edges, first at /);
    expect(run('proof', input('no.txt', 'no mesh'))).toMatchObject({
      status: 1,
      stdout: expect.stringMatching(/no mesh that can be read/),
    });
    expect(run('proof')).toMatchObject({ status: 2 });
    expect(run('proof', join(folder, 'nothing.glb'))).toMatchObject({ status: 2 });
  });
});

describe('mesh options', () => {
  const round = input('disc.svg', '<svg viewBox="0 0 24 24"><circle cx="12" cy="12" r="10"/></svg>');

  it('tidy, leave sides open and lay faces on pictures', () => {
    const plain = build(round, 'disc.obj', '--faces', 'grid');
    const merged = build(round, 'disc-merged.obj', '--faces', 'grid', '--merge', '0.5', '--straight', '0.0001');
    expect(merged.counts.faces).toBeLessThan(plain.counts.faces / 2);
    expect(merged).toMatchObject({ closed: true, crossings: 0 });
    build(round, 'disc-open.obj', '--caps', 'front', '--uv', 'packed');
    const obj = readFileSync(join(folder, 'disc-open.obj'), 'utf8');
    const places = [...obj.matchAll(/^vt (\S+) (\S+)$/gm)].flatMap(([, u, v]) => [Number(u), Number(v)]);
    expect(Math.min(...places)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...places)).toBeLessThanOrEqual(1);
    expect(run('proof', join(folder, 'disc-open.obj')).status).toBe(1);
  });

  it('take drawn profiles from a recipe, by name', () => {
    const recipe = input(
      'lip.json',
      JSON.stringify({ profiles: [{ name: 'Lip', points: [[0.1, 0.8]], isSmooth: true }] }),
    );
    const lip = build(round, 'lip.obj', '--recipe', recipe, '--edge', 'Lip', '--reach', '2');
    const chamfer = build(round, 'chamfer.obj', '--edge', 'chamfer', '--reach', '2');
    expect(lip).toMatchObject({ closed: true, crossings: 0 });
    expect(lip.volume).toBeGreaterThan(chamfer.volume);
    expect(run('build', round, '--out', join(folder, 'x.obj'), '--edge', 'Lip').stderr).toMatch(/--edge is “Lip”/);
  });
});
