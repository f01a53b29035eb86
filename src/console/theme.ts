export type Theme = 'light' | 'dark';

/** The theme that was chosen last, else the one that the system prefers. */
export function storedTheme(): Theme {
  const stored = localStorage.getItem('theme');
  if (stored === 'light' || stored === 'dark') return stored;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset.bsTheme = theme;
}
