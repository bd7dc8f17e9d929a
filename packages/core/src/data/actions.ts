import type { Screen } from '../model/design.ts';
import { labelOf, pressablesOf } from '../links/pressable.ts';
import type { Guesses } from '../roles/guess.ts';
import { inferRoles } from '../roles/infer.ts';
import { hasParent, isAmong, type Sight, sightOf } from '../roles/sight.ts';
import { choicesOf } from './choices.ts';
import type { FormPurpose } from './form_purpose.ts';
import { findForms, type FormProposal } from './forms.ts';
import type { Mark } from './marks.ts';

/** What a control does beyond leading to another screen. */
export const DEEDS = [
  'sort',
  'previous',
  'next',
  'page',
  'load-more',
  'search',
  'filter',
  'open',
  'close',
  'expand',
  'tab',
  'choose',
  'add',
  'change',
  'remove',
  'submit',
  'sign-in',
  'sign-out',
  'select',
  'select-all',
  'toggle',
  'increase',
  'decrease',
  'rate',
  'like',
  'copy',
  'share',
  'download',
  'upload',
  'print',
  'refresh',
  'reply',
  'show-password',
] as const;
export type Deed = (typeof DEEDS)[number];

/** What an element most likely does, as a proposal. */
export interface ActionProposal {
  readonly screen: string;
  /** Key of the element. */
  readonly element: string;
  readonly label: string;
  readonly does: Deed;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
  /** Of what changes a record: what it says of it. */
  readonly mark?: Mark;
}

interface Seen {
  readonly sight: Sight;
  readonly label: string;
  /** The label in small letters, else what its icon, its classes and its attributes say. */
  readonly says: string;
  readonly role: string;
  /** Whether it leads to another page by itself. */
  readonly leads: boolean;
}

interface Around {
  readonly guesses: Guesses;
  readonly forms: readonly FormProposal[];
  readonly choices: ReturnType<typeof choicesOf>;
}

type Guess = readonly [does: Deed, confidence: number, reason: string];
type Rule = (seen: Seen, around: Around) => Guess | null;

/**
 * What controls of a screen do, in reading order; each once, as what speaks most for.
 * @param forms those of the screen
 */
export function findActions(
  screen: Screen,
  forms: readonly FormProposal[] = findForms(screen),
): ActionProposal[] {
  const sight = sightOf(screen);
  const guesses = inferRoles(screen);
  const around: Around = { guesses, forms, choices: choicesOf(screen) };
  const seen = new Map<string, Seen>();
  const see = (one: Sight): void => {
    const { element } = one;
    if (element.hidden || seen.has(element.key)) return;
    const label = labelOf(element);
    seen.set(element.key, {
      sight: one,
      label,
      says: saidOf(one, label),
      role: guesses.get(element.key)?.role ?? '',
      leads: leadsAway(one),
    });
  };
  for (const { element } of pressablesOf(screen)) see(sight.byKey.get(element.key)!);
  for (const one of sight.all) {
    const role = guesses.get(one.element.key)?.role ?? '';
    if (['columnheader', 'checkbox', 'switch', 'tab', 'textbox', 'combobox'].includes(role)) see(one);
    else if (isControl(one)) see(one);
  }
  return [...seen.values()].flatMap((one): ActionProposal[] => {
    const guess = RULES.map((rule) => rule(one, around))
      .filter((found) => found !== null)
      .reduce<Guess | null>((best, next) => (!best || next[1] > best[1] ? next : best), null);
    if (!guess) return [];
    const [does, confidence, reason] = guess;
    return [
      { screen: screen.key, element: one.sight.element.key, label: one.label, does, confidence, reason },
    ];
  });
}

/** Rows beneath a head that have a box to tick, at least. */
const LEAST_TICKED = 2;

/** Whether a box stands in what is called the head of a list, the other rows of which have a box each. */
function isInHead(sight: Sight): boolean {
  const boxesIn = (one: Sight): number =>
    one.element.attributes?.type === 'checkbox'
      ? 1
      : one.children.reduce((sum, child) => sum + boxesIn(child), 0);
  return hasParent(sight, (row) => {
    const rows = row.parent?.children.filter((other) => other !== row && boxesIn(other) === 1) ?? [];
    return rows.length >= LEAST_TICKED && boxesIn(row) === 1 && / (head|header|heading) /.test(row.words);
  });
}

/** Whether markup says that something is opened, switched or moved with an element. */
const isControl = ({ element: { attributes = {}, tag } }: Sight): boolean =>
  tag === 'summary' ||
  attributes['aria-expanded'] !== undefined ||
  attributes['aria-controls'] !== undefined ||
  attributes['aria-haspopup'] !== undefined ||
  attributes['aria-sort'] !== undefined ||
  Object.keys(attributes).some((name) => /^data-.*(toggle|dismiss|slide)/.test(name));

/** An address that is another page, and not a place of this one. */
function leadsAway({ element: { attributes = {}, tag } }: Sight): boolean {
  const { href } = attributes;
  return tag === 'a' && href !== undefined && !/^(#|javascript:|$)/i.test(href.trim());
}

function saidOf(sight: Sight, label: string): string {
  const { attributes = {} } = sight.element;
  const icons: string[] = [];
  const visit = (inner: Sight): void => {
    if (inner.text === '') icons.push(inner.words);
    inner.children.forEach(visit);
  };
  visit(sight);
  const told = [label, attributes['aria-label'], attributes.title];
  const isTold = sight.text !== '' || attributes['aria-label'] !== undefined;
  return [...new Set(told), isTold ? '' : icons.join(' ')].filter(Boolean).join(' ').toLowerCase();
}

/** Names and values of the attributes that say what is switched with an element. */
const switched = ({ element: { attributes = {} } }: Sight): string =>
  Object.entries(attributes)
    .flatMap(([name, value]) =>
      /^data-.*(toggle|dismiss|slide|target)/.test(name) ? [`${name}=${value}`] : [],
    )
    .join(' ')
    .toLowerCase();

const says =
  (does: Deed, pattern: RegExp, confidence: number, reason: string): Rule =>
  ({ says: said, role, leads }) =>
    pattern.test(said) && said.length <= 60 && PRESSED.has(role) && !(leads && !isVerb(does))
      ? [does, leads ? confidence - 0.25 : confidence, reason]
      : null;

const PRESSED: ReadonlySet<string> = new Set([
  'button',
  'link',
  'tab',
  'menuitem',
  'listitem',
  'icon',
  'image',
  '',
]);
/** What is done, too, where it has a page of its own. */
const isVerb = (does: Deed): boolean => ['sign-out', 'download', 'add', 'change', 'remove'].includes(does);

/** Containers of which one part is seen at a time. */
export const SLIDES = / (carousel|slider|slideshow|gallery|swiper) /;
/** Containers of pages of a list. */
const PAGERS = / (pagination|pager|paginate|paging|pages|page numbers) /;
const PREVIOUS =
  /^(‹|«|←|<|<<|prev(ious)?( page)?|earlier|newer( posts?)?|back|‹ prev(ious)?|← (earlier|newer|previous)|« previous)$/;
const NEXT = /^(›|»|→|>|>>|next( page)?|later|older( posts?)?|next ›|(later|older|next) →|next »)$/;

const RULES: readonly Rule[] = [
  // What markup says.
  ({ sight }) =>
    sight.element.attributes?.['aria-sort'] !== undefined ? ['sort', 0.95, 'it says how it is sorted'] : null,
  ({ sight, role }) =>
    role === 'columnheader' && / (sort|sorting|sortable|sorted)( asc| desc)? /.test(sight.words)
      ? ['sort', 0.93, 'the head of a column is called sortable']
      : null,
  ({ sight }) => {
    const { attributes = {}, tag } = sight.element;
    const how = switched(sight);
    if (tag === 'summary') return ['expand', 0.95, 'it is the summary of what it opens'];
    if (/(toggle|dismiss)=tab\b|toggle=pill|toggle=list/.test(how))
      return ['tab', 0.93, 'its markup switches a panel'];
    if (/dismiss=/.test(how)) return ['close', 0.95, 'its markup closes what it stands in'];
    if (/slide(-to)?=prev/.test(how)) return ['previous', 0.93, 'its markup goes one back'];
    if (/slide(-to)?=next/.test(how)) return ['next', 0.93, 'its markup goes one on'];
    if (/slide-to=\d/.test(how)) return ['page', 0.85, 'its markup shows one of several'];
    if (/toggle=(modal|dropdown|offcanvas|popover|drawer|sheet|dialog)/.test(how))
      return ['open', 0.93, 'its markup opens something'];
    if (/toggle=(collapse|accordion)/.test(how))
      return isAmong(sight, / (navbar|header|topbar) /, 4) && /toggler|hamburger|menu/.test(sight.words)
        ? ['open', 0.85, 'it opens the menu of a bar']
        : ['expand', 0.9, 'its markup opens a part'];
    if (attributes['aria-haspopup'] && attributes['aria-haspopup'] !== 'false')
      return ['open', 0.9, 'it says that it opens something'];
    if (attributes['aria-expanded'] !== undefined)
      return / (dropdown|menu|toggle|toggler) /.test(sight.words)
        ? ['open', 0.85, 'it says whether what it opens is open']
        : ['expand', 0.85, 'it says whether what it opens is open'];
    return null;
  },
  ({ role }) => (role === 'tab' ? ['tab', 0.88, 'it is one of several tabs'] : null),
  ({ role, sight }) =>
    role === 'switch' && sight.element.tag !== undefined ? ['toggle', 0.85, 'it is a switch'] : null,
  ({ role, sight }) =>
    role === 'textbox' && isSearch(sight) ? ['search', 0.9, 'one types there what one looks for'] : null,
  // Boxes before rows.
  (seen, around) => {
    if (seen.role !== 'checkbox') return null;
    const { guesses } = around;
    const isIn = (role: string): boolean =>
      hasParent(seen.sight, (parent) => guesses.get(parent.element.key)?.role === role);
    if (/select all|all rows|check all/.test(seen.says))
      return ['select-all', 0.92, 'it says that it selects all'];
    if (isIn('columnheader')) return ['select-all', 0.9, 'it stands in the head of a table'];
    if (isInHead(seen.sight))
      return ['select-all', 0.85, 'it stands in the head of a list whose rows have such boxes'];
    return (isIn('row') || isIn('listitem')) && !seen.sight.text
      ? ['select', 0.75, 'it stands in a row']
      : null;
  },
  // Pages of a list.
  ({ sight, says: said }) => {
    const text = (sight.text || said).trim().toLowerCase();
    const beside = siblings(sight);
    const isPager = isAmong(sight, PAGERS);
    const isInPager = isPager || beside.filter((one) => /^\d{1,4}$/.test(one)).length >= 2;
    const isBeside = beside.some((one) => NEXT.test(one) || PREVIOUS.test(one));
    if (/^\d{1,4}$/.test(text) && isInPager)
      return ['page', isPager ? 0.92 : 0.8, 'it is one of the numbers of pages'];
    if (PREVIOUS.test(text) && (isInPager || isBeside))
      return ['previous', 0.92, `“${text}” stands beside its counterpart`];
    if (NEXT.test(text) && (isInPager || isBeside))
      return ['next', 0.92, `“${text}” stands beside its counterpart`];
    return null;
  },
  ({ says: said, sight }) =>
    isAmong(sight, SLIDES) || / (carousel|slick|swiper|slide) /.test(sight.words)
      ? /prev|left/.test(`${said} ${sight.words}`)
        ? ['previous', 0.88, 'it goes back among slides']
        : /next|right/.test(`${said} ${sight.words}`)
          ? ['next', 0.88, 'it goes on among slides']
          : null
      : null,
  says('load-more', /\b(load|show|see) more\b|\bmore results\b/, 0.85, 'it says that there is more'),
  // A head of a drawn table with an arrow, and what says that it sorts.
  ({ says: said, role }) =>
    /\bsort(ed)?( by)?\b|[↑↓▲▼⇅]$/.test(said) &&
    (PRESSED.has(role) || role === 'columnheader' || role === 'combobox')
      ? ['sort', 0.85, 'it says that it sorts']
      : null,
  ({ sight, role, says: said, leads }, { guesses }) => {
    if (role === 'combobox' && /\bsort\b/.test(said)) return ['sort', 0.8, 'it chooses an order'];
    const isChip =
      / (chip|filter|facet|pill) /.test(sight.words) ||
      isAmong(sight, / (chips|filters|filter bar|facets) /, 2);
    if (/\b(filters?|refine)\b/.test(said) && PRESSED.has(role))
      return ['filter', 0.82, 'it says that it filters'];
    if (isChip && ['button', 'link', 'tab', 'listitem'].includes(role) && !leads)
      return ['filter', 0.78, 'it is one of a row of chips'];
    return role === 'combobox' && isBesideTable(sight, guesses)
      ? ['filter', 0.55, 'a choice stands over a list']
      : null;
  },
  ({ sight, leads }, { choices, guesses }) => {
    const choice = choices.get(sight.element.key);
    // The marked entry of a bar says where one is.
    const isEntry = hasParent(sight, (parent) => guesses.get(parent.element.key)?.role === 'navigation');
    return choice && !leads && !isEntry
      ? [
          'choose',
          0.7,
          `it is one of ${choice.all.size} beside each other, of which “${choice.chosen}” is marked`,
        ]
      : null;
  },
  // What forms send.
  ({ sight }, { forms }) => {
    const form = forms.find(({ submit }) => submit?.element === sight.element.key);
    if (!form) return null;
    return [SENT_AS[form.purpose], Math.min(0.95, form.confidence + 0.02), `it sends a form: ${form.reason}`];
  },
  // What words say.
  says('sign-out', /\b(sign|log) ?(out|off)\b|\blogout\b/, 0.95, 'it says that one leaves'),
  says('sign-in', /^(sign|log) ?in$|^login$/, 0.7, 'it says that one signs in'),
  says('show-password', /\bshow password\b|\breveal\b/, 0.9, 'it shows what is typed'),
  says('select-all', /\bselect all\b|\bcheck all\b|\bmark all\b/, 0.9, 'it says that it selects all'),
  says('copy', /\bcopy\b|\bduplicate\b/, 0.85, 'it says that it copies'),
  says('download', /\bdownload\b|\bexport\b/, 0.82, 'it says that something is saved'),
  says(
    'upload',
    /\bupload\b|^browse( files?)?(…|\.\.\.)?$|\bchoose file\b|\bimport\b/,
    0.78,
    'it asks for a file',
  ),
  says('print', /\bprint\b/, 0.85, 'it says that it prints'),
  says('share', /^share\b|\bshare (this|now|on)\b/, 0.8, 'it says that it shares'),
  says('refresh', /\b(refresh|reload|sync)\b/, 0.82, 'it says that it loads anew'),
  says(
    'like',
    /^(like|unlike|favou?rite|heart|save for later|wishlist|bookmark)\b/,
    0.75,
    'it says that one likes it',
  ),
  says('reply', /^reply\b/, 0.78, 'it says that one answers'),
  says('remove', /\b(delete|remove|trash|bin)\b|^discard\b/, 0.88, 'it says that something goes'),
  says(
    'change',
    /^(edit|change|rename|update|modify)\b|\b(edit|pencil)\b/,
    0.82,
    'it says that something is changed',
  ),
  says(
    'add',
    /^\+|^(add|new|create|compose|invite)\b|\badd (new|to)\b/,
    0.8,
    'it says that something is added',
  ),
  says('close', /^(×|✕|✖|x|close|dismiss)\b|\bclose\b|^cancel$/, 0.82, 'it says that it closes'),
  says('close', /^(×|✕|✖|close|dismiss)$/, 0.92, 'it says that it closes'),
  says(
    'open',
    /^(☰|≡|⋮|⋯|…|menu|more|options|toggle navigation|open)$|\b(hamburger|open menu|notifications?|toggle (menu|sidebar|nav\w*))\b/,
    0.75,
    'it says that it opens something',
  ),
  says(
    'expand',
    /^(expand|collapse|minimize|maximize|show details|read more|details)\b/,
    0.6,
    'it says that it opens a part',
  ),
  says('increase', /^(\+|plus|increase)$|\bincrease\b/, 0.8, 'it counts up'),
  says('decrease', /^(-|−|–|minus|decrease)$|\bdecrease\b/, 0.8, 'it counts down'),
  ({ sight, says: said }) =>
    (/ (rating|stars?) /.test(sight.words) && isAmong(sight, / (rating|stars) /, 2)) ||
    (STAR.test(sight.text.trim()) && siblings(sight).filter((one) => STAR.test(one)).length > 1) ||
    (/^(rate )?(\d|one|two|three|four|five) stars?$/.test(said) && siblings(sight).length > 1)
      ? ['rate', 0.9, 'it is one of several stars']
      : null,
  // A stepper has its number between the signs, whatever these are called.
  ({ label, says: said, sight }) => {
    const by = [sight.text, label, said].map(steppedBy).find((one) => one !== null);
    return by && siblings(sight).some((one) => /^\d+$/.test(one))
      ? [by, 0.88, 'a number stands beside it']
      : null;
  },
];

const STAR = /^[★☆⭐]$/u;

/** Whether something counts up or down where a number stands beside it. */
function steppedBy(text: string): 'increase' | 'decrease' | null {
  const plain = text.trim().toLowerCase();
  if (/^(\+|more|one more|plus|increase|add one)$/.test(plain)) return 'increase';
  return /^(-|−|–|less|fewer|one (less|fewer)|minus|decrease|remove one)$/.test(plain) ? 'decrease' : null;
}

const SENT_AS: Readonly<Record<FormPurpose, Deed>> = {
  'sign-in': 'sign-in',
  'sign-up': 'submit',
  'reset-password': 'submit',
  search: 'search',
  filter: 'filter',
  subscribe: 'submit',
  send: 'submit',
  pay: 'submit',
  change: 'submit',
  add: 'submit',
};

const isSearch = ({ element: { attributes = {} }, text, words }: Sight): boolean =>
  attributes.type === 'search' ||
  /\b(search|find)\b/i.test(`${attributes.placeholder ?? ''} ${attributes['aria-label'] ?? ''} ${text}`) ||
  / search /.test(words);

/** What stands beside an element, each in small letters: its siblings, or those of what it stands in alone; fields say what is in them. */
function siblings(sight: Sight): string[] {
  let at = sight;
  while (at.parent && at.parent.children.length === 1) at = at.parent;
  return (at.parent?.children ?? [])
    .filter((one) => one !== at)
    .map(({ text, element: { tag, attributes } }) =>
      (tag === 'input' ? (attributes?.value ?? '') : text).trim().toLowerCase(),
    );
}

function isBesideTable(sight: Sight, guesses: Guesses): boolean {
  for (let at = sight.parent, i = 0; at && i < 3; at = at.parent, i++)
    if (at.children.some(({ element }) => guesses.get(element.key)?.role === 'table')) return true;
  return false;
}
