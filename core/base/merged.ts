// merged.ts — settings with a change: what the change does not name stays.

/** Settings of settings are changed one by one; everything else is replaced. */
export function merged<T extends object>(settings: T, change: Readonly<Record<string, unknown>>): T {
  const next = { ...settings } as Record<string, unknown>;
  for (const [name, value] of Object.entries(change)) {
    const before = next[name];
    next[name] = isRecord(before) && isRecord(value) ? merged(before, value) : value;
  }
  return next as T;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
