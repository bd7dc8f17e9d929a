import { type DefaultTreeAdapterMap, parse, parseFragment, serialize } from 'parse5';
import { ICON_ATTRIBUTES, type IconLibrary } from './outside_packages.ts';

type Node = DefaultTreeAdapterMap['node'];
type ParsedElement = DefaultTreeAdapterMap['element'];

/** The drawing of a library under a name, as SVG; null where it has none. */
export type IconSource = (library: IconLibrary, name: string) => string | null;

/** The drawing that a script would put in the place of an element that names it, with the attributes that it has. */
export function iconInPlaceOf(element: ParsedElement, icon: IconSource): ParsedElement | null {
  if (element.tagName === 'svg') return null;
  for (const { name, value } of element.attrs) {
    const library = Object.hasOwn(ICON_ATTRIBUTES, name) ? ICON_ATTRIBUTES[name] : null;
    const named = value.trim().toLowerCase();
    const drawing = library && icon(library, named);
    if (!drawing) continue;
    const [svg] = parseFragment(drawing).childNodes as ParsedElement[];
    const classes = [library, `${library}-${named}`];
    const own = element.attrs.filter((attr) => attr.name !== 'class');
    const told = new Set(own.map((attr) => attr.name));
    const given = element.attrs.find((attr) => attr.name === 'class')?.value;
    svg.attrs = [
      ...svg.attrs.filter((attr) => !told.has(attr.name)),
      ...own,
      { name: 'class', value: [...classes, ...(given ? [given] : [])].join(' ') },
    ];
    svg.parentNode = element.parentNode;
    return svg;
  }
  return null;
}

/** A page as it is once a script has put its drawings in; the very text where there are none. */
export function withScriptedIcons(html: string, icon: IconSource): string {
  const document = parse(html);
  let isChanged = false;
  const visit = (node: Node): void => {
    if (!('childNodes' in node)) return;
    node.childNodes = node.childNodes.map((child) => {
      const drawing = 'tagName' in child ? iconInPlaceOf(child, icon) : null;
      if (drawing) isChanged = true;
      else visit(child);
      return drawing ?? child;
    });
  };
  visit(document);
  return isChanged ? serialize(document) : html;
}
