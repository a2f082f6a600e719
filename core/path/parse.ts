// parse.ts — SVG path data. Grammar: SVG 2 §9.3.9; on an error everything before it is kept (§9.5.4).
import { arcToCubics } from './arc.ts';
import type { Path, Segment } from './types.ts';

export interface ParsedPath {
  readonly path: Path;
  /** Where reading stopped and why; the part before it is in `path`. */
  readonly error?: { readonly offset: number; readonly message: string };
}

/** Numbers one command takes; a flag is one character, which is why arcs may be written `a1 1 0 01 1 1`. */
const ARITY: Readonly<Record<string, string>> = {
  m: 'nn',
  l: 'nn',
  h: 'n',
  v: 'n',
  c: 'nnnnnn',
  s: 'nnnn',
  q: 'nnnn',
  t: 'nn',
  a: 'nnnffnn',
  z: '',
};
const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y;
const SEPARATOR = /[\t\n\f\r ]*,?[\t\n\f\r ]*/y;

/** Path data to absolute lines and cubics. @example parsePath('M0 0h2v2z') */
export function parsePath(data: string): ParsedPath {
  const builder = new PathBuilder();
  let at = 0;
  const skip = (pattern: RegExp): string => {
    pattern.lastIndex = at;
    const found = pattern.exec(data)?.[0] ?? '';
    at += found.length;
    return found;
  };
  const fail = (message: string): ParsedPath => ({ path: builder.segments, error: { offset: at, message } });
  const found = () => (at < data.length ? `found “${data.slice(at, at + 8)}”` : 'the data ends');

  skip(/[\t\n\f\r ]*/y);
  while (at < data.length) {
    const command = data[at]!;
    const kinds = ARITY[command.toLowerCase()];
    if (kinds === undefined) return fail(`expected a command, ${found()}`);
    if (builder.segments.length === 0 && command.toLowerCase() !== 'm') return fail('path data must start with M');
    at++;
    skip(/[\t\n\f\r ]*/y);
    if (kinds === '') {
      builder.add(command, []);
      continue;
    }
    // Further number groups repeat the command; after M they are lines.
    let letter = command;
    do {
      const values: number[] = [];
      for (const kind of kinds) {
        if (values.length > 0) skip(SEPARATOR);
        const text = kind === 'f' ? skip(/[01]/y) : skip(NUMBER);
        if (text === '') return fail(`${command} needs ${kinds.length} numbers, ${found()}`);
        values.push(Number(text));
      }
      builder.add(letter, values);
      if (letter === 'M') letter = 'L';
      if (letter === 'm') letter = 'l';
      skip(SEPARATOR);
    } while (at < data.length && /[\d.+-]/.test(data[at]!));
  }
  return { path: builder.segments };
}

class PathBuilder {
  readonly segments: Segment[] = [];
  private x = 0;
  private y = 0;
  private startX = 0;
  private startY = 0;
  /** Last control point, for the smooth commands, and the family it belongs to. */
  private controlX = 0;
  private controlY = 0;
  private family: 'c' | 'q' | '' = '';

  add(letter: string, v: readonly number[]): void {
    const kind = letter.toLowerCase();
    const dx = letter === kind ? this.x : 0;
    const dy = letter === kind ? this.y : 0;
    const n = (i: number) => v[i]!;
    if (kind !== 'm' && kind !== 'z' && this.segments.at(-1)?.[0] === 'Z') this.segments.push(['M', this.x, this.y]);
    switch (kind) {
      case 'm':
        this.startX = dx + n(0);
        this.startY = dy + n(1);
        this.to(['M', this.startX, this.startY]);
        break;
      case 'z':
        this.to(['Z']);
        this.x = this.startX;
        this.y = this.startY;
        break;
      case 'l':
        this.to(['L', dx + n(0), dy + n(1)]);
        break;
      case 'h':
        this.to(['L', dx + n(0), this.y]);
        break;
      case 'v':
        this.to(['L', this.x, dy + n(0)]);
        break;
      case 'c':
        this.cubic(dx + n(0), dy + n(1), dx + n(2), dy + n(3), dx + n(4), dy + n(5));
        break;
      case 's': {
        const [cx, cy] = this.reflected('c');
        this.cubic(cx, cy, dx + n(0), dy + n(1), dx + n(2), dy + n(3));
        break;
      }
      case 'q':
        this.quadratic(dx + n(0), dy + n(1), dx + n(2), dy + n(3));
        break;
      case 't': {
        const [cx, cy] = this.reflected('q');
        this.quadratic(cx, cy, dx + n(0), dy + n(1));
        break;
      }
      case 'a': {
        const arc = { rx: n(0), ry: n(1), rotationDeg: n(2), largeArc: n(3) === 1, sweep: n(4) === 1 };
        for (const cubic of arcToCubics(this.x, this.y, arc, dx + n(5), dy + n(6))) this.to(cubic);
      }
    }
  }

  private reflected(family: 'c' | 'q'): [number, number] {
    return this.family === family ? [2 * this.x - this.controlX, 2 * this.y - this.controlY] : [this.x, this.y];
  }

  private cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.to(['C', x1, y1, x2, y2, x, y]);
    this.remember('c', x2, y2);
  }

  private quadratic(cx: number, cy: number, x: number, y: number): void {
    const { x: x0, y: y0 } = this;
    const third = (a: number, b: number) => a + (2 / 3) * (b - a);
    this.to(['C', third(x0, cx), third(y0, cy), third(x, cx), third(y, cy), x, y]);
    this.remember('q', cx, cy);
  }

  private remember(family: 'c' | 'q', x: number, y: number): void {
    this.family = family;
    this.controlX = x;
    this.controlY = y;
  }

  private to(segment: Segment): void {
    this.segments.push(segment);
    this.family = '';
    if (segment[0] === 'Z') return;
    this.x = segment.at(-2) as number;
    this.y = segment.at(-1) as number;
  }
}
