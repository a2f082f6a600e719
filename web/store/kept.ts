// kept.ts — named things that the browser keeps from one project and one visit to the next.

interface Named {
  readonly name: string;
}

/**
 * What is kept under a key.
 * @param read null for what cannot be read any more, which is left out
 */
export function stored<T extends Named>(
  key: string,
  read: (entry: Readonly<Record<string, unknown>>) => T | null,
): T[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return (Array.isArray(list) ? list : []).flatMap((entry) => {
      const found = typeof entry?.name === 'string' ? read(entry) : null;
      return found ? [found] : [];
    });
  } catch {
    return [];
  }
}

/** @returns whether there was room for it */
export function store(key: string, list: readonly Named[]): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(list));
    return true;
  } catch {
    return false;
  }
}

/** The list with something at its head, in place of what had that name. */
export const withNamed = <T extends Named>(list: readonly T[], thing: T): T[] => [
  thing,
  ...withoutNamed(list, thing.name),
];

export const withoutNamed = <T extends Named>(list: readonly T[], name: string): T[] =>
  list.filter((other) => other.name !== name);
