/** A family that a page asks a font service for, with the weights that it names. */
export interface WebFont {
  readonly family: string;
  readonly weights: readonly number[];
  readonly hasItalic: boolean;
  /** Names of icons, in place of letters. */
  readonly isIcons: boolean;
}

/** Families whose letters are pictures. */
export const isIconFamily = (family: string): boolean =>
  /\b(icons?|symbols?|glyphicons?|awesome|ionicons|feather|remixicon|boxicons|fa[ -]?(solid|regular|brands))\b/i.test(
    family,
  );

/**
 * The families in the address of a font service's style sheet. Such addresses name them in `family` parameters, as
 * `family=Some+Font:wght@400;700` or `family=Some+Font:400,700i|Other`. Empty for any other address.
 */
export function webFontsIn(href: string): WebFont[] {
  if (!/^(https?:)?\/\//i.test(href)) return [];
  let query: URLSearchParams;
  try {
    const url = new URL(href, 'https://page.invalid');
    query = url.searchParams;
    // The older address of an icon font is a path, `/icon?family=…`.
    if (!/css|icon/i.test(url.pathname)) return [];
  } catch {
    return [];
  }
  return query
    .getAll('family')
    .flatMap((value) => value.split('|'))
    .flatMap((value) => {
      const [name, axes = ''] = value.split(':');
      const family = name.trim();
      if (!family || family.length > 80 || /["\\<>{};]/.test(family)) return [];
      const weights = [...axes.matchAll(/\b([1-9]00)(?=\b|i)/g)].map(([, weight]) => Number(weight));
      return [
        {
          family,
          weights: weights.length ? [...new Set(weights)].sort((a, b) => a - b) : [400],
          hasItalic: /ital|\d+i\b|italic/.test(axes),
          isIcons: isIconFamily(family),
        },
      ];
    });
}

/** The class by which pages set icons of a family; the font service's own style sheet would have defined it. */
export function iconClassCss({ family }: WebFont): string {
  const name = family
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-');
  return `.${name}{font-family:"${family}";font-weight:normal;font-style:normal;font-size:24px;line-height:1;letter-spacing:normal;text-transform:none;display:inline-block;white-space:nowrap;word-wrap:normal;direction:ltr}`;
}
