import type { LayerKind } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { type Guesses, LEAST_CONFIDENCE, type RoleGuess } from './guess.ts';
import { chartByLook, CONTROL_RULES } from './look_evidence.ts';
import { PLACE_RULES } from './place_evidence.ts';
import { TEXT_RULES } from './text_evidence.ts';
import { asLearned, tagsTell } from './learned/weigh.ts';
import { chartByWord, WORD_RULES } from './word_evidence.ts';
import { type InputType, INPUT_TYPES, isRole, type Role, type RoleDetail, roleFromAria } from './names.ts';
import { agreeInLists, findStructure } from './structure.ts';
import { findTabs } from './tabs.ts';
import { type ScreenSight, type Sight, sightOf } from './sight.ts';
import { whileSame } from '../json/once_for.ts';

export type LayerDefaults = Readonly<Partial<Record<LayerKind, string>>>;

/**
 * What each element of a screen is, by element key; elements that only hold others have no entry. Authored tags and
 * roles come first, then names, then look, text, place, siblings and repetition; last what the project says of layers
 * of a kind. Linear in the elements, and kept with the screen.
 */
export const inferRoles = (screen: Screen, defaults: LayerDefaults = {}): Guesses =>
  rolesWith(screen, JSON.stringify(defaults));

const rolesWith = whileSame((screen: Screen, signature: string): Guesses => {
  const defaults = JSON.parse(signature) as LayerDefaults;
  const sight = sightOf(screen);
  const guesses = byRules(sight, defaults);
  if (!sight.isDrawing && !tagsTell(sight, guesses)) asLearned(sight, guesses);
  // What chooses among parts looks like links and buttons elsewhere.
  findTabs({ screen: sight, guesses, roleOf: roleIn(guesses) }, ({ element: { key } }, guess) => {
    if ((guesses.get(key)?.confidence ?? 0) < 1) guesses.set(key, guess);
  });
  return levelled(sight, guesses);
});

const roleIn =
  (guesses: Guesses) =>
  ({ element }: Sight): Role | null =>
    guesses.get(element.key)?.role ?? null;

/** What rules alone make of each element: what the learned weights start from. */
export const inferByRules = (screen: Screen): Guesses => byRules(sightOf(screen), {});

function byRules(screen: ScreenSight, defaults: LayerDefaults): Map<string, RoleGuess> {
  const guesses = new Map<string, RoleGuess>();
  const best = (sight: Sight, guess: RoleGuess | null): void => {
    if (!guess || guess.confidence < LEAST_CONFIDENCE) return;
    const before = guesses.get(sight.element.key);
    if (!before || guess.confidence > before.confidence) guesses.set(sight.element.key, guess);
  };
  const context = { screen, guesses, roleOf: roleIn(guesses) };
  for (const sight of screen.all) {
    const authored = authoredRole(sight);
    if (authored) {
      best(sight, (authored.role === 'image' ? chartIn(sight) : null) ?? authored);
      continue;
    }
    if (sight === screen.root) continue;
    for (const rule of [...WORD_RULES, ...CONTROL_RULES]) best(sight, rule(sight, context));
  }
  findStructure(context, best);
  for (const sight of screen.all.toReversed())
    if (sight !== screen.root && !guesses.has(sight.element.key))
      for (const rule of PLACE_RULES) best(sight, rule(sight, context));
  for (const sight of screen.all) {
    if (sight === screen.root || guesses.has(sight.element.key)) continue;
    for (const rule of TEXT_RULES) best(sight, rule(sight, context));
    const role = defaults[sight.element.kind as LayerKind];
    if (!guesses.has(sight.element.key) && isRole(role) && sight.isAuthored === false)
      best(sight, { role, confidence: 0.5, reason: `so the project has it for every ${sight.element.kind}` });
  }
  agreeInLists(context, (sight, guess) => void guesses.set(sight.element.key, guess));
  return guesses;
}

/** What the tag or the authored role says; null where that says nothing. */
function authoredRole(sight: Sight): RoleGuess | null {
  const { element } = sight;
  const named = element.role && element.attributes?.role === element.role ? roleFromAria(element.role) : null;
  if (named) return sure(named, `its role is given as ${element.role}`);
  if (element.role && isRole(element.role)) return sure(element.role, 'somebody said so');
  if (!sight.isAuthored || !element.tag) return null;
  const detail = roleByTag(element);
  return detail && { ...detail, confidence: 1, reason: `its tag is <${element.tag}>` };
}

/** What is a picture to a reader and shows numbers: what scripts draw on by what it is called, else by how it looks. */
function chartIn(sight: Sight): RoleGuess | null {
  const { tag, kind } = sight.element;
  if (tag === 'canvas') return chartByWord(sight);
  return kind === 'image' ? null : chartByLook(sight);
}

const sure = (role: Role, reason: string): RoleGuess => ({ role, confidence: 1, reason });

const BY_TAG: Readonly<Record<string, Role>> = {
  button: 'button',
  summary: 'button',
  select: 'combobox',
  p: 'paragraph',
  ul: 'list',
  ol: 'list',
  li: 'listitem',
  table: 'table',
  tr: 'row',
  th: 'columnheader',
  td: 'cell',
  nav: 'navigation',
  main: 'main',
  form: 'form',
  dialog: 'dialog',
  progress: 'progressbar',
  meter: 'progressbar',
  hr: 'separator',
  label: 'label',
  img: 'image',
};

/** The role that HTML gives a tag (HTML Accessibility API Mappings); null for those without one. */
export function roleByTag(element: Element): RoleDetail | null {
  const { tag = '', attributes = {} } = element;
  if (/^h[1-6]$/.test(tag)) return { role: 'heading', level: Number(tag[1]) };
  switch (tag) {
    case 'a':
      return attributes.href !== undefined || element.classes ? { role: 'link' } : null;
    case 'img':
      return attributes.alt === '' ? null : { role: 'image', label: attributes.alt };
    case 'textarea':
      return { role: 'textbox', input: 'multiline' };
    case 'header':
      return { role: 'banner' };
    case 'footer':
      return { role: 'contentinfo' };
    case 'input':
      return roleOfInput(attributes.type ?? 'text');
    default:
      return Object.hasOwn(BY_TAG, tag) ? { role: BY_TAG[tag] } : null;
  }
}

function roleOfInput(type: string): RoleDetail | null {
  if (['submit', 'button', 'reset', 'image', 'file', 'color'].includes(type)) return { role: 'button' };
  if (type === 'checkbox' || type === 'radio') return { role: type };
  if (type === 'range') return { role: 'slider' };
  if (type === 'hidden') return null;
  const input = ['datetime-local', 'month', 'week', 'time'].includes(type) ? 'date' : type;
  return {
    role: 'textbox',
    input: (INPUT_TYPES as readonly string[]).includes(input) ? (input as InputType) : 'text',
  };
}

/** Headings get their levels from their sizes, the largest first; authored ones keep theirs. */
function levelled(screen: ScreenSight, guesses: Map<string, RoleGuess>): Guesses {
  const open = screen.all.filter((sight) => {
    const guess = guesses.get(sight.element.key);
    return guess?.role === 'heading' && guess.level === undefined;
  });
  const sizeOf = (sight: Sight): string => `${sight.fontSize} ${sight.fontWeight >= 600 ? 1 : 0}`;
  const sizes = [...new Set(open.map(sizeOf))].sort((a, b) => {
    const [sizeA, boldA] = a.split(' ').map(Number);
    const [sizeB, boldB] = b.split(' ').map(Number);
    return sizeB - sizeA || boldB - boldA;
  });
  for (const sight of open) {
    const guess = guesses.get(sight.element.key)!;
    guesses.set(sight.element.key, { ...guess, level: Math.min(6, sizes.indexOf(sizeOf(sight)) + 1) });
  }
  return guesses;
}
