import { allOf, equals, type Expression, listing, not } from '../../../expression/expression.ts';
import type { DrawnState } from '../../../model/app.ts';
import type { EmittedScreen, LiveUse, MarkupElement, MarkupNode, StyleRule } from '../markup.ts';

const CLASS = 'noneFound';
const AGAIN = 'tryAgain';

/** A screen with the style of what stands in its lists while no record fits, where it has such lists. */
export const withNoneFound = (screen: EmittedScreen, hasLists: boolean): EmittedScreen =>
  !hasLists || screen.rules.some(({ className }) => className === CLASS)
    ? screen
    : {
        ...screen,
        rules: [
          ...screen.rules,
          rule(CLASS, {
            'padding-top': '20px',
            'padding-right': '16px',
            'padding-bottom': '20px',
            'padding-left': '16px',
            ...usualText(screen.rules),
            'text-align': 'center',
          }),
          rule(AGAIN, {
            'font-family': 'inherit',
            'font-size': 'inherit',
            'font-weight': '600',
            color: 'inherit',
            'text-decoration-line': 'underline',
            cursor: 'pointer',
          }),
        ],
      };

const rule = (className: string, base: StyleRule['base']): StyleRule => ({
  className,
  key: null,
  base,
  at: {},
  from: {},
  states: {},
});

/** How most texts of a screen are written, so that what nobody drew looks like what was drawn. */
function usualText(rules: readonly StyleRule[]): StyleRule['base'] {
  const texts = rules.filter(({ base }) => base['font-size'] !== undefined);
  return Object.fromEntries(
    ['font-family', 'font-size', 'color'].flatMap((property) => {
      const counts = new Map<string, number>();
      for (const { base } of texts)
        if (base[property] !== undefined) counts.set(base[property], (counts.get(base[property]) ?? 0) + 1);
      const [most] = [...counts].sort(([, a], [, b]) => b - a);
      return most ? [[property, most[0]]] : [];
    }),
  );
}

/** What stands in a list while it shows no rows: that none fits; of what an API keeps that it waits, or what went wrong. */
export function besideRows(container: MarkupElement, use: LiveUse): MarkupElement[] {
  const { listing: list, isRemote } = use;
  const isNone = equals(listing(list, 'found'), 0);
  const isDrawn = (state: DrawnState): boolean => container.states?.includes(state) === true;
  if (!isRemote) return isDrawn('empty') ? [] : [standing(container, isNone, [{ text: 'Nothing fits.' }])];
  const [isWaiting, problem] = [listing(list, 'isWaiting'), listing(list, 'problem')];
  const again: MarkupElement = {
    tag: 'button',
    key: container.key,
    className: AGAIN,
    attributes: { type: 'button' },
    form: 'button',
    acts: [{ on: 'press', ways: [{ steps: [{ kind: 'list', listing: list, deed: { kind: 'retry' } }] }] }],
    children: [{ text: 'Try again' }],
  };
  const told: readonly (readonly [DrawnState, MarkupElement])[] = [
    ['waiting', standing(container, isWaiting, [{ text: 'Loading …' }])],
    ['failed', standing(container, problem, [{ text: '', given: problem }, { text: ' ' }, again], 'alert')],
    [
      'empty',
      standing(container, allOf([isNone, not(isWaiting), not(problem)])!, [{ text: 'Nothing fits.' }]),
    ],
  ];
  return told.flatMap(([state, element]) => (isDrawn(state) ? [] : [element]));
}

/** A line among rows, as their container can hold it. */
function standing(
  container: MarkupElement,
  when: Expression,
  children: readonly MarkupNode[],
  role = 'status',
): MarkupElement {
  const element = (
    tag: string,
    inside: readonly MarkupNode[],
    more: Partial<MarkupElement> = {},
  ): MarkupElement => ({
    tag,
    key: container.key,
    className: null,
    attributes: {},
    children: inside,
    ...more,
  });
  const says = element('p', children, { className: CLASS, attributes: { role } });
  if (/^(tbody|table|thead|tfoot)$/.test(container.tag))
    return element('tr', [element('td', [says], { attributes: { colspan: '100' } })], { when });
  if (/^(ul|ol|menu)$/.test(container.tag)) return element('li', [says], { when });
  return { ...says, when };
}
