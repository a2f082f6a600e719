// hash.ts — short keys for long texts.

/** 64 bits of a text as hex: two rounds of FNV-1a (Fowler, Noll, Vo) over its UTF-16 units, from different starts. */
export function hashOf(text: string): string {
  let [a, b] = [0x811c9dc5, 0x1b873593];
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    a = Math.imul(a ^ unit, 0x01000193);
    b = Math.imul(b ^ unit ^ (a >>> 15), 0x01000193);
  }
  const hex = (v: number) => (v >>> 0).toString(16).padStart(8, '0');
  return hex(a) + hex(b);
}
