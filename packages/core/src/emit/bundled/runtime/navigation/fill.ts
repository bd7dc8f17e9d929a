/** Fills what an address leaves open (`/tools/:toolId`) from the parameters of the present one. */
export function fill(to: string, params: Readonly<Record<string, string | undefined>>): string {
  return to.replace(/\/:(\w+)/g, (whole, name: string) =>
    params[name] === undefined ? whole : `/${encodeURIComponent(params[name])}`,
  );
}
