import { listsOf } from './drawn_lists.ts';
import type { DrawnState } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { textOf, walkElements } from '../model/project.ts';
import { placeOfState } from '../drawn_states/place.ts';

/** A drawing taken for what another screen shows while its list has nothing to show. */
export interface FoundState {
  readonly state: DrawnState;
  /** Key of the element that holds the rows of the list. */
  readonly list: string;
  /** What says so, in words. */
  readonly because: string;
}

/** What drawings of a state are called. */
const CALLED: Readonly<Record<DrawnState, RegExp>> = {
  empty: /\b(empty|blank slate|none|no (results?|items?|data|entries|matches|content)|nothing|zero)\b/i,
  failed: /\b(errors?|failed|failure|offline|unavailable|problem)\b/i,
  waiting: /\b(loading|waiting|skeleton|pending|busy)\b/i,
};
/** What they say. */
const SAID: Readonly<Record<DrawnState, RegExp>> = {
  empty:
    /\b(no|not? any|zero|0) [\p{L} ]{2,40}\b(yet|found|here|match|left|available)\b|\bnothing (here|found|fits|yet|to (see|show)|matches|borrowed|planned)\b|\b(is|are|it.s) (still )?empty\b|\bhave(n.t| not| no) [\p{L} ]{2,30} yet\b|\bno (results|matches)\b/iu,
  failed:
    /\b(went wrong|try again|could(n.t| not) (be )?(load|loaded|reach|fetch)|failed to|unable to|no connection|not available|out of reach|check your connection)\b/i,
  waiting: /\b(loading|please wait|one moment|just a moment|fetching)\b/i,
};
const STATES = ['failed', 'waiting', 'empty'] as const;
/** How what stands in the place of rows begins, where there are none. */
const BEGINS_WITH_NONE = /^\P{L}*(no|none|nothing|not (a|one|any))\b/iu;
const LONGEST_NOTE = 200;
const saysNone = (text: string): boolean => text.length < LONGEST_NOTE && BEGINS_WITH_NONE.test(text.trim());
const SAYS_NONE = /\b(no|none|nothing|not (a|one|any))\b/i;

/** What is called by a status of HTTP is what any address of the site may answer with. */
const STATUS = /(?<!\d)[45]\d\d(?!\d)/;

/** Fewer rows are no list that could be without any. */
const LEAST_ROWS = 2;

/**
 * Whether a drawing is a state of a screen: it has no rows where that has a list, and is called so, or says so there.
 * @param name what the drawing is called
 */
export function stateOf(screen: Screen, other: Screen, name: string): FoundState | null {
  if (STATUS.test(name)) return null;
  const whole = textOf(other.root);
  if (!STATES.some((state) => CALLED[state].test(name) || SAID[state].test(whole)) && !SAYS_NONE.test(whole))
    return null;
  const lists = listsOf(screen).filter(({ rows }) => rows.length >= LEAST_ROWS);
  if (!lists.length) return null;
  const most = Math.max(0, ...listsOf(other).map(({ rows }) => rows.length));
  for (const { within, rows } of lists.toSorted((a, b) => b.rows.length - a.rows.length)) {
    if (most >= rows.length) continue;
    const place = placeOfState(screen, other, within.element.key);
    if (!place) continue;
    // Who is called otherwise is another screen, unless its name says that it is none.
    const isOther = losesHeading(screen.root, new Set(place.beside));
    const shows = new Set(place.shows);
    const texts: string[] = [];
    walkElements(other.root, (element) => {
      if (element.hidden) return false;
      if (shows.has(element.key)) texts.push(seenTextOf(element));
      return true;
    });
    const says = texts.join(' ');
    for (const state of STATES) {
      if (isOther && !CALLED[state].test(name)) continue;
      if (SAID[state].test(says) || (state === 'empty' && texts.some(saysNone)))
        return { state, list: within.element.key, because: `it says “${says.trim().slice(0, 60)}” there` };
      if (CALLED[state].test(name))
        return { state, list: within.element.key, because: `it is called “${name}”, and shows no rows` };
    }
  }
  return null;
}

/** Whether the first heading of the first level is one of these elements, or stands in one. */
function losesHeading(root: Element, gone: ReadonlySet<string>): boolean {
  let isGone: boolean | null = null;
  walkElements(root, (element, parents) => {
    if (element.tag === 'h1' && !element.hidden)
      isGone ??= [element, ...parents].some(({ key }) => gone.has(key));
    return isGone === null;
  });
  return isGone ?? false;
}

/** What an element says that is not hidden in it. */
const seenTextOf = (element: Element): string =>
  element.hidden
    ? ''
    : element.children.length
      ? element.children.map(seenTextOf).join(' ')
      : (element.text ?? '');
