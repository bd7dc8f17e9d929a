import { isElement, type MarkupElement } from '../form/markup.ts';
import { type Effect, effectsOf, type Known, type OnScreen, rowAround } from './effects.ts';
import { canBeFilledIn, enteredInto } from './forms.ts';
import { canBeReached } from './deeds.ts';
import { type Opens, waysOf } from './presses.ts';
import { eachWithin } from './within.ts';

/** A field that does something as soon as it says something else, and what is so then. */
export interface TestedChange {
  readonly from: string;
  /** What the field is called: by its label, what stands in it, or its name. */
  readonly field: string;
  /** Which of several that are called so, from 0; not there for the first. */
  readonly at?: number;
  /** What is entered or chosen; `yes` and `no` of a box that is ticked. */
  readonly says: string;
  readonly does: readonly Effect[];
  readonly given?: Readonly<Record<string, boolean>>;
  /** What is pressed first, where it stands in what opens over its screen. */
  readonly opens?: Opens;
}

interface FieldHere {
  readonly node: MarkupElement;
  /** What it stands in, from the outermost on. */
  readonly within: readonly MarkupElement[];
  readonly field: string;
  readonly at: number;
}

/** What the test enters, ticks and chooses on a screen. Of the rows of a list the first stands for all. */
export function testedChangesIn(
  root: MarkupElement,
  known: Known,
  here: OnScreen,
): Omit<TestedChange, 'from'>[] {
  return fieldsOf(root).flatMap(({ node, within, field, at }): Omit<TestedChange, 'from'>[] => {
    const act = node.acts?.find(({ on }) => on === 'change');
    if (!act || !canBeFilledIn(node) || !canBeReached({ node, within })) return [];
    const row = rowAround(within, known.collections);
    if (row && (!row.isFirst || row.view.options.of)) return [];
    const says = changedTo(node);
    if (says === null) return [];
    return waysOf(act).flatMap(({ given, steps }): Omit<TestedChange, 'from'>[] => {
      const does = effectsOf(steps, known, { ...here, row, given, filled: {}, entered: says }) ?? [];
      if (!does.length) return [];
      const which = at ? { at } : {};
      return [{ field, ...which, says, does, ...(Object.keys(given).length ? { given } : {}) }];
    });
  });
}

/** All fields, in order, each as a test finds it: `fieldCalled` of an app's own tests. */
function fieldsOf(root: MarkupElement): FieldHere[] {
  const found: FieldHere[] = [];
  const counts = new Map<string, number>();
  eachWithin(root, (node, within) => {
    if (/^(input|select|textarea)$/.test(node.tag)) {
      const field = calledOf(node);
      const at = counts.get(field) ?? 0;
      counts.set(field, at + 1);
      found.push({ node, within, field, at });
    }
  });
  return found;
}

const calledOf = ({ attributes }: MarkupElement): string =>
  String(attributes['aria-label'] ?? attributes.placeholder ?? attributes.name ?? '');

/** What a field says once it is changed; null where that is not known. */
function changedTo(node: MarkupElement): string | null {
  const { type, checked, value } = node.attributes;
  if (node.tag === 'select') {
    const [first, ...others] = node.children.filter(isElement).filter(({ tag }) => tag === 'option');
    const chosen = [first, ...others].find(({ attributes }) => attributes.selected !== undefined) ?? first;
    const rest = [first, ...others].filter((one) => one !== chosen);
    return rest.length ? enteredInto({ ...node, children: rest }, null) : null;
  }
  if (type === 'checkbox') return checked === undefined ? 'yes' : 'no';
  if (type === 'radio') return checked === undefined && typeof value === 'string' ? value : null;
  return enteredInto(node, null);
}
