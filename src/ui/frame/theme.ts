/** Light or dark, kept by this browser. */
export function toggleTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme
    ? root.dataset.theme === 'night-quay'
    : matchMedia('(prefers-color-scheme: dark)').matches;
  root.dataset.theme = dark ? 'quay' : 'night-quay';
  localStorage.setItem('netting.theme', root.dataset.theme);
}
