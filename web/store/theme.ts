// theme.ts — light by day, dark by night, by choice or by the system's setting.
const KEY = 'outline-stack.theme';

export type Theme = 'day' | 'night';

export function currentTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === 'day' || kept === 'night') return kept;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

export function applyTheme(theme: Theme = currentTheme()): void {
  document.documentElement.dataset.theme = theme;
}

export function toggleTheme(): void {
  const next = currentTheme() === 'day' ? 'night' : 'day';
  localStorage.setItem(KEY, next);
  applyTheme(next);
}
