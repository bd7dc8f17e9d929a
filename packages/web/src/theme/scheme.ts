export type Scheme = 'light' | 'dark' | 'system';
const KEY = 'tovel-scheme';

export const readScheme = (): Scheme => (localStorage.getItem(KEY) as Scheme | null) ?? 'system';

export function applyScheme(scheme: Scheme): void {
  if (scheme === 'system') delete document.documentElement.dataset.scheme;
  else document.documentElement.dataset.scheme = scheme;
  localStorage.setItem(KEY, scheme);
}

/** The other one than what shows now. */
export function toggleScheme(): void {
  const isDark =
    document.documentElement.dataset.scheme === 'dark' ||
    (!document.documentElement.dataset.scheme && matchMedia('(prefers-color-scheme: dark)').matches);
  applyScheme(isDark ? 'light' : 'dark');
}
