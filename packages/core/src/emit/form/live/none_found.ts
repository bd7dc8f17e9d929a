import { allOf, equals, type Expression, listing, not } from '../../../expression/expression.ts';
import type { DrawnState } from '../../../model/app.ts';
import type { EmittedAct, EmittedScreen, LiveUse, MarkupElement, MarkupNode, StyleRule } from '../markup.ts';
import type { ListingName } from './live.ts';

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

/** Why a list has nothing to show, and what says so; of one that no API keeps only that nothing fits. */
export function reasonsOf(
  list: ListingName,
  isRemote: boolean,
): Readonly<Partial<Record<DrawnState, Expression>>> {
  const isNone = equals(listing(list, 'found'), 0);
  if (!isRemote) return { empty: isNone };
  const [waiting, failed] = [listing(list, 'isWaiting'), listing(list, 'problem')];
  return { waiting, failed, empty: allOf([isNone, not(waiting), not(failed)])! };
}

/** What asks anew for a list that did not come. */
export const askingAnew = (list: ListingName): readonly EmittedAct[] => [
  { on: 'press', ways: [{ steps: [{ kind: 'list', listing: list, deed: { kind: 'retry' } }] }] },
];

/** What stands in a list while it shows no rows, but for what was drawn for that. */
export function besideRows(container: MarkupElement, { listing: list, isRemote }: LiveUse): MarkupElement[] {
  const reasons = reasonsOf(list, isRemote === true);
  const plain = (state: DrawnState, children: readonly MarkupNode[], role?: string): MarkupElement[] => {
    const when = container.states?.includes(state) ? undefined : reasons[state];
    return when ? [standing(container, when, children, role)] : [];
  };
  const again: MarkupElement = {
    tag: 'button',
    key: container.key,
    className: AGAIN,
    attributes: { type: 'button' },
    form: 'button',
    acts: askingAnew(list),
    children: [{ text: 'Try again' }],
  };
  return [
    ...plain('waiting', [{ text: 'Loading …' }]),
    ...plain('failed', [{ text: '', given: reasons.failed }, { text: ' ' }, again], 'alert'),
    ...plain('empty', [{ text: 'Nothing fits.' }]),
  ];
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
