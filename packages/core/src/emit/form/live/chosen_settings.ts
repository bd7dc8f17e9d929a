import { type Expression, literal, not } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import { type EmittedScreen, isElement, mapChildren, type MarkupElement } from '../markup.ts';
import { type ChoiceOf, withChosenLooks } from './chosen_looks.ts';

/** What says that a variable is what a control makes it. */
interface Chosen {
  readonly group: string;
  readonly by: Expression;
  /** The number that it makes it. */
  readonly count: number | null;
}

/** Fewer that make a number 1, 2 and so on are no scale. */
const LEAST_STEPS = 3;

/**
 * A screen on which controls that make a variable one thing or another show which it is: the look of the one that is drawn
 * as chosen goes where the variable is what it makes it, and each says whether it is chosen. Those that make a number 1, 2, 3 and
 * so on, as stars do, look so up to the one that is chosen. The same screen where none do.
 */
export function withChosenSettings(screen: EmittedScreen): EmittedScreen {
  const controls: Chosen[] = [];
  const visit = (node: MarkupElement): void => {
    const chosen = chosenBy(node);
    if (chosen) controls.push(chosen);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(screen.root);
  const groups = [...grouped(controls, ({ group }) => group)];
  const several = new Set(groups.flatMap(([group, own]) => (own.length > 1 ? [group] : [])));
  if (!several.size) return screen;
  const scales = new Set(groups.flatMap(([group, own]) => (isScale(own) ? [group] : [])));
  const among = (node: MarkupElement): Chosen | null => {
    const chosen = chosenBy(node);
    return chosen && several.has(chosen.group) ? chosen : null;
  };
  const looking: ChoiceOf = (node) => {
    const chosen = among(node);
    if (!chosen || !scales.has(chosen.group) || chosen.by.kind !== 'compare') return chosen;
    return { group: chosen.group, by: { ...chosen.by, by: 'atLeast' }, isScale: true };
  };
  const saying = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? saying(child) : child));
    const chosen = node.tag === 'button' ? among(node) : null;
    return chosen ? { ...made, slots: { ...made.slots, '@aria-pressed': chosen.by } } : made;
  };
  return withChosenLooks({ ...screen, root: saying(screen.root) }, looking);
}

const isScale = (controls: readonly Chosen[]): boolean =>
  controls.length >= LEAST_STEPS && controls.every(({ count }, i) => count === i + 1);

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
  return { group: `set ${step.condition}`, by, count: typeof value === 'number' ? value : null };
}
