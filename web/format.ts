// format.ts — numbers as the interface writes them.

const grouped = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });

/** At most four decimals and no trailing zeros. */
export function formatNumber(value: number): string {
  return String(Number(value.toFixed(Math.abs(value) >= 100 ? 2 : Math.abs(value) >= 0.01 || value === 0 ? 3 : 5)));
}

/** Whole numbers with thin groups of three. */
export function formatCount(value: number): string {
  return grouped.format(value).replaceAll(',', '\u202f');
}

/** `1 layer`, `2 layers`. */
export function countOf(count: number, thing: string): string {
  return `${formatCount(count)} ${thing}${count === 1 ? '' : 's'}`;
}

/** Three or four significant digits, for measurements. */
export function formatMeasure(value: number): string {
  if (Math.abs(value) >= 1000) return formatCount(value);
  return String(Number(value.toPrecision(4)));
}

export function formatBytes(bytes: number): string {
  return bytes < 1e6 ? `${(bytes / 1e3).toFixed(1)}\u00a0kB` : `${(bytes / 1e6).toFixed(2)}\u00a0MB`;
}
