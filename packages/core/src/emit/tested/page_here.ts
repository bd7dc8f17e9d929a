import type { MarkupElement } from '../form/markup.ts';
import { type Known, type PageHere, recordsIn, rowAround } from './effects.ts';
import { canBeFilledIn } from './forms.ts';
import { eachWithin } from './within.ts';

/** What is on a screen, or in what opens over one, before anything is done there. */
export function pageHere(root: MarkupElement, known: Known): PageHere {
  const parts = new Map<string, boolean | null>();
  const narrow = new Set<string>();
  const opened = new Set<string>();
  const controls = new Map<string, readonly MarkupElement[]>();
  eachWithin(root, (node, within) => {
    const { part, link, attributes, slots } = node;
    if (link?.kind === 'disclose' && link.does !== 'close') opened.add(link.id);
    if (part?.isNarrow && typeof attributes.id === 'string') narrow.add(attributes.id);
    const { id, 'data-ticks': ticks } = attributes;
    if (part && typeof id === 'string')
      // One id stands once on a page; where it does not, nobody knows which is meant.
      parts.set(id, parts.has(id) || slots?.['@id'] || typeof part.isOpen === 'object' ? null : part.isOpen);
    if (typeof ticks === 'string') controls.set(ticks, [...within, node]);
  });
  return {
    // What only narrow windows close is as what opens it says.
    isOpen: (id) => (narrow.has(id) && !opened.has(id) ? null : (parts.get(id) ?? null)),
    ticks: (name) => moreTicked(controls.get(name) ?? [], known),
  };
}

/** @param path a control and what it stands in, from the outermost on */
function moreTicked(path: readonly MarkupElement[], known: Known): number | null {
  const control = path.at(-1);
  for (const around of path.slice(0, -1).toReversed()) {
    const boxes = boxesIn(around, path, known);
    if (!boxes) return null;
    const others = boxes.filter(({ node }) => node !== control);
    if (!others.length) continue;
    const isBox = control?.tag === 'input';
    const isTicked = isBox ? !wasTicked(control) : others.some(({ node }) => !wasTicked(node));
    const counted = isBox ? [...others, { node: control, times: 1 }] : others;
    return counted.reduce(
      (sum, { node, times }) => sum + (Number(isTicked) - Number(wasTicked(node))) * times,
      0,
    );
  }
  return null;
}

interface Boxes {
  readonly node: MarkupElement;
  /** How often it stands on the page. */
  readonly times: number;
}

/** The boxes within something, those of the rows of a list once for all rows; null where nobody knows how many there are. */
function boxesIn(around: MarkupElement, path: readonly MarkupElement[], known: Known): Boxes[] | null {
  const found: Boxes[] = [];
  /** Whether the boxes of the rows of a collection are ticked. */
  const ticked = new Map<string, boolean>();
  let isKnown = true;
  const outside = path.slice(0, path.indexOf(around));
  eachWithin(around, (node, within) => {
    if (node.tag !== 'input' || node.attributes.type !== 'checkbox' || !canBeFilledIn(node)) return;
    const all = [...outside, ...within];
    const row = rowAround(all, known.collections);
    // The first row stands for all, where all were drawn alike.
    if (row) {
      const alike = ticked.get(row.records) ?? wasTicked(node);
      isKnown &&= alike === wasTicked(node);
      ticked.set(row.records, alike);
    }
    if (row && !row.isFirst) return;
    const { of, perPage = Infinity } = row?.view.options ?? {};
    const changes = [node, ...all].some(({ when, states }) => when !== undefined || states !== undefined);
    isKnown &&= of === undefined && !changes && node.slots?.['@checked'] === undefined;
    const times = row ? Math.min(perPage, recordsIn(known.collections.get(row.records)!, row.view)) : 1;
    found.push({ node, times });
  });
  return isKnown ? found : null;
}

const wasTicked = ({ attributes }: MarkupElement): boolean => attributes.checked !== undefined;
