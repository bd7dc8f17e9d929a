/** What a script would have put on the outermost element of a page, or on its body, before anything is drawn. */
export interface RootTheme {
  readonly on: 'html' | 'body';
  readonly attribute: string;
  readonly value: string;
}

/** What holds whatever the theme. */
const WHOLE = /^(:root|html|body|\*)$/;
/** A selector of the outermost element or the body by one attribute or class, and nothing else. */
const OF_ROOT = /^(:root|html|body)?(?:\[(data-[\w-]+)=["']?([\w-]+)["']?\]|\.([\w-]+))$/;
const PROPERTY = /(--[\w-]+)\s*:/g;
/** Fewer properties than these are no theme. */
const LEAST_PROPERTIES = 3;
/** What a page looks like where nobody chose. */
const USUAL = /light|default|white|day/i;

/**
 * The theme that a page is drawn in: where its sheets say what is needed everywhere only for one of several themes, and the page
 * names none, since a script does. The light one, else the first. Null where nothing is missing.
 * @param has whether the page itself says the attribute of a theme, or has its class
 */
export function rootThemeOf(sheets: readonly string[], has: (theme: RootTheme) => boolean): RootTheme | null {
  const themes = new Map<string, { readonly theme: RootTheme; readonly properties: Set<string> }>();
  const always = new Set<string>();
  for (const sheet of sheets)
    for (const { selectors, block } of rulesIn(sheet)) {
      const properties = Array.from(block.matchAll(PROPERTY), ([, name]) => name);
      if (!properties.length) continue;
      for (const selector of selectors) {
        const theme = themeIn(selector);
        const known = theme && themes.get(selector);
        if (theme && !known) themes.set(selector, { theme, properties: new Set(properties) });
        for (const name of properties) known?.properties.add(name);
        if (WHOLE.test(selector)) for (const name of properties) always.add(name);
      }
    }
  const used = new Set(
    sheets.flatMap((sheet) => Array.from(sheet.matchAll(/var\(\s*(--[\w-]+)/g), ([, name]) => name)),
  );
  const said = new Set([...themes.values()].flatMap(({ theme }) => (has(theme) ? placeOf(theme) : [])));
  const missing = [...themes.values()].filter(
    ({ theme, properties }) =>
      !said.has(placeOf(theme)) &&
      [...properties].filter((name) => used.has(name) && !always.has(name)).length >= LEAST_PROPERTIES,
  );
  return (missing.find(({ theme }) => USUAL.test(theme.value)) ?? missing[0])?.theme ?? null;
}

/** A page as its author wrote it, with a theme on its outermost element or its body. */
export function withRootTheme(html: string, { on, attribute, value }: RootTheme): string {
  const tag = new RegExp(`<${on}(?=[\\s>])[^>]*`, 'i').exec(html);
  // A second one only adds to the first.
  if (!tag) return `${html}<${on} ${attribute}="${value}">`;
  const said = attribute === 'class' ? tag[0].replace(/(\sclass\s*=\s*["'])/i, `$1${value} `) : tag[0];
  const put = said === tag[0] ? `${said} ${attribute}="${value}"` : said;
  return html.slice(0, tag.index) + put + html.slice(tag.index + tag[0].length);
}

/** Longer lists of selectors are looked at no further, in UTF-16 units. */
const LONGEST_SELECTORS = 2000;

/** The rules of a sheet, those within others by themselves. Takes as long as the sheet is, whatever stands in it. */
function* rulesIn(
  sheet: string,
): Generator<{ readonly selectors: readonly string[]; readonly block: string }> {
  for (const text of sheet.split('}')) {
    const open = text.lastIndexOf('{');
    const before = text.slice(0, Math.max(0, open));
    const remark = before.lastIndexOf('*/');
    const after = Math.max(before.lastIndexOf('{'), before.lastIndexOf(';'), remark < 0 ? -1 : remark + 1);
    const head = before.slice(after + 1);
    if (open < 0 || head.length > LONGEST_SELECTORS) continue;
    yield { selectors: head.split(',').map((one) => one.trim()), block: text.slice(open + 1) };
  }
}

/** Of what stands at one place, one is chosen. */
const placeOf = ({ on, attribute }: RootTheme): string => `${on} ${attribute}`;

function themeIn(selector: string): RootTheme | null {
  const [, on, attribute, value, className] = OF_ROOT.exec(selector) ?? [];
  // A class by itself can be that of anything.
  if (className !== undefined ? on === undefined : attribute === undefined) return null;
  return {
    on: on === 'body' ? 'body' : 'html',
    attribute: attribute ?? 'class',
    value: value ?? className,
  };
}
