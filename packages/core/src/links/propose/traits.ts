import { hasParent, type Sight } from '../../roles/sight.ts';
import { type Evidence, labelKey, type Names, type Pressed } from './evidence.ts';
import type { Menu } from './menus.ts';
import { TOGGLE } from './name_evidence.ts';
import { wordLikeness } from './words.ts';

/** What is known of an element and of a screen that it may lead to, in the order of the weights. */
export const TRAITS = [
  'always',
  'best likeness of its label to a name of the screen',
  'likeness to a second name',
  'the label is the name, as written',
  'the label is a heading, as written',
  'share of the label’s words in the names',
  'label of one word',
  'label of more than three words',
  'a number in the label that is in no name',
  'marked there in its menu',
  'in a menu that stands on several screens',
  'share of the entries of that menu that are called as screens are',
  'in a menu of this screen alone',
  'leads to its own screen',
  'leads to its own screen, and is the marked entry',
  'opens or closes something',
  'is written as a link, or drawn',
  'is a button',
  'the app’s own name',
  'asks for the first screen',
  'rows of its list',
  'steps and ways back',
  'what is sent',
  'share of screens with this label',
  'has no label',
  'stands before a list that it opens',
  'another entry of its menu is called more like that screen',
  'in a pager, a bar of tabs, a slide show or breadcrumbs',
  'as like the name of another screen',
  'hidden',
  'likeness, in a menu whose entries are called as screens are',
  'likeness of a button',
  'likeness outside of any menu',
  'likeness of a heading alone',
  'the label says all that a name says, and no more',
  'so it does outside of any menu',
] as const;

/** What the traits of all pairs are worked out from. */
export interface TraitContext {
  readonly names: ReadonlyMap<string, Names>;
  readonly weight: (word: string) => number;
  readonly menus: ReadonlyMap<Pressed, Menu>;
  readonly screens: number;
  /** Screens on which a label stands. */
  readonly labels: ReadonlyMap<string, number>;
  /** How like an element’s label is to the likeliest names, and how many screens are called so. */
  readonly best: ReadonlyMap<Pressed, { readonly likeness: number; readonly count: number }>;
  /** The entries of each menu of a screen. */
  readonly entries: ReadonlyMap<Sight, readonly Pressed[]>;
}

interface NameLikeness {
  readonly best: number;
  readonly second: number;
  readonly heading: number;
  readonly isName: boolean;
  readonly isHeading: boolean;
}

/** How like the label of an element is to each of the names of a screen. */
export function nameLikeness(
  element: Pressed,
  to: string,
  context: Pick<TraitContext, 'names' | 'weight'>,
): NameLikeness {
  const key = `${element.words.join(' ')}\n${element.asWritten}\n${to}`;
  let known = likenesses.get(context.names);
  if (!known) likenesses.set(context.names, (known = new Map()));
  let likeness = known.get(key);
  if (!likeness) known.set(key, (likeness = likenessOf(element, to, context)));
  return likeness;
}

const likenesses = new WeakMap<TraitContext['names'], Map<string, NameLikeness>>();

function likenessOf(
  element: Pressed,
  to: string,
  { names, weight }: Pick<TraitContext, 'names' | 'weight'>,
): NameLikeness {
  const { title, file, headings, asWritten } = names.get(to)!;
  const of = (words: readonly string[]): number => wordLikeness(element.words, words, weight);
  const said = [of(title), of(file)];
  const heading = Math.max(0, ...headings.map(of));
  const [best, second] = [...said, heading].sort((a, b) => b - a);
  return {
    best,
    second,
    heading: heading > Math.max(...said) ? heading : 0,
    isName: element.asWritten !== '' && asWritten.names.has(element.asWritten),
    isHeading: element.asWritten !== '' && asWritten.headings.has(element.asWritten),
  };
}

/** Whether an entry is called as some screen is. */
const isCalled = (element: Pressed, context: TraitContext): boolean =>
  [...context.names.keys()].some((to) => {
    const { best, isName } = nameLikeness(element, to, context);
    return isName || best > 0.85;
  });

const qualities = new WeakMap<TraitContext, Map<Sight, number>>();

/** The share of a menu's entries that are called as screens are, or marked on one. */
function qualityOf(menu: Sight, context: TraitContext): number {
  let known = qualities.get(context);
  if (!known) qualities.set(context, (known = new Map()));
  let quality = known.get(menu);
  if (quality === undefined) {
    const entries = context.entries.get(menu) ?? [];
    const called = entries.filter(
      (entry) => context.menus.get(entry)?.marked.has(labelKey(entry)) || isCalled(entry, context),
    );
    known.set(menu, (quality = called.length / Math.max(1, entries.length)));
  }
  return quality;
}

const PAGER =
  / (pagination|pager|page item|page link|breadcrumb|breadcrumbs|carousel|slider|tablist|nav tabs|nav pills|tab) /;

/** Whether a nested list stands beside an element, or it says that it opens something. */
export function opensList({ element, children, parent, index }: Sight): boolean {
  const said = element.attributes ?? {};
  if ('aria-expanded' in said || 'aria-controls' in said || 'aria-haspopup' in said) return true;
  const next = parent?.children[index + 1];
  const isList = (one: Sight | undefined): boolean =>
    !!one &&
    (/^(ul|ol)$/.test(one.element.tag ?? '') ||
      one.children.some((child) => /^(ul|ol)$/.test(child.element.tag ?? '')));
  return (
    isList(next) ||
    children.some(({ words }) =>
      / (caret|chevron down|angle down|arrow down|expand more|dropdown) /.test(words),
    )
  );
}

const BESIDES_NAMES: readonly Evidence['kind'][] = ['menu', 'brand', 'home', 'row', 'form', 'sequence'];

/** The evidence of a pair as numbers from 0 to 1, in the order of `TRAITS`. */
export function traitsOf(
  element: Pressed,
  to: string,
  evidence: readonly Evidence[],
  context: TraitContext,
): number[] {
  const { sight, words, screen } = element;
  const { names, menus, entries } = context;
  const { best, second, heading, isName, isHeading } = nameLikeness(element, to, context);
  const strength = (kind: Evidence['kind']): number =>
    Math.max(0, ...evidence.flatMap((one) => (one.kind === kind ? [one.strength] : [])));
  const own = names.get(to)!;
  const allWords = new Set([...own.title, ...own.file, ...own.headings.flat()]);
  const menu = menus.get(element);
  const share = menu?.shares.get(labelKey(element)) ?? 0;
  const quality = element.menu ? qualityOf(element.menu, context) : 0;
  const others = (element.menu && entries.get(element.menu)) || [];
  const isMarked = !!menu?.marked.get(labelKey(element))?.has(screen);
  const isButton =
    sight.element.tag === 'button' || /^(submit|button)$/.test(sight.element.attributes?.type ?? '');
  const isByName = best > 0 && !isName && !BESIDES_NAMES.some((kind) => strength(kind) > 0.5);
  const isRival =
    isByName &&
    others.some((other) => {
      if (labelKey(other) === labelKey(element)) return false;
      const theirs = nameLikeness(other, to, context);
      return theirs.isName || theirs.best > best + 0.01;
    });
  const isTorn =
    isByName && (context.best.get(element)?.count ?? 0) > 1 && best >= context.best.get(element)!.likeness;
  // What a menu and its like say is about what its entries are called, and not about brands, rows and what is sent.
  const isCalledOrMarked = isByName || isName || strength('menu') > 0;
  const flag = Number;
  const among = (value: number): number => (isCalledOrMarked ? value : 0);
  return [
    1,
    best,
    second,
    flag(isName),
    flag(isHeading),
    words.length ? words.filter((word) => allWords.has(word)).length / words.length : 0,
    flag(words.length === 1),
    flag(words.length > 3),
    flag(isByName && words.some((word) => /^\d+$/.test(word) && !allWords.has(word))),
    strength('menu'),
    among(menu ? share : 0),
    among(menu ? quality * share : 0),
    among(flag(!!element.menu && !menu)),
    flag(to === screen),
    flag(to === screen && isMarked),
    flag(TOGGLE.test(sight.words)),
    flag(sight.element.tag === 'a' || !sight.isAuthored),
    flag(isButton),
    strength('brand'),
    strength('home'),
    strength('row'),
    strength('sequence'),
    strength('form'),
    among((context.labels.get(labelKey(element)) ?? 0) / context.screens),
    flag(!words.length),
    flag(opensList(sight)),
    flag(isRival),
    flag(PAGER.test(sight.words) || hasParent(sight, ({ words: said }) => PAGER.test(said))),
    flag(isTorn),
    flag(!!sight.element.hidden || hasParent(sight, (parent) => !!parent.element.hidden)),
    among(best * quality * share),
    isButton ? best : 0,
    among(element.menu ? 0 : best),
    heading,
    flag(best > 0.999),
    flag(best > 0.999 && !element.menu),
  ];
}
