/** Fills what an address leaves open (`/tools/:toolId`) from the parameters of the present one. */
export function fill(
  to: string,
  params: Readonly<Record<string, string | readonly string[] | undefined>>,
): string {
  return to.replace(/\/:(\w+)/g, (whole, name: string) => {
    const value = params[name];
    return typeof value === 'string' ? `/${encodeURIComponent(value)}` : whole;
  });
}
