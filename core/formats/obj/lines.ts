// lines.ts — lines of numbers as bytes. Numbers are most of the text, so their digits are written straight away: a float32 times a
// power of ten is exact in doubles, up to a point, and rounds as `toPrecision` does.

/** Significant digits that bring every float32 back unchanged. */
const DIGITS = 9;
/** Numbers from the one up to the other, which nearly all are, times 10^(8 − e) are exact: 24 bits times 5¹² are 52. */
const [LEAST, MOST] = [1e-4, 1e6];
const POWERS = Array.from({ length: 13 }, (_, k) => 10 ** k);
/** Longest number: sign, nine digits, point, zeros before them, exponent. */
const LONGEST = 24;
/** Numbers that are remembered, and the longest that are: what is shorter than nine digits and written out. */
const SLOTS = 1 << 12;
const SLOT = 16;
const [SPACE, NEWLINE, SLASH, MINUS, POINT, ZERO] = [32, 10, 47, 45, 46, 48];

export class Lines {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;
  /** Numbers written lately, each in the slot that its bits fall on, and their characters: heights and sides come again and again. */
  private readonly written = new Float32Array(SLOTS).fill(Number.NaN);
  private readonly sizes = new Uint8Array(SLOTS);
  private readonly copies = new Uint8Array(SLOT * SLOTS);

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
      for (let k = 0; k < size; k++) {
        this.bytes[this.length++] = SPACE;
        this.number(Math.fround(values[i + k]!));
      }
      this.bytes[this.length++] = NEWLINE;
    }
  }

  /** A corner of a face: point, place on pictures (0 for none) and normal. */
  corner(point: number, uv: number, normal: number): void {
    this.room(3 * LONGEST);
    this.bytes[this.length++] = SPACE;
    this.count(point, digitsOf(point));
    this.bytes[this.length++] = SLASH;
    if (uv > 0) this.count(uv, digitsOf(uv));
    this.bytes[this.length++] = SLASH;
    this.count(normal, digitsOf(normal));
  }

  /** All that was written since the last time. */
  take(): Uint8Array {
    const taken = this.bytes.slice(0, this.length);
    this.length = 0;
    return taken;
  }

  /** A float32 in as few digits of nine as it needs, as `String(Number(v.toPrecision(9)))`: copied where it was written lately. */
  private number(v: number): void {
    const slot = slotOf(v);
    if (this.written[slot] === v) {
      const from = SLOT * slot;
      const size = this.sizes[slot]!;
      for (let k = 0; k < size; k++) this.bytes[this.length + k] = this.copies[from + k]!;
      this.length += size;
      return;
    }
    const start = this.length;
    this.digits(v);
    const size = this.length - start;
    if (size > SLOT) return;
    this.written[slot] = v;
    this.sizes[slot] = size;
    for (let k = 0; k < size; k++) this.copies[SLOT * slot + k] = this.bytes[start + k]!;
  }

  private digits(v: number): void {
    const size = Math.abs(v);
    if (!(size >= LEAST && size < MOST)) {
      const text = String(Number(v.toPrecision(DIGITS)));
      for (let k = 0; k < text.length; k++) this.bytes[this.length++] = text.charCodeAt(k);
      return;
    }
    if (v < 0) this.bytes[this.length++] = MINUS;
    // Digits before the point; below 1 there are as many zeros behind it, less than 0.
    let before = size >= 1 ? digitsOf(Math.floor(size)) : 0;
    while (before <= 0 && size * POWERS[-before]! < 0.1) before--;
    let digits = Math.round(size * POWERS[DIGITS - before]!);
    if (digits === 10 ** DIGITS) {
      digits /= 10;
      before++;
    }
    // From here on whole numbers below 2³¹, which are divided fastest as such.
    let rest = digits | 0;
    let kept = DIGITS;
    while (rest % 10 === 0) {
      rest = (rest / 10) | 0;
      kept--;
    }
    if (before <= 0) {
      this.bytes[this.length++] = ZERO;
      this.bytes[this.length++] = POINT;
      for (let k = before; k < 0; k++) this.bytes[this.length++] = ZERO;
      this.count(rest, kept);
    } else if (kept <= before) {
      this.count(rest, kept);
      for (let k = kept; k < before; k++) this.bytes[this.length++] = ZERO;
    } else {
      // All digits one place to the right, then those before the point back again.
      this.count(rest, kept, 1);
      const start = this.length - kept - 1;
      for (let k = 0; k < before; k++) this.bytes[start + k] = this.bytes[start + k + 1]!;
      this.bytes[start + before] = POINT;
    }
  }

  /** A whole number below 2³¹ in so many digits, so many places further on. */
  private count(v: number, digits: number, places = 0): void {
    let rest = v | 0;
    const first = this.length + places;
    for (let k = first + digits - 1; k >= first; k--) {
      const tenth = (rest / 10) | 0;
      this.bytes[k] = ZERO + rest - 10 * tenth;
      rest = tenth;
    }
    this.length = first + digits;
  }

  private room(more: number): void {
    if (this.length + more <= this.bytes.length) return;
    const larger = new Uint8Array(Math.max(2 * this.bytes.length, this.length + more));
    larger.set(this.bytes.subarray(0, this.length));
    this.bytes = larger;
  }
}

const float = new Float32Array(1);
const bits = new Uint32Array(float.buffer);

/** Spread evenly (Knuth, "The Art of Computer Programming" 3, §6.4: multiplicative hashing). */
function slotOf(v: number): number {
  float[0] = v;
  return Math.imul(bits[0]!, 0x9e3779b1) >>> 20;
}

/** How many digits a whole number has, which is more than 0. */
function digitsOf(v: number): number {
  let digits = 1;
  for (let power = 10; power <= v; power *= 10) digits++;
  return digits;
}
