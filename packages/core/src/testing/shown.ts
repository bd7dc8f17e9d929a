import { type DefaultTreeAdapterTypes as T, parse } from 'parse5';

/** What a page shows: its elements with what they say, and no breaks between them. */
export function shown(html: string): unknown {
  const visit = (node: T.ChildNode): unknown[] => {
    if (node.nodeName === '#text') {
      const { value } = node as T.TextNode;
      return /^\s*$/.test(value) && value.includes('\n') ? [] : [value];
    }
    if (!('childNodes' in node) || /^(script|dialog)$/.test(node.nodeName)) return [];
    // A drawing that is in the file of all of them is told by its name alone.
    const children = node.nodeName === 'svg' ? [] : node.childNodes.flatMap(visit);
    const kept = node.attrs.filter(({ name }) => !/^(class|href|src|data-.*|role|tabindex|rel)$/.test(name));
    return [[node.tagName, kept, children]];
  };
  const body = (parse(html).childNodes.find((node) => node.nodeName === 'html') as T.Element).childNodes.find(
    (node) => node.nodeName === 'body',
  ) as T.Element;
  return body.childNodes.flatMap(visit);
}
