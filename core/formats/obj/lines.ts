// lines.ts — lines of numbers as bytes. Numbers are most of the text, and most of them come more than once: a wall stands under its
// edge, and flat faces share a normal; so their digits are kept for a while instead of being worked out again.

/** Numbers whose digits are kept; a power of two. */
const KEPT = 4096;
/** Longest number: sign, nine digits, point, exponent. */
const LONGEST = 24;

/** Nine significant digits bring every float32 back unchanged. */
const printed = (v: number) => String(Number(v.toPrecision(9)));

export class Lines {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;
  private readonly float = new Float32Array(1);
  private readonly bits = new Uint32Array(this.float.buffer);
  private readonly numbers = new Float32Array(KEPT).fill(Number.NaN);
  private readonly texts: string[] = new Array<string>(KEPT).fill('');

  /** ASCII, or anything else. */
  text(text: string): void {
    this.room(3 * text.length);
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      if (code > 127) {
        const rest = new TextEncoder().encode(text.slice(i));
        this.bytes.set(rest, this.length);
        this.length += rest.length;
        return;
      }
      this.bytes[this.length++] = code;
    }
  }

  /** A line of `size` numbers after another, each begun by the keyword. */
  tuples(keyword: string, values: ArrayLike<number>, size: number): void {
    for (let i = 0; i < values.length; i += size) {
      this.room(keyword.length + 1 + size * LONGEST);
      for (let k = 0; k < keyword.length; k++) this.bytes[this.length++] = keyword.charCodeAt(k);
      for (let k = 0; k < size; k++) this.number(values[i + k]!);
      this.bytes[this.length++] = NEWLINE;
    }
  }

  /** A corner of a face: point, place on pictures (0 for none) and normal. */
  corner(point: number, uv: number, normal: number): void {
    this.room(3 * LONGEST);
    this.bytes[this.length++] = SPACE;
    this.count(point);
    this.bytes[this.length++] = SLASH;
    if (uv > 0) this.count(uv);
    this.bytes[this.length++] = SLASH;
    this.count(normal);
  }

  /** All that was written since the last time. */
  take(): Uint8Array {
    const taken = this.bytes.slice(0, this.length);
    this.length = 0;
    return taken;
  }

  private number(v: number): void {
    this.float[0] = v;
    const rounded = this.float[0];
    const bits = this.bits[0]!;
    const slot = (bits ^ (bits >>> 11) ^ (bits >>> 20)) & (KEPT - 1);
    // Both zeros print alike.
    if (this.numbers[slot] !== rounded) {
      this.numbers[slot] = rounded;
      this.texts[slot] = printed(rounded);
    }
    const text = this.texts[slot]!;
    this.bytes[this.length++] = SPACE;
    for (let k = 0; k < text.length; k++) this.bytes[this.length++] = text.charCodeAt(k);
  }

  /** A whole number, more than 0. */
  private count(v: number): void {
    let digits = 1;
    for (let power = 10; power <= v; power *= 10) digits++;
    let rest = v;
    for (let k = digits - 1; k >= 0; k--) {
      const tenth = Math.floor(rest / 10);
      this.bytes[this.length + k] = ZERO + rest - 10 * tenth;
      rest = tenth;
    }
    this.length += digits;
  }

  private room(more: number): void {
    if (this.length + more <= this.bytes.length) return;
    const larger = new Uint8Array(Math.max(2 * this.bytes.length, this.length + more));
    larger.set(this.bytes.subarray(0, this.length));
    this.bytes = larger;
  }
}

const [SPACE, NEWLINE, SLASH, ZERO] = [32, 10, 47, 48];
