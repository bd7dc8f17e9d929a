import { isElement, isText, type MarkupElement } from '../emit/form/markup.ts';
import type { WholeComponent } from '../emit/form/components/extract.ts';

/** Something that a drawn component says: a text, a picture, a drawing, what stands within it, or a button in it. */
export interface Saying {
  readonly kind: 'text' | 'picture' | 'alt' | 'drawing' | 'content' | 'deed';
  /** The prop that gives it; null where it is always the same. */
  readonly prop: string | null;
  /** What is always said, or what the first place says. */
  readonly says: string;
}

/** What a drawn component says, in the order in which it is read. */
export function sayingsOf({ root, props }: WholeComponent): Saying[] {
  const found: Saying[] = [];
  const sampleOf = (name: string): string => props.find((prop) => prop.name === name)?.sample ?? '';
  const put = (saying: Saying): void => {
    if (
      !found.some(
        ({ kind, prop, says }) => kind === saying.kind && prop === saying.prop && says === saying.says,
      )
    )
      found.push(saying);
  };
  const visit = (node: MarkupElement): void => {
    // A button within something else is drawn by theirs, if at all; what it says is no text of the whole.
    if (node !== root && node.tag === 'button') {
      put({ kind: 'deed', prop: null, says: wordsIn(node) });
      return;
    }
    const { slots = {} } = node;
    if (node.asset || slots.asset) {
      const by = slots.asset?.kind === 'prop' ? slots.asset.name : null;
      put({ kind: 'picture', prop: by, says: by === null ? '' : sampleOf(by) });
      const alt = slots['@alt'];
      const fixed = node.attributes.alt;
      if (alt?.kind === 'prop') put({ kind: 'alt', prop: alt.name, says: sampleOf(alt.name) });
      else if (typeof fixed === 'string' && fixed) put({ kind: 'alt', prop: null, says: fixed });
    }
    if (node.tag === 'svg') put({ kind: 'drawing', prop: null, says: '' });
    if (node.tag === 'svg') return;
    for (const child of node.children) {
      if (isElement(child)) visit(child);
      else if ('slot' in child && child.slot.kind === 'prop')
        put({ kind: 'drawing', prop: child.slot.name, says: '' });
      else if ('content' in child) put({ kind: 'content', prop: null, says: '' });
      else if (isText(child) && child.given) {
        if (child.given.kind === 'prop')
          put({ kind: 'text', prop: child.given.name, says: sampleOf(child.given.name) });
      } else if (isText(child) && child.text.trim())
        put({ kind: 'text', prop: null, says: child.text.trim() });
    }
  };
  visit(root);
  return found;
}

/** The words that always stand in markup. */
const wordsIn = (node: MarkupElement): string =>
  node.children
    .map((child) => (isElement(child) ? wordsIn(child) : isText(child) && !child.given ? child.text : ''))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
