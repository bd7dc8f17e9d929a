import { kept, sameList } from '../../json/kept.ts';
import { keepAddress } from './components/own_links.ts';
import { isElement, type MarkupElement, type MarkupNode } from './markup.ts';

/**
 * Markup as it is now, with the very elements of before wherever nothing in them differs, so that what was made of those is not
 * made anew. What is within a link that leads elsewhere by now is not what it was.
 */
export function keptMarkup(before: MarkupElement | undefined, now: MarkupElement): MarkupElement {
  if (before === now || before === undefined) return now;
  const link = kept(before.link, now.link);
  if (link !== before.link || (now.slots?.to === undefined) !== (before.slots?.to === undefined)) return now;
  const { children: were, ...self } = before;
  const { children: are, ...own } = now;
  const byKey =
    were.length === are.length
      ? null
      : new Map(
          were.flatMap((child) => (isElement(child) && child.key !== null ? [[child.key, child]] : [])),
        );
  const children = are.map((child, i): MarkupNode => {
    if (!isElement(child)) return kept(were[i], child);
    const other = byKey ? byKey.get(child.key ?? '') : were[i];
    return keptMarkup(other && isElement(other) ? other : undefined, child);
  });
  const plain = kept(self, own);
  if (plain === self && sameList(were, children)) return before;
  if (sameList(are, children)) return now;
  const made = { ...now, children };
  keepAddress(now, made);
  return made;
}
