import { FIRST_PAGE, isExternalAddress } from '../vocabulary/addresses.ts';
import { TAGS } from '../vocabulary/tags.ts';
import type { Element } from '../model/design.ts';

/** Parts of class names of icons that tell their size or turn them, and what families of icons begin and end with. */
const BESIDES =
  /^(\d+x?|xs|sm|md|lg|xl|fw|fas|far|fab|fa|solid|regular|outline|outlined|rounded|filled|fill|line|spin|pulse|stack|icons?|glyphicons?|ui|o|square|circle|alt|vert|horiz)$/;

/** Class names that say how something looks, by the way they begin. */
const LOOKS =
  /^(btn|button|link|nav|text|bg|border|rounded|position|order|col|row|float|align|justify|items|flex|grid|d|p|m|w|h|fs|fw|[pm][xytrblse]|g|gap|shadow|active|show|hide|hidden|collapsed|cursor|opacity|disabled|dropdown|item|is|has|js|no|sm|md|lg|xl)(-|$)/;

/**
 * What an element without any text is called: as its tooltip, its icon or the picture in it, where it leads, its id or a
 * class; at last by what it is. Never a tag.
 */
export function namelessLabel(element: Element): string {
  const { attributes = {} } = element;
  return (
    firstOf([
      attributes.title,
      inside(element, ({ attributes: own = {} }) => own.alt ?? own['aria-label'] ?? own.title),
      meantBy(inside(element, iconOf)),
      meantBy(inside(element, drawnOf)),
      hostOf(attributes.href),
      pageOf(attributes.href),
      element.source.id && words(element.source.id),
      attributes['aria-controls'] && words(attributes['aria-controls']),
      ...(element.classes ?? '').split(/\s+/).map((one) => (LOOKS.test(one) ? '' : meantBy(words(one)))),
      OPENS[attributes['aria-haspopup'] ?? ''],
    ]) ?? plain(element)
  );
}

/** What signs that everybody knows stand for, by what they show. */
const MEANT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    Menu: 'bars,burger,hamburger,menu,menu toggle,nav toggle,navbar toggle,navbar toggler,navicon,toggler,align justify',
    Close: 'close,cross,times,x,xmark',
    Search: 'magnifying glass,search,magnifier',
    More: 'ellipsis,ellipsis h,ellipsis v,ellipsis vertical,ellipsis horizontal,more vert,more horizontal,more vertical,dots vertical,dots horizontal,three dots,three dots vertical',
    Settings: 'cog,gear,settings',
    Delete: 'bin,delete,trash,trash alt,trash can,trash 2',
    Edit: 'edit,pen,pen to square,pencil,pencil alt,pencil square,square pen',
    Add: 'add,plus',
  }).flatMap(([meaning, signs]) => signs.split(',').map((sign) => [sign, meaning] as const)),
);

const meantBy = (sign: string | undefined): string | undefined =>
  sign &&
  (MEANT.get(
    sign
      .trim()
      .toLowerCase()
      .replace(/[-_ ]+/g, ' '),
  ) ??
    sign);

/** Whether an element is only called by its tag. */
export const isNameless = ({ name, tag }: Element): boolean =>
  name.trim() === '' || name === tag || TAGS.has(name.toLowerCase()) || name.toLowerCase() === 'link';

const firstOf = (said: readonly (string | undefined)[]): string | undefined =>
  said.find((text) => text !== undefined && /\p{L}{2}/u.test(text))?.trim();

/** What the first of an element and those in it says that says anything. */
function inside(element: Element, say: (element: Element) => string | undefined): string | undefined {
  return firstOf([say(element)]) ?? firstOf(element.children.map((child) => inside(child, say)));
}

/** `fa-th-large` → `Th large`; nothing where no class names an icon. */
function iconOf({ classes = '', tag, children, text }: Element): string | undefined {
  if (text?.trim() || children.length > 1 || !/^(i|span|em|svg|img)$/.test(tag ?? '')) return undefined;
  const names = classes.split(/\s+/).flatMap((one) => {
    const [, family, rest] = /^([a-z]+)[-_](.+)$/i.exec(one) ?? [];
    if (!rest || LOOKS.test(one)) return [];
    return [{ isFamily: family.length <= 3 || family.includes('icon'), name: words(rest) }];
  });
  // Families of icons have short names; other classes only say how it looks.
  const sorted = names.toSorted(
    (a, b) => Number(b.isFamily) - Number(a.isFamily) || b.name.length - a.name.length,
  );
  return firstOf(sorted.map(({ name }) => name));
}

/** What a drawing that has a name shows. */
const drawnOf = ({ kind, name }: Element): string | undefined =>
  kind === 'vector' && !UNTOLD.test(name) ? words(name) : undefined;
const UNTOLD = /^(svg|g|path|rect|circle|line|use|icon|vector|drawing)$/i;

/** What a button that says nothing else opens, by what it says to readers of the screen. */
const OPENS: Readonly<Record<string, string>> = {
  true: 'Menu',
  menu: 'Menu',
  listbox: 'Choices',
  dialog: 'Dialog',
};

function hostOf(href: string | undefined): string | undefined {
  if (!href || !isExternalAddress(href) || !URL.canParse(href)) return undefined;
  const [name] = new URL(href).hostname.replace(/^www\./, '').split('.');
  return words(name);
}

/** `../pages/my-loans.html` → `My loans`; the first page of a site is its home. */
function pageOf(href: string | undefined): string | undefined {
  const file = /([^/]+)\.(?:x?html?)(?:[?#].*)?$/i.exec(href ?? '')?.[1];
  if (file === undefined || isExternalAddress(href!)) return undefined;
  return FIRST_PAGE.test(file) ? 'Home' : words(file);
}

/** `sidebarToggle-2` → `Sidebar toggle`. */
function words(text: string): string {
  const parts = text
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .split(/[^\p{L}\p{N}]+/u)
    .map((part) => part.toLowerCase())
    .filter((part) => part && !BESIDES.test(part));
  const said = parts.join(' ');
  return said && said[0].toUpperCase() + said.slice(1);
}

function plain({ tag, role, attributes = {} }: Element): string {
  if (tag === 'a' || role === 'link' || attributes.href !== undefined) return 'Link without a name';
  if (tag === 'button' || role === 'button') return 'Button without a name';
  return 'Part without a name';
}
