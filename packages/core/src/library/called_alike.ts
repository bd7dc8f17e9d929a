import { singular } from '../model/names.ts';

/** Words that people call the same part of a screen by; the first stands for all. */
const SAME: readonly (readonly string[])[] = [
  ['button', 'btn', 'cta', 'action'],
  ['card', 'tile', 'panel', 'box', 'paper', 'surface'],
  ['row', 'item', 'entry', 'line', 'record'],
  ['list', 'items', 'rows', 'collection'],
  ['nav', 'navigation', 'menu', 'navbar', 'links'],
  ['sidebar', 'sidenav', 'side', 'drawer', 'rail'],
  ['header', 'head', 'topbar', 'appbar', 'masthead', 'toolbar', 'banner'],
  ['footer', 'foot', 'bottombar'],
  ['badge', 'tag', 'chip', 'pill', 'label', 'status', 'lozenge'],
  ['field', 'input', 'textfield', 'textinput', 'textbox', 'formfield', 'control'],
  ['search', 'searchfield', 'searchbox', 'searchbar', 'finder'],
  ['avatar', 'userpic', 'portrait', 'face'],
  ['picture', 'image', 'img', 'photo', 'thumbnail', 'thumb'],
  ['tab', 'segment'],
  ['switch', 'toggle'],
  ['dialog', 'modal', 'popup', 'lightbox'],
  ['alert', 'notice', 'message', 'callout', 'notification', 'toast', 'snackbar'],
  ['heading', 'title', 'headline'],
  ['link', 'anchor'],
  ['select', 'dropdown', 'picker', 'combobox'],
  ['progress', 'meter', 'gauge', 'progressbar'],
  ['stat', 'metric', 'kpi', 'figure', 'counter'],
  ['breadcrumb', 'crumb', 'crumbs'],
  ['icon', 'glyph', 'symbol'],
  ['divider', 'separator', 'rule', 'hr'],
];
const meaning = new Map(SAME.flatMap((words) => words.map((word) => [word, words[0]] as const)));

/** The words of a name in code, in small letters, without what only tells it from others of the same name. */
export const wordsOf = (name: string): string[] =>
  name
    .replace(/\d+$/, '')
    .replace(/([a-z\d])([A-Z])|([A-Z])(?=[A-Z][a-z])/g, '$1$3 $2')
    .toLowerCase()
    .split(/[^a-z\d]+/)
    .filter(Boolean);

/** What a name means, word by word; `SideBar` and `Sidebar` mean the same. */
export function meaningsOf(name: string): string[] {
  const words = wordsOf(name).map((word) => singular(word));
  const made: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const pair = i + 1 < words.length ? meaning.get(words[i] + words[i + 1]) : undefined;
    if (pair !== undefined) i++;
    made.push(pair ?? meaning.get(words[i]) ?? words[i]);
  }
  return made;
}

/** What the last word of a name counts against each of the others: it says what the thing is, the others which of its kind. */
const OF_HEAD = 3;
/** Names that by themselves are of what only places other things. */
const LAYOUT = new Set([
  'row',
  'col',
  'column',
  'grid',
  'box',
  'stack',
  'flex',
  'container',
  'surface',
  'paper',
  'item',
]);
/** What a word counts by which theirs is narrower than what is drawn: a card is not any loan card. */
const OF_NARROWER = 2;

/**
 * How far a drawn component is called like one of the team's, 0 to 1: what both say against all that either says, what the thing
 * is counting most. A drawn one that only says more of which it is (`LoanCard`, `Card`) is much the same; one that says less is not.
 */
export function calledAlike(drawn: string, theirs: string): number {
  const [x, y] = [meaningsOf(drawn), meaningsOf(theirs)];
  if (LAYOUT.has(theirs.toLowerCase()) && drawn.toLowerCase() !== theirs.toLowerCase()) return 0;
  if (!x.length || !y.length || x.at(-1) !== y.at(-1)) return 0;
  const [ofDrawn, ofTheirs] = [new Set(x.slice(0, -1)), new Set(y.slice(0, -1))];
  const both = [...ofDrawn].filter((word) => ofTheirs.has(word)).length;
  return (OF_HEAD + both) / (OF_HEAD + ofDrawn.size + OF_NARROWER * (ofTheirs.size - both));
}
