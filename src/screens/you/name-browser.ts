const BROWSERS = [
  ['Edg/', 'Edge'],
  ['Firefox/', 'Firefox'],
  ['Chrome/', 'Chrome'],
  ['Safari/', 'Safari'],
] as const;
const SYSTEMS = [
  ['Android', 'Android'],
  ['iPhone', 'iPhone'],
  ['iPad', 'iPad'],
  ['Mac OS', 'macOS'],
  ['Windows', 'Windows'],
  ['Linux', 'Linux'],
] as const;

/** The browser and the system that a header `User-Agent` names. @example nameBrowser('… Firefox/140.0') // 'Firefox' */
export function nameBrowser(agent: string): string {
  const find = (names: readonly (readonly [string, string])[]) =>
    names.find(([part]) => agent.includes(part))?.[1];
  const [browser, system] = [find(BROWSERS) ?? 'A browser', find(SYSTEMS)];
  return system ? `${browser} on ${system}` : browser;
}
