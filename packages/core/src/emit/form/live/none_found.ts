import { equals, listing } from '../../../expression/expression.ts';
import type { EmittedScreen, LiveUse, MarkupElement, MarkupNode } from '../markup.ts';

const CLASS = 'noneFound';

/** A screen with the style of what stands in its lists while no record fits, where it has such lists. */
export const withNoneFound = (screen: EmittedScreen, hasLists: boolean): EmittedScreen =>
  !hasLists || screen.rules.some(({ className }) => className === CLASS)
    ? screen
    : {
        ...screen,
        rules: [
          ...screen.rules,
          {
            className: CLASS,
            key: null,
            base: {
              'padding-top': '20px',
              'padding-right': '16px',
              'padding-bottom': '20px',
              'padding-left': '16px',
              'text-align': 'center',
            },
            at: {},
            from: {},
            states: {},
          },
        ],
      };

/** What stands in a list while no record fits, as its container can hold it. */
export function noneFound(container: MarkupElement, { listing: list }: LiveUse): MarkupElement {
  const element = (
    tag: string,
    children: readonly MarkupNode[],
    more: Partial<MarkupElement> = {},
  ): MarkupElement => ({
    tag,
    key: container.key,
    className: null,
    attributes: {},
    children,
    ...more,
  });
  const when = equals(listing(list, 'found'), 0);
  const says = element('p', [{ text: 'Nothing fits.' }], {
    className: CLASS,
    attributes: { role: 'status' },
  });
  if (/^(tbody|table|thead|tfoot)$/.test(container.tag))
    return element('tr', [element('td', [says], { attributes: { colspan: '100' } })], { when });
  if (/^(ul|ol|menu)$/.test(container.tag)) return element('li', [says], { when });
  return { ...says, when };
}
