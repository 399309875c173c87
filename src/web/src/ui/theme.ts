export type ThemeChoice = 'day' | 'night' | 'system';

const key = 'quill.theme';

export function themeChoice(): ThemeChoice {
  const kept = localStorage.getItem(key);
  return kept === 'day' || kept === 'night' ? kept : 'system';
}

/** Puts the chosen theme on the document; what is stored or exported never changes with it. */
export function applyTheme(): void {
  const choice = themeChoice();
  const night = choice === 'night' || (choice === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.dataset.theme = night ? 'quill-night' : 'quill-day';
}

export function chooseTheme(choice: ThemeChoice): void {
  localStorage.setItem(key, choice);
  applyTheme();
}
