import { findLists } from '../components/find.ts';
import type { Screen } from '../model/design.ts';
import { wordOfClasses, wordOfLayer } from '../roles/called.ts';
import type { Guesses } from '../roles/guess.ts';
import { inferRoles } from '../roles/infer.ts';
import { hasParent, isAmong, type ScreenSight, type Sight, sightOf } from '../roles/sight.ts';
import { type FoundField, fieldsOf, type ProposedField } from './fields.ts';
import { headOf } from './heads.ts';
import { collectionIn, collectionOf } from './names.ts';

/** A list or table of a screen that shows records. */
export interface FoundList {
  readonly screen: Screen;
  readonly within: Sight;
  readonly rows: readonly Sight[];
  readonly fields: readonly FoundField[];
  readonly name: string;
  /** Whether what it is called was said, and not made up from what it is built of. */
  readonly isNamed: boolean;
  /** What its first column calls its things, if it does. */
  readonly thing: string | null;
  readonly hasHead: boolean;
  readonly confidence: number;
  readonly reason: string;
}

/** What records are called that nothing calls anything. */
export const NO_NAME = 'records';
/** What has more fields than this, and no heads, is no record. */
const MOST_FIELDS = 12;
/** Places in which a list is no list of records. */
const NO_PLACE: ReadonlySet<string> = new Set([
  'navigation',
  'contentinfo',
  'tablist',
  'radiogroup',
  'chart',
]);
const NO_PLACE_WORDS =
  / (breadcrumbs?|pagination|pager|paginate|menu|navbar|nav|sidebar|toolbar|dropdown|tabs?|tabbar|legend|steps|stepper|wizard|carousel|slider|social|socials|footer|chips?|filters?|toast|calendar|keypad|sharing) /;

/** Containers around a list whose names say what it is for, at most so many further out. */
const MOST_AROUND = 3;
const AROUND_WORDS =
  / (breadcrumbs?|pagination|pager|menu|navbar|nav|sidebar|toolbar|dropdown|legend|social|socials|footer|toast|calendar) /;

const isInNoPlace = (inner: Sight, guesses: Guesses): boolean =>
  isAmong(inner, AROUND_WORDS, MOST_AROUND) ||
  hasParent(inner, (parent) => NO_PLACE.has(guesses.get(parent.element.key)?.role ?? ''));

/** The lists and tables of a screen whose rows are records. */
export function listsOf(screen: Screen): FoundList[] {
  const sight = sightOf(screen);
  const guesses = inferRoles(screen);
  const isNoPlace = (one: Sight): boolean =>
    NO_PLACE.has(guesses.get(one.element.key)?.role ?? '') || NO_PLACE_WORDS.test(one.words);
  return findLists(screen).flatMap((list): FoundList[] => {
    const rows = withoutLists(
      list.places.map((key) => sight.byKey.get(key)!).filter(({ element }) => !element.hidden),
    );
    const inner = sight.byKey.get(list.within!)!;
    if (rows.length < 2 || isNoPlace(inner) || isInNoPlace(inner, guesses)) return [];
    if (rows.some((row) => holdsField(row, guesses))) return [];
    const table = tableAround(inner, guesses);
    const head = headOf(rows, inner, table, guesses);
    const body = rows.filter((row) => row !== head?.row);
    const found = fieldsOf(body, head, guesses);
    const [named, isNamed] = nameOf(body, table ?? inner, found, sight, guesses, list.name);
    const texts = found.filter(({ type }) => type !== 'picture' && type !== 'yes-no').length;
    if (!body.length || !texts || (found.length < 2 && !head) || (!head && found.length > MOST_FIELDS))
      return [];
    if (!head && isMenu(body, found, guesses)) return [];
    const filled = shareFilled(found, body.length);
    const confidence = head
      ? 0.82 + Math.min(0.1, body.length * 0.02) + (isNamed ? 0.03 : 0)
      : 0.35 +
        Math.min(0.2, body.length * 0.04) +
        Math.min(0.15, found.length * 0.04) +
        0.15 * filled +
        (isNamed ? 0.05 : 0);
    return [
      {
        screen,
        within: table ?? inner,
        rows: body,
        fields: found,
        name: named,
        isNamed,
        thing: thingOf(found),
        hasHead: head !== null,
        confidence: Math.round(Math.min(0.95, confidence) * 100) / 100,
        reason: `${body.length} rows of one kind with ${found.length} ${found.length === 1 ? 'field' : 'fields'}${head ? ', named by the heads of their columns' : ''}`,
      },
    ];
  });
}

const IS_LIST: ReadonlySet<string> = new Set(['ul', 'ol', 'dl', 'table', 'nav', 'form']);

/** Rows without those that are lists by themselves, where others are none: the steps over what was chosen in them. */
function withoutLists(rows: readonly Sight[]): readonly Sight[] {
  const others = rows.filter(({ element }) => !IS_LIST.has(element.tag ?? ''));
  return others.length ? others : rows;
}

const holdsField = (sight: Sight, guesses: Guesses): boolean => {
  const role = guesses.get(sight.element.key)?.role;
  return (
    ((role === 'textbox' || role === 'combobox') && sight.element.tag !== undefined) ||
    sight.children.some((child) => holdsField(child, guesses))
  );
};

/** Rows that only lead somewhere: one text each, with a picture at most. */
function isMenu(rows: readonly Sight[], fields: readonly ProposedField[], guesses: Guesses): boolean {
  const texts = fields.filter(({ type }) => type !== 'picture').length;
  const areLinks = rows.every((row) => {
    const role = guesses.get(row.element.key)?.role;
    return (
      role === 'link' ||
      (row.children.length === 1 && guesses.get(row.children[0].element.key)?.role === 'link')
    );
  });
  return texts < 2 && areLinks;
}

const shareFilled = (fields: readonly FoundField[], rows: number): number =>
  fields.reduce((sum, { column }) => sum + column.cells.filter((cell) => cell !== null).length, 0) /
  Math.max(1, fields.length * rows);

function tableAround(inner: Sight, guesses: Guesses): Sight | null {
  for (let at: Sight | null = inner, depth = 0; at && depth < 3; at = at.parent, depth++)
    if (guesses.get(at.element.key)?.role === 'table') return at;
  return null;
}

/** Whether the head of a column calls what the rows are, and not something of them. */
const callsThings = (label: string): boolean =>
  /^\p{L}+( \p{L}+)?$/u.test(label) &&
  !/\b(name|title|id|no|number|date|time|description|order|rank|first|last|city|country|office|position|street|address|email|function|type|reason|detail|qty|platform|engine)\b/i.test(
    label,
  );

/** How far above its rows what calls a list stands, in px. */
const NEAR = 160;

/** What the records are called, and whether somebody said so. */
function nameOf(
  rows: readonly Sight[],
  holder: Sight,
  fields: readonly FoundField[],
  screen: ScreenSight,
  guesses: Guesses,
  listName: string,
): readonly [name: string, isNamed: boolean] {
  const caption = holder.children.find(({ element }) => element.tag === 'caption')?.text;
  const heading = caption || tabOver(holder, screen) || headingOver(holder, screen, guesses);
  const said = heading ? collectionIn(heading) : null;
  const counted = said ?? countedAs(rows.length, screen);
  if (counted) return [counted, true];
  // What its author called the rows, the list or what is around it.
  for (const one of [rows[0], holder]) {
    const word = one.isAuthored ? wordOfClasses(one.element.classes ?? '') : wordOfLayer(one.element);
    const found = collectionOf(word);
    if (found) return [found, !one.isAuthored];
  }
  const thing = thingOf(fields);
  if (thing) return [thing, true];
  return [collectionOf(listName) ?? NO_NAME, false];
}

/** What a text of the screen calls them that says how many they are: `4 kinds of seeds`, `1 to 8 of 214 tools`. */
function countedAs(rows: number, { all }: ScreenSight): string | null {
  for (const { text, children } of all) {
    if (!text || text.length > 60 || children.some((child) => child.text === text)) continue;
    // `5 visits, 2 waiting`: the whole comes first.
    const [whole] = text.split(/\s*[,;·•|]\s+/);
    const [, shown, of, what] = COUNTED.exec(text) ?? COUNTED.exec(whole) ?? [];
    const isOfRows =
      Number(shown) === rows &&
      !OF_TIME.test(what) &&
      (of === undefined || Number(of.replace(/[.,]/g, '')) >= rows);
    const called = isOfRows ? collectionIn(what.replace(/^(?:kinds|types|sorts) of /i, '')) : null;
    if (called) return called;
  }
  return null;
}

/** What is counted of time, and is no thing. */
const OF_TIME = /\b(seconds?|minutes?|mins?|hours?|hrs?|days?|weeks?|months?|years?|ago|times?)\b/i;
const COUNTED =
  /^(?:showing |all |total:? )?(?:1 ?(?:to|-|–|—) ?)?(\d+)(?: (?:of|from) (\d[\d.,]*))? (\p{L}[\p{L} ]{3,40}?)(?: (?:found|in all|in total|total|available|left))?[.:]?$/iu;

/** What a first column calls its things: `Product`, `Tool name`, `Username`. */
function thingOf(fields: readonly FoundField[]): string | null {
  for (const { label, type } of fields.slice(0, 3)) {
    const thing = type !== 'text' ? null : callsThings(label) ? (namedIn(label) ?? label) : namedIn(label);
    if (thing) return collectionOf(thing);
  }
  return null;
}

/** What has the name that a column is of: tools of `Tool name`; parts of a name are of nothing. */
function namedIn(label: string): string | null {
  const [, thing] = /^(\p{L}{3,}?)[ _-]?name$/iu.exec(label.trim()) ?? [];
  return thing && !/^(first|last|middle|full|given|family|sur|nick|display|real|your)$/i.test(thing)
    ? thing
    : null;
}

/** What the tab says that shows the panel in which a list stands. */
function tabOver(holder: Sight, { all }: ScreenSight): string | null {
  let id: string | undefined;
  for (let at: Sight | null = holder; at && id === undefined; at = at.parent) id = at.element.source.id;
  const tab =
    id === undefined
      ? undefined
      : all.find(
          ({ element: { attributes = {}, controls } }) =>
            (attributes.role === 'tab' ||
              /tab|pill/.test(attributes['data-toggle'] ?? attributes['data-bs-toggle'] ?? '')) &&
            controls?.ids.includes(id),
        );
  return tab?.text || null;
}

/** The heading that stands over a list, nearest first. */
function headingOver(holder: Sight, screen: ScreenSight, guesses: Guesses): string | null {
  const { box } = holder.element;
  let best: { readonly text: string; readonly far: number } | null = null;
  for (const sight of screen.all) {
    // Authors call paragraphs titles, too; signs before the words link to them.
    const isHeading =
      guesses.get(sight.element.key)?.role === 'heading' || / (title|heading) /.test(sight.words);
    const text = sight.text.replace(/^[^\p{L}\d]+/u, '');
    if (!isHeading || !/\p{L}/u.test(text) || text.length > 60) continue;
    const own = sight.element.box;
    const far = box.y - (own.y + own.height);
    const isOver = far >= -4 && far < NEAR && own.x < box.x + box.width && own.x + own.width > box.x - 40;
    if (isOver && !hasParent(sight, (parent) => parent === holder) && (!best || far < best.far))
      best = { text, far };
  }
  return best?.text ?? null;
}
