/** Light or dark, kept by this browser. */
export function toggleTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme === 'night-quay';
  root.dataset.theme = dark ? 'quay' : 'night-quay';
  localStorage.setItem('netting.theme', root.dataset.theme);
}
