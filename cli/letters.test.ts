// Texts through the command line: fonts by name and by file, SVG and DXF, and what is refused. And DXF files built.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { readVector } from '../core/index.ts';
import type { FileReport } from './build-file.ts';
import type { LettersReport } from './letters.ts';

const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const path = (name: string) => join(folder, name);

function run(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin.js', ...words], { encoding: 'utf8' });
  return { status, stdout, stderr };
}

const reportOf = <T>(): T => JSON.parse(readFileSync(path('report.json'), 'utf8')).files[0];

describe('outline-stack letters', () => {
  it('sets a word in a font that ships with it, a shape a letter, that another renderer draws', async () => {
    const result = run(
      'letters',
      'SALT\\nMARSH',
      '--font',
      'grotesque',
      '--size',
      '48',
      '--out',
      path('word.svg'),
      '--report',
      path('report.json'),
    );
    expect(result).toEqual({ status: 0, stdout: '1 of 1 set, 9 shapes\n', stderr: '' });
    const report = reportOf<LettersReport>();
    expect(report.counts.shapes).toBe(9);
    expect(report.size[1]).toBeGreaterThan(48);
    const { entropy } = await sharp(path('word.svg')).flatten({ background: '#fff' }).greyscale().stats();
    expect(entropy).toBeGreaterThan(0.1);
  });

  it('joins connected script, and writes the same outlines as DXF', () => {
    const words = ['letters', 'نجوم', '--font', 'connected-script', '--size', '30', '--out'];
    for (const name of ['word.svg', 'word.dxf']) expect(run(...words, path(name)).status).toBe(0);
    const [svg, dxf] = ['word.svg', 'word.dxf'].map((name) => readVector(readFileSync(path(name), 'utf8')));
    expect(svg!.shapes).toHaveLength(2);
    // Dots are outlines of their own where nothing but contours is written.
    expect(dxf!.shapes).toHaveLength(4);
    const segments = (shapes: typeof svg) => shapes!.shapes.flatMap((shape) => shape.path).length;
    expect(segments(dxf)).toBe(segments(svg));
  });

  it('takes a font from a file, and says what it does not have', () => {
    const font = 'node_modules/@fontsource/fredoka/files/fredoka-latin-600-normal.woff';
    const { status, stderr } = run('letters', 'Aن', '--font', font, '--out', path('a.svg'));
    expect([status, stderr]).toEqual([0, 'outline-stack: The font has no ن; choose another font for them.\n']);
  });

  it.each([
    [['letters', '--font', 'rounded', '--out', 'x.svg'], 2, /needs one TEXT/],
    [['letters', 'A', '--out', 'x.svg'], 2, /needs --font/],
    [['letters', 'A', '--font', 'rounded', '--out', 'x.stl'], 2, /--out is “stl”; it can be svg, dxf/],
    [
      ['letters', 'A', '--font', 'nowhere.ttf', '--out', 'x.svg'],
      2,
      /there is no such file, and the fonts that ship are/,
    ],
    [['letters', 'A', '--font', 'package.json', '--out', 'x.svg'], 1, /package\.json is not a font/],
    [['letters', ' ', '--font', 'rounded', '--out', 'x.svg'], 1, /no letter to build/],
  ])('%j is refused in one line', (words, status, message) => {
    const result = run(...words);
    expect(result.status).toBe(status);
    expect(result.stderr).toMatch(message);
    expect(result.stderr.trim().split('\n')).toHaveLength(1);
    expect(existsSync('x.svg')).toBe(false);
  });
});

describe('outline-stack build', () => {
  it('makes a closed mesh of a DXF drawing, in the size its units state', () => {
    const entities = ['LWPOLYLINE', 8, 'Plate', 90, 4, 70, 1, 10, 0, 20, 0, 10, 4, 20, 0, 10, 4, 20, 2, 10, 0, 20, 2];
    const hole = ['CIRCLE', 8, 'Plate', 10, 2, 20, 1, 40, 0.5];
    const tags = (items: (string | number)[]) => {
      const lines = [0, items[0]!, ...items.slice(1)];
      return lines.join('\n');
    };
    writeFileSync(
      path('plate.dxf'),
      `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n1\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${tags(entities)}\n${tags(hole)}\n0\nENDSEC\n0\nEOF\n`,
    );
    const { status, stderr } = run(
      'build',
      path('plate.dxf'),
      '--out',
      path('plate.stl'),
      '--depth',
      '3',
      '--report',
      path('report.json'),
    );
    expect([status, stderr]).toEqual([0, '']);
    const { closed, size, volume } = reportOf<FileReport>();
    expect(closed).toBe(true);
    // Inches to millimetres.
    expect(size.map((v) => Math.round(v * 10) / 10)).toEqual([101.6, 50.8, 3]);
    expect(volume).toBeCloseTo(25.4 * 25.4 * (8 - Math.PI / 4) * 3, -1.5);
  });
});
