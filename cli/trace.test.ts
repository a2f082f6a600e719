// Pictures through the command line: traced to SVG, built to meshes, and refused in one line.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FileReport } from './build-file.ts';
import type { TraceReport } from './trace-file.ts';

const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const path = (name: string) => join(folder, name);

function run(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin.js', ...words], { encoding: 'utf8' });
  return { status, stdout, stderr };
}

function report<T>(verb: string, ...words: string[]): T {
  const { status, stderr } = run(verb, ...words, '--report', path('report.json'));
  // What was made otherwise than it was asked for is said, a line each.
  expect([status, stderr.replaceAll(/^outline-stack: .*\n/gm, '')]).toEqual([0, '']);
  const { version, files } = JSON.parse(readFileSync(path('report.json'), 'utf8'));
  expect(version).toBe(1);
  return files[0];
}

/** A ring and a bar, drawn by an independent renderer. */
const DRAWING = (ink: string, paper: string) => `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200">
  <rect width="300" height="200" fill="${paper}"/>
  <path fill="${ink}" fill-rule="evenodd" d="M100 30A70 70 0 1 1 99.9 30ZM100 60A40 40 0 1 0 100.1 60Z"/>
  <rect x="200.5" y="40.5" width="60" height="120" fill="${ink === '#000' ? ink : '#c9593f'}"/></svg>`;

/** Ink in each pixel as an independent renderer sees it, 0 … 1. */
async function inkIn(file: string): Promise<number[]> {
  const flat = sharp(file).resize(300, 200).flatten({ background: '#fff' }).greyscale();
  return [...(await flat.raw().toBuffer())].map((v) => 1 - v / 255);
}

beforeAll(async () => {
  const render = (ink: string, paper: string) => sharp(Buffer.from(DRAWING(ink, paper)));
  await render('#000', '#fff').png().toFile(path('mark.png'));
  await render('#2f6f60', '#f7f4ec').jpeg({ quality: 90 }).toFile(path('sign.jpg'));
  await sharp({ create: { width: 40, height: 40, channels: 3, background: '#888' } })
    .png()
    .toFile(path('flat.png'));
  writeFileSync(path('text.png'), 'not a picture');
});

describe('outline-stack trace', () => {
  it('writes an SVG that another renderer draws as the picture was', async () => {
    const { ok, mode, counts, colours, size, stray, ms } = report<TraceReport>(
      'trace',
      path('mark.png'),
      '--out',
      path('mark.svg'),
    );
    expect({ ok, mode, counts: counts.shapes, colours, size }).toEqual({
      ok: true,
      mode: 'ink',
      counts: 2,
      colours: ['#000000'],
      size: [300, 200],
    });
    expect(counts.curves).toBeLessThanOrEqual(24);
    expect(stray).toBeLessThan(0.5);
    expect(ms.total).toBeGreaterThan(0);
    const [drawn, traced] = [await inkIn(path('mark.png')), await inkIn(path('mark.svg'))];
    const differs = drawn.reduce((sum, v, i) => sum + Math.abs(v - traced[i]!), 0);
    expect(differs).toBeLessThan(0.004 * drawn.reduce((sum, v) => sum + v, 0));
  });

  it('takes colours for what has colours, and what it is told otherwise', () => {
    const colours = report<TraceReport>('trace', path('sign.jpg'), '--out', path('sign.svg'), '--layering', 'abutting');
    expect([colours.mode, colours.colours.length]).toEqual(['colours', 3]);
    const tones = report<TraceReport>(
      'trace',
      path('sign.jpg'),
      '--out',
      path('tones.svg'),
      '--mode',
      'tones',
      '--count',
      '2',
    );
    expect([tones.mode, tones.colours.length]).toEqual(['tones', 2]);
    const lines = report<TraceReport>('trace', path('mark.png'), '--out', path('lines.svg'), '--mode', 'centreline');
    expect(lines.mode).toBe('centreline');
    expect(readFileSync(path('lines.svg'), 'utf8')).toMatch(/fill="none" stroke="#000000".*stroke-linecap="round"/);
    const inside = report<TraceReport>(
      'trace',
      path('mark.png'),
      '--out',
      path('light.svg'),
      '--ink',
      'light',
      '--detail',
      '9000',
    );
    expect(inside.counts.shapes).toBe(1);
  });

  it('does many at a time, and the ones that work when others do not', () => {
    mkdirSync(path('many'));
    for (let i = 0; i < 9; i++) writeFileSync(path(`many/${i}.png`), readFileSync(path('mark.png')));
    writeFileSync(path('many/broken.png'), readFileSync(path('mark.png')).subarray(0, 400));
    const { status, stdout, stderr } = run('trace', path('many'), '--out', path('traced'));
    expect([status, stdout]).toEqual([1, expect.stringMatching(/^9 of 10 traced, \d+ lines and curves\n$/)]);
    expect(stderr).toMatch(/broken\.png: The PNG file is damaged or ends early/);
    expect(existsSync(path('traced/8.svg'))).toBe(true);
  });

  it.each([
    [['text.png'], /This is not a picture that can be read/],
    [['flat.png'], /Nothing to trace: the picture has one tone\./],
  ])('refuses %j in one line', (names, message) => {
    const { status, stderr } = run('trace', ...names.map(path), '--out', path('no.svg'));
    expect(status).toBe(1);
    expect(stderr).toMatch(message);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });

  it.each([
    [['--mode', 'magic'], /--mode is “magic”; it can be ink, tones, colours, centreline/],
    [['--count', '1'], /--count must be a whole number from 2 to 32/],
    [['--level', '3'], /--level must be between 0 and 1/],
    [['--corner', 'x'], /--corner needs a number/],
  ])('says what is wrong with %j', (words, message) => {
    const { status, stderr } = run('trace', path('mark.png'), '--out', path('no.svg'), ...words);
    expect([status, stderr]).toEqual([2, expect.stringMatching(message)]);
  });
});

describe('outline-stack build', () => {
  it('takes pictures too: a closed mesh of the traced outlines', () => {
    const { ok, closed, size, warnings } = report<FileReport>(
      'build',
      path('mark.png'),
      '--out',
      path('mark.stl'),
      '--size',
      '100',
      '--reach',
      '0.5',
    );
    expect([ok, closed]).toEqual([true, true]);
    // From the ring's left side at 30 to the bar's right side at 260.5.
    expect(size[0]).toBeCloseTo(100, 3);
    expect(size[1]).toBeCloseTo((100 * 140) / 230.5, 0);
    expect(warnings.map(({ code }) => code)).toContain('low-resolution');
  });

  it('builds colours as layers on each other, without the paper', () => {
    const { ok, size } = report<FileReport>('build', path('sign.jpg'), '--out', path('sign.glb'), '--depth', '2');
    expect(ok).toBe(true);
    // What is enclosed lies on what encloses it.
    expect(size[2]).toBeCloseTo(4, 6);
  });
});
