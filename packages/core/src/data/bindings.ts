import { grouped } from '../json/grouped.ts';
import type { Screen } from '../model/design.ts';
import { textOf } from '../model/project.ts';
import { inferRoles } from '../roles/infer.ts';
import { hasParent, type Sight, sightOf } from '../roles/sight.ts';
import { recordName } from '../model/names.ts';
import type { CollectionProposal } from './collections.ts';
import { NO_NAME } from './drawn_lists.ts';
import { fieldIn } from './names.ts';
import { type Figure, figureFor, lastWord, printFigure } from './figures.ts';

/** What an element shows of the data, as a proposal. */
export interface BindingProposal {
  readonly screen: string;
  /** Key of the element. */
  readonly element: string;
  /** As an expression: `count(tools)`, `tool.name`. */
  readonly shows: string;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
  /** Of a number that is worked out from what records say. */
  readonly figure?: Figure;
  /** Of a chart: the word for what it is parted by. */
  readonly by?: string;
}

/** Which of how many are shown: `1 to 20 of 214`, `5 of 186`; not which page. */
const RANGE =
  /^(?!.*\b(?:page|step|day|slide|chapter)\b).*\b\d[\d,.]*(?:\s*(?:to|-|–|—)\s*\d[\d,.]*)?\s*(?:of|from)\s*(\d[\d,.]*)\b/i;
const COUNT =
  /^\(?(\d(?:[\d,.]*\d)?)\+?\)?(?:\s+([\p{L} ]{3,30}?))?(?:\s+(?:found|in all|total|available|left|results?))?[.:]?$/u;
const ABOUT_COUNT =
  /^(?:total|number of|all|search|showing|found|see all|view all)?\s*(\d(?:[\d,.]*\d)?)\s+([\p{L}]{3,20})/iu;
/** Fewer fields of a record than this on a screen are chance. */
const LEAST_FIELDS = 2;

/** What single elements show of these collections: how many there are, which of them are seen, and fields of one record. */
export function findBindings(
  screens: readonly Screen[],
  collections: readonly CollectionProposal[],
): BindingProposal[] {
  const rows = new Set(collections.flatMap(({ places }) => places.flatMap((place) => place.rows)));
  const byWord = grouped(
    collections.flatMap((one) => wordsFor(one.name).map((word) => ({ word, one }))),
    ({ word }) => word,
  );
  const byKey = new Map(screens.map((screen) => [screen.key, screen]));
  return screens.flatMap((screen) => {
    const here = collections.filter(({ places }) => places.some((place) => place.screen === screen.key));
    return [
      ...countsOn(screen, { all: collections, here, byWord }, rows),
      ...recordOn(screen, byKey, collections, rows),
      ...chartsOn(screen, { all: collections, here, byWord }),
    ];
  });
}

/** The collections that a text of a screen can be about. */
interface About {
  readonly all: readonly CollectionProposal[];
  readonly here: readonly CollectionProposal[];
  readonly byWord: ReadonlyMap<
    string,
    readonly { readonly word: string; readonly one: CollectionProposal }[]
  >;
}

/** The first collection that a text calls: of several that end in the word the one that the screen shows, or that is no more than it. */
function calledIn(text: string, { byWord, here }: About): CollectionProposal | undefined {
  const rank = ({ one, word }: { readonly one: CollectionProposal; readonly word: string }): number =>
    (here.includes(one) ? 2 : 0) + (one.name === word || recordName(one.name) === word ? 1 : 0);
  for (const word of text.toLowerCase().split(/[^a-z]+/)) {
    const called = byWord.get(word);
    if (called) return [...called].sort((a, b) => rank(b) - rank(a))[0].one;
  }
  return undefined;
}

const isInRow = (sight: Sight, rows: ReadonlySet<string>): boolean =>
  rows.has(sight.element.key) || hasParent(sight, (parent) => rows.has(parent.element.key));

/** Texts that say how many records there are. */
function countsOn(screen: Screen, about: About, rows: ReadonlySet<string>): BindingProposal[] {
  const { all, here } = about;
  return sightOf(screen).all.flatMap((sight): BindingProposal[] => {
    const { text, element } = sight;
    if (!text || text.length > 60 || element.hidden || isInRow(sight, rows)) return [];
    const isWhole = sight.hasOwnText || sight.children.length === 0;
    if (!isWhole || sight.children.some((child) => child.text === text)) return [];
    const found = (shows: string, confidence: number, reason: string): BindingProposal[] => [
      { screen: screen.key, element: element.key, shows, confidence, reason },
    ];
    if (RANGE.test(text)) {
      const of = calledIn(text, about) ?? here[0] ?? all[0];
      return of
        ? found(`range(${of.name})`, here.length === 1 ? 0.92 : 0.7, 'it says which of how many are shown')
        : [];
    }
    const [, , word = ''] = COUNT.exec(text) ?? ABOUT_COUNT.exec(text) ?? [];
    const named = calledIn(word, about);
    if (named) return found(`count(${named.name})`, 0.85, `it counts ${named.name}`);
    // A number by itself is called by what stands beside it.
    const [beside] = /\d/.test(text) ? labelsOf(sight) : [];
    const figure = beside === undefined ? null : figureFor(text, beside, all);
    if (figure) {
      const { figure: of, confidence, reason } = figure;
      return [
        {
          screen: screen.key,
          element: element.key,
          shows: printFigure(of, of.of),
          confidence,
          reason,
          figure: of,
        },
      ];
    }
    if (/^\d[\d,.]*$/.test(text) && plain(text) !== plain(screen.name)) {
      const of = beside && calledIn(beside, about);
      if (of) return found(`count(${of.name})`, 0.6, `a number stands beside “${beside}”`);
    }
    return [];
  });
}

/** What stands before a value, around it, or beside it, and says what it is of; the nearest first. */
function labelsOf(sight: Sight): string[] {
  let at = sight;
  while (at.parent && at.parent.text === sight.text) at = at.parent;
  const { parent } = at;
  if (!parent) return [];
  // What can be pressed says what it does.
  const says = (some: readonly Sight[]): readonly Sight[] =>
    some.filter(({ element }) => element.tag !== 'a' && element.tag !== 'button');
  const place = parent.children.indexOf(at);
  const before = says(parent.children.slice(0, place)).toReversed();
  const after = says(parent.children.slice(place + 1));
  const around = parent.hasOwnText ? [parent.text.replace(sight.text, ' ')] : [];
  const [first, ...others] = before.map(({ text }) => text);
  return [...(first === undefined ? [] : [first]), ...around, ...others, ...after.map(({ text }) => text)]
    .map((text) => text.replace(/\s+/g, ' ').trim())
    .filter((text) => text.length > 2 && text.length < 30 && /\p{L}/u.test(text));
}

/** Whether what stands before a value is what a field is called. */
function isLabelled(sight: Sight, { name, label = '' }: CollectionProposal['fields'][number]): boolean {
  const [said] = labelsOf(sight);
  return said !== undefined && (fieldIn(said) === name || plain(said.replace(/:$/, '')) === plain(label));
}

const wordsFor = (name: string): string[] => {
  const last = lastWord(name);
  return name === NO_NAME || /\d$/.test(name) ? [] : [last, recordName(last)];
};

/** The screen of one record: what a row of a list says stands there by itself. */
function recordOn(
  screen: Screen,
  screens: ReadonlyMap<string, Screen>,
  collections: readonly CollectionProposal[],
  rows: ReadonlySet<string>,
): BindingProposal[] {
  const sight = sightOf(screen);
  const guesses = inferRoles(screen);
  const texts = sight.all.filter(
    (one) => one.text && one.text.length <= 120 && !one.element.hidden && !isInRow(one, rows) && isLeaf(one),
  );
  const byText = new Map<string, Sight[]>();
  for (const one of texts) byText.set(plain(one.text), [...(byText.get(plain(one.text)) ?? []), one]);
  const file = lastPart(screen.source.file);
  /** Whether what stands in a row of another screen leads to the file of this one. */
  const leadsHere = (row: string, from: string): boolean => {
    const at = sightOf(screens.get(from)!).byKey.get(row);
    return at !== undefined && linksIn(at).some((href) => lastPart(href.replace(/[?#].*$/, '')) === file);
  };
  let best: { readonly score: number; readonly found: BindingProposal[] } | null = null;
  for (const collection of collections) {
    const titles = collection.fields.filter(({ type }) => type === 'text').slice(0, 2);
    for (const place of collection.places) {
      if (place.screen === screen.key) continue;
      for (const [i, record] of place.records.entries()) {
        const said = Object.entries(record).filter(([, value]) => plain(value) !== '');
        const title = titles.find(({ name }) => {
          const at = byText.get(plain(record[name] ?? ''));
          return at?.some(({ element }) => guesses.get(element.key)?.role === 'heading');
        });
        if (!title) continue;
        const found = said.flatMap(([name, value]): BindingProposal[] => {
          const field = collection.fields.find((one) => one.name === name);
          const all = byText.get(plain(value)) ?? picturesOf(sight.all, value);
          const labelled = field && all.find((one) => isLabelled(one, field));
          // One letter, or one digit, stands in many places.
          const at = labelled ?? (plain(value).length > 1 ? all[0] : undefined);
          return at
            ? [
                {
                  screen: screen.key,
                  element: at.element.key,
                  shows: `${recordName(collection.name)}.${name}`,
                  confidence: name === title.name ? 0.85 : 0.75,
                  reason: `a row of ${collection.name} says the same`,
                },
              ]
            : [];
        });
        const least = leadsHere(place.rows[i], place.screen) ? 1 : LEAST_FIELDS;
        if (found.length >= least && (!best || found.length > best.score))
          best = { score: found.length, found };
      }
    }
  }
  return best?.found ?? [];
}

const lastPart = (path: string): string => path.replace(/^.*\//, '');

/** Where what stands in an element, or it, leads. */
const linksIn = ({ element, children }: Sight): string[] => [
  ...(element.tag === 'a' && element.attributes?.href ? [element.attributes.href] : []),
  ...children.flatMap(linksIn),
];

const isLeaf = (sight: Sight): boolean => !sight.children.some((child) => child.text === sight.text);
const plain = (text: string): string => text.replace(/\s+/g, ' ').trim().toLowerCase();
const picturesOf = (all: readonly Sight[], asset: string): Sight[] =>
  /^[0-9a-f]{64}$/.test(asset) ? all.filter(({ element }) => element.asset === asset) : [];

/** Charts whose title calls a collection; those of a list of their screen by all that stands around them. */
function chartsOn(screen: Screen, { all, here, byWord }: About): BindingProposal[] {
  const sight = sightOf(screen);
  return [...inferRoles(screen)].flatMap(([key, guess]): BindingProposal[] => {
    const at = sight.byKey.get(key);
    if (guess.role !== 'chart' || !at || at.element.hidden || !all.length) return [];
    const title = titleOf(at);
    const called = calledIn(title, { all, here, byWord });
    const around = textOf((at.parent ?? at).element).toLowerCase();
    const of = called ?? here.find(({ name }) => wordsFor(name).some((word) => around.includes(word)));
    if (!of) return [];
    const by = /\b(?:by|per|each|every)\s+(\p{L}+)/iu.exec(title)?.[1];
    return [
      {
        screen: screen.key,
        element: key,
        shows: `chart(${of.name})`,
        confidence: called ? 0.65 : 0.55,
        reason: called ? `it is a chart called “${title}”` : `it is a chart, and says ${of.name}`,
        ...(by ? { by: by.toLowerCase() } : {}),
      },
    ];
  });
}

/** What a chart is called: by itself, else by the heading over it. */
function titleOf({ element, parent, ...at }: Sight): string {
  const own = element.attributes?.['aria-label'] ?? element.attributes?.title;
  if (own) return own;
  const beside = parent?.children ?? [];
  const before = beside.slice(
    0,
    Math.max(
      0,
      beside.findIndex((one) => one.element === element),
    ),
  );
  const over = before.findLast(({ text }) => text !== '');
  const isTitle = over !== undefined && over.text.length < 60 && !/\d/.test(over.text);
  return isTitle ? over.text : at.text.length < 40 ? at.text : '';
}
