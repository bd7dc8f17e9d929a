/** How components say which parts are open, open them and close them, with what they take of the runtime. */

import type { Expression } from '../../expression/expression.ts';
import {
  type DisclosureChoice,
  isOpenAtFirst,
  type MarkupElement,
  noteDisclosed,
  type Spoken,
} from '../form/markup.ts';
import { named, printed, script, type Script, type Written } from '../script.ts';

type Disclosing = Pick<Spoken, 'disclosed' | 'choices'>;

/** The constant in a component that knows which parts are open. */
export const DISCLOSURE = 'disclosure';

/** What takes what is open from the runtime: the constants, each with the call that gives it, and the hooks. */
export function disclosureConstants({ disclosed, choices }: Disclosing): {
  readonly constants: readonly string[];
  readonly hooks: readonly string[];
} {
  const call = (name: string, hook: string, given: readonly Written[]): string =>
    script`const ${named(name)} = ${named(hook)}(${given});`.text;
  return {
    constants: [
      ...(disclosed ? [call(DISCLOSURE, 'useDisclosure', [...disclosed].map(printed))] : []),
      ...[...choices]
        .sort()
        .map(([name, { first, inOrder }]) => call(name, 'useChoice', [first, ...inOrder])),
    ],
    hooks: [...(choices.size ? ['useChoice'] : []), ...(disclosed ? ['useDisclosure'] : [])],
  };
}

/**
 * What spreads over an element what it takes to be a part that opens, or to open one; null for one that is neither.
 * @param given what an expression is written as
 * @param atFirst what says that a part is open at first where an expression does
 */
export function disclosureSpread(
  node: MarkupElement,
  used: Disclosing,
  given: (expression: Expression) => string,
  atFirst: (isOpen: Expression, id: string) => Script,
): string | null {
  const { part, link, slots = {} } = node;
  const call = (choice: DisclosureChoice | undefined, method: string, id: Written): string =>
    script`${named(choice?.name ?? DISCLOSURE)}.${named(method)}(${id})`.text;
  const note = (choice: DisclosureChoice | undefined, id: Written): void => {
    const isOpen = isOpenAtFirst(node);
    const first = script`${id}`;
    const open = typeof isOpen === 'object' ? atFirst(isOpen, first.text) : first;
    noteDisclosed(used, choice, !choice && isOpen ? open.text : undefined);
  };
  if (part) {
    const id = slots['@id'] ? printed(given(slots['@id'])) : String(node.attributes.id ?? '');
    note(part.choice, id);
    const method = part.choice
      ? 'panel'
      : part.isNarrow
        ? 'narrow'
        : part.kind === 'menu' || part.kind === 'dialog'
          ? part.kind
          : 'section';
    return call(part.choice, method, id);
  }
  if (link?.kind !== 'disclose' || node.form !== 'button') return null;
  const id = slots.to ? printed(given(slots.to)) : link.id;
  note(link.choice, id);
  if (link.choice) return call(link.choice, node.attributes.role === 'tab' ? 'tab' : 'opener', id);
  return call(undefined, link.does === 'close' ? 'closer' : 'opener', id);
}

/** Whether what is spread over a part says an attribute by itself. */
export const isSaidBySpread = ({ part }: MarkupElement, name: string): boolean =>
  part !== undefined && name === 'id';
