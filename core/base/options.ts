// options.ts — defaults for options objects.

/** `options` over `defaults`; an explicit `undefined` means "use the default". Neither argument is modified. */
export function withDefaults<T extends object>(defaults: T, options: Partial<T>): T {
  const result = { ...defaults };
  for (const key of Object.keys(options) as (keyof T)[]) {
    const value = options[key];
    if (value !== undefined) result[key] = value;
  }
  return result;
}
