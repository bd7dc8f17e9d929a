import { type Expression, literal, not } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import { type EmittedScreen, isElement, mapChildren, type MarkupElement } from '../markup.ts';
import { withChosenLooks } from './chosen_looks.ts';

/** What says that a variable is what a control makes it. */
interface Chosen {
  readonly group: string;
  readonly by: Expression;
}

/**
 * A screen on which controls that make a variable one thing or another show which it is: the look of the one that is drawn
 * as chosen goes where the variable is what it makes it, and each says whether it is chosen. The same screen where none do.
 */
export function withChosenSettings(screen: EmittedScreen): EmittedScreen {
  const controls: Chosen[] = [];
  const visit = (node: MarkupElement): void => {
    const chosen = chosenBy(node);
    if (chosen) controls.push(chosen);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(screen.root);
  const several = new Set(
    [...grouped(controls, ({ group }) => group)].flatMap(([group, own]) => (own.length > 1 ? [group] : [])),
  );
  if (!several.size) return screen;
  const among = (node: MarkupElement): Chosen | null => {
    const chosen = chosenBy(node);
    return chosen && several.has(chosen.group) ? chosen : null;
  };
  const saying = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? saying(child) : child));
    const chosen = node.tag === 'button' ? among(node) : null;
    return chosen ? { ...made, slots: { ...made.slots, '@aria-pressed': chosen.by } } : made;
  };
  return withChosenLooks({ ...screen, root: saying(screen.root) }, among);
}

/** Of a control that does nothing when it is pressed but give a variable a plain value. */
function chosenBy({ acts = [] }: MarkupElement): Chosen | null {
  const press = acts.find(({ on }) => on === 'press');
  const [way, ...more] = press?.ways ?? [];
  const [step, ...others] = way?.steps ?? [];
  if (!way || way.when || more.length || others.length || step?.kind !== 'set') return null;
  if (step.to.kind !== 'literal' || step.to.value === undefined) return null;
  const variable: Expression = { kind: 'variable', name: step.condition };
  const { value } = step.to;
  const by: Expression =
    typeof value === 'boolean'
      ? value
        ? variable
        : not(variable)
      : { kind: 'compare', by: 'equal', left: variable, right: literal(value) };
  return { group: `set ${step.condition}`, by };
}
