import { all, type Change, putInteraction, putScreen, setStart } from '../change/change.ts';
import { matchElements } from '../counterparts/match.ts';
import { isPressable } from '../roles/role.ts';
import { findScrims } from './scrim.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { App, Interaction, Overlay, OverlayKind, ScreenEntry } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { elementsByKey, cutPanelsOf, type Project, screensByKey, walkElements } from '../model/project.ts';
import { isWithin, screenOf } from '../model/places.ts';

/** The part of a drawing that lies over the rest of it, with what it seems to be. */
export interface PanelProposal {
  /** Key of the element. */
  readonly panel: string;
  readonly name: string;
  readonly overlay: Overlay;
  readonly reason: string;
}

/** Names that say of an element what kind of overlay it is. */
const NAMED: readonly (readonly [RegExp, OverlayKind])[] = [
  [/\b(toast|snack ?bar|notice|notification)\b/i, 'toast'],
  [/\b(menu|drop ?down)\b/i, 'menu'],
  [/\b(popover|tooltip|bubble)\b/i, 'popover'],
  [/\b(drawer|side ?(bar|panel))\b/i, 'drawer'],
  [/\b((bottom |action )?sheet|tray)\b/i, 'sheet'],
  [/\b(dialog|modal|pop-?up|lightbox)\b/i, 'dialog'],
];

/** A part of which more than this was on the screen before is not what was added. */
const KNOWN = 0.34;

/**
 * The part of a screen that is drawn over it. Where the screen beneath is known, it is the largest part that is not on
 * that one; else what lies on a shade, or is called by a name or role of an overlay. Null where nothing is.
 */
export function proposePanel(screen: Screen, under: Screen | null): PanelProposal | null {
  const scrims = new Set(findScrims(screen).map((element) => element.key));
  const found =
    (under && addedPart(screen, under, scrims)) ??
    namedPart(screen, scrims) ??
    (scrims.size ? partOnScrim(screen, scrims) : null);
  if (!found) return null;
  const overlay = overlayFor(found.element, screen, scrims.size > 0);
  return {
    panel: found.element.key,
    name: nameFor(found.element, overlay.kind),
    overlay: { ...overlay, panel: found.element.key },
    reason: found.reason,
  };
}

interface Found {
  readonly element: Element;
  readonly reason: string;
}

function addedPart(screen: Screen, under: Screen, scrims: ReadonlySet<string>): Found | null {
  const pairs = matchElements(under.root, screen.root);
  let best: { element: Element; size: number } | null = null;
  const count = (element: Element): { leaves: number; known: number } => {
    const inner = element.children.filter((child) => child.tag !== undefined && !child.hidden);
    const own = inner.length
      ? inner.map(count).reduce((a, b) => ({ leaves: a.leaves + b.leaves, known: a.known + b.known }))
      : { leaves: 1, known: pairs.has(element.key) ? 1 : 0 };
    const isNew = own.known <= own.leaves * KNOWN;
    // A shade is no part of what lies on it.
    if (isNew && element !== screen.root && !scrims.has(element.key) && own.leaves > 1) {
      const { width, height } = element.box;
      const size = width * height;
      if (!best || size > best.size) best = { element, size };
    }
    return own;
  };
  count(screen.root);
  const part = (best as { element: Element } | null)?.element;
  return part ? { element: part, reason: 'it is what the screen beneath does not have' } : null;
}

function namedPart(screen: Screen, scrims: ReadonlySet<string>): Found | null {
  let found: Found | null = null;
  walkElements(screen.root, (element) => {
    if (found || element.hidden) return false;
    if (element === screen.root || scrims.has(element.key) || !element.children.length) return true;
    if (isPressable(element)) return false;
    const role = element.role ?? element.attributes?.role;
    if (element.tag === 'dialog' || /^(alert)?dialog$/.test(role ?? ''))
      found = { element, reason: 'it is marked as a dialog' };
    else if (NAMED.some(([pattern]) => pattern.test(element.name)) && isSmaller(element, screen))
      found = { element, reason: `it is called “${element.name}”` };
    return !found;
  });
  return found;
}

/** The last and largest part that is drawn after a shade, or in it. */
function partOnScrim(screen: Screen, scrims: ReadonlySet<string>): Found | null {
  let isPast = false;
  let best: Element | null = null;
  walkElements(screen.root, (element, parents) => {
    if (element.hidden) return false;
    if (scrims.has(element.key)) {
      isPast = true;
      return true;
    }
    if (!isPast || element === screen.root || parents.includes(best!)) return true;
    const area = ({ box }: Element): number => box.width * box.height;
    if (element.children.length && isSmaller(element, screen) && area(element) > (best ? area(best) : 0))
      best = element;
    return true;
  });
  return best ? { element: best, reason: 'it lies on a shade over the screen' } : null;
}

const isSmaller = ({ box }: Element, screen: Screen): boolean =>
  box.width * box.height < screen.width * Math.min(screen.height, 900) * 0.9;

/** What kind of overlay a part is: by its name and role, else by its place. */
function overlayFor(element: Element, screen: Screen, hasScrim: boolean): Overlay {
  const { box } = element;
  const role = element.role ?? element.attributes?.role;
  const named = NAMED.find(([pattern]) => pattern.test(element.name))?.[1];
  const near = (a: number, b: number): boolean => Math.abs(a - b) <= 2;
  const isWide = box.width >= screen.width * 0.95;
  const isHigh = box.height >= Math.min(screen.height, 900) * 0.9;
  const placed: OverlayKind =
    isWide && near(box.y + box.height, screen.height)
      ? 'sheet'
      : isHigh && (near(box.x, 0) || near(box.x + box.width, screen.width))
        ? 'drawer'
        : !hasScrim && box.height <= 96
          ? 'toast'
          : 'dialog';
  const kind = role === 'menu' ? 'menu' : role === 'dialog' ? 'dialog' : (named ?? placed);
  const modal = hasScrim || (kind === 'dialog' && element.attributes?.['aria-modal'] !== 'false');
  return {
    kind,
    ...(kind === 'drawer' ? { side: box.x + box.width / 2 < screen.width / 2 ? 'left' : 'right' } : {}),
    ...(kind === 'sheet'
      ? { side: box.y < screen.height / 4 && !near(box.y + box.height, screen.height) ? 'top' : 'bottom' }
      : {}),
    modal: modal && kind !== 'toast',
    escape: kind !== 'toast',
    outside: kind !== 'toast',
    ...(kind === 'toast' ? { ms: 4000 } : {}),
  };
}

function nameFor(element: Element, kind: OverlayKind): string {
  let heading = '';
  walkElements(element, (inner) => {
    if (!heading && (/^h\d$/.test(inner.tag ?? '') || inner.role === 'heading')) heading = inner.text ?? '';
    return !heading;
  });
  const name = heading || element.name || kind;
  return name.replace(/\s+/g, ' ').trim().slice(0, 60);
}

const CLOSES = /^(×|✕|close|cancel|dismiss|not now|no,? thanks|keep( it)?|done|ok|got it|never mind)\b/i;

/** Elements of an overlay that by their label close it and that nothing is said of. */
export const closersOf = (
  { app, design }: Project,
  screen: Screen,
  panel: string,
): { key: string; label: string }[] =>
  pressablesOf(screen)
    .filter(({ element }) => isWithin(design, element.key, panel) && !app.interactions[element.key])
    .filter(({ label, element }) => CLOSES.test(label) || CLOSES.test(element.name))
    .map(({ element, label }) => ({ key: element.key, label }));

/**
 * Makes of a drawing the overlay that it shows over another screen: only its panel is left of it, links that led to
 * the drawing open it, and what by its label closes it does.
 */
export function cutOverlay(
  project: Project,
  key: string,
  { panel, overlay }: PanelProposal,
  under: string | null,
): Change {
  const { app, design } = project;
  const { guard: _guard, of: _of, ...entry } = app.screens[key];
  const made: ScreenEntry = {
    ...entry,
    use: 'overlay',
    ...(under ? { of: under } : {}),
    overlay: { ...overlay, panel, ...(under ? { over: [under] } : {}) },
  };
  const screen = screensByKey(design).get(key);
  const isLost = (element: string): boolean =>
    !!screen && elementsByKey(screen).has(element) && !isWithin(design, element, panel);
  const changes: Change[] = [putScreen(key, made)];
  const lost = Object.keys(app.interactions).filter((id) => isLost(elementOfInteraction(id)));
  changes.push(
    ...lost.map((id) => putInteraction(id, null)),
    ...openingInstead(app, key).filter((change) => change.kind !== 'put' || !lost.includes(change.key)),
  );
  for (const closer of screen ? closersOf(project, screen, panel) : [])
    changes.push(putInteraction(closer.key, CLOSE));
  return all([...changes, ...startingBeneath(app, key, under)]);
}

/** An app does not open with an overlay, but with what lies beneath it. */
const startingBeneath = ({ start }: App, key: string, under: string | null): Change[] =>
  under !== null && start === key ? [setStart(under)] : [];

const CLOSE: Interaction = { on: 'press', target: { kind: 'close' }, arrival: { kind: 'none' } };

/**
 * Parts a drawing of a screen with something over it where the screen beneath was not drawn by itself: the drawing stays
 * as the screen, without its panel, and the panel opens over it. What led to the drawing still leads to the screen.
 */
export function cutApart(project: Project, key: string, { panel, name, overlay }: PanelProposal): Change {
  const { app, design } = project;
  const entry = app.screens[key];
  const made = uniqueName(`${key}~${kebabCase(name) || 'overlay'}`, (candidate) => !!app.screens[candidate]);
  const taken = new Set(Object.values(app.screens).map((one) => one.name));
  const screen = screensByKey(design).get(key);
  return all([
    putScreen(made, {
      name: uniqueName(name, (candidate) => taken.has(candidate), ' '),
      route: entry.route,
      use: 'overlay',
      of: key,
      order: entry.order + 0.5,
      overlay: { ...overlay, panel, over: [key] },
    }),
    ...(screen ? closersOf(project, screen, panel).map((closer) => putInteraction(closer.key, CLOSE)) : []),
  ]);
}

/**
 * Makes of a screen whose drawing went into another one the overlay that is drawn there: what led to it opens it, and what
 * by its label closes it does.
 * @param under key of the screen whose drawing shows it
 */
export function overlayWithin(
  project: Project,
  key: string,
  { panel, overlay }: PanelProposal,
  under: string,
): Change {
  const { app, design } = project;
  const { guard: _guard, of: _of, ...entry } = app.screens[key];
  const host = screensByKey(design).get(under);
  return all([
    putScreen(key, { ...entry, use: 'overlay', of: under, overlay: { ...overlay, panel, over: [under] } }),
    ...openingInstead(app, key),
    ...(host ? closersOf(project, host, panel).map((closer) => putInteraction(closer.key, CLOSE)) : []),
    ...startingBeneath(app, key, under),
  ]);
}

/** What led to a screen opens it as an overlay. */
const openingInstead = (app: App, key: string): Change[] =>
  Object.entries(app.interactions).flatMap(([id, interaction]) =>
    interaction.target.kind === 'screen' && interaction.target.screen === key
      ? [putInteraction(id, { ...interaction, target: { kind: 'open', overlay: key } })]
      : [],
  );

/** Puts an overlay that was cut out of a screen back into it. */
export const joinAgain = ({ app }: Project, key: string): Change =>
  all([
    putScreen(key, null),
    ...Object.entries(app.interactions).flatMap(([id, { target }]) =>
      target.kind === 'open' && target.overlay === key ? [putInteraction(id, null)] : [],
    ),
  ]);

/** Whether an overlay was cut out of a screen that stays. */
export const isCutApart = (project: Project, key: string): boolean =>
  [...cutPanelsOf(project).values()].some((panels) => panels.some((cut) => cut.key === key));

/** Makes an overlay a screen of its own again: what opened it leads to it, what closed it leads back. */
export function uncutOverlay({ app, design }: Project, key: string): Change {
  const { overlay: _overlay, of: _of, ...entry } = app.screens[key];
  const changes: Change[] = [putScreen(key, { ...entry, use: 'screen' })];
  for (const [id, interaction] of Object.entries(app.interactions)) {
    const { target } = interaction;
    if (target.kind === 'open' && target.overlay === key)
      changes.push(putInteraction(id, { ...interaction, target: { kind: 'screen', screen: key } }));
    else if (target.kind === 'close' && screenOf(design, elementOfInteraction(id)) === key)
      changes.push(putInteraction(id, { ...interaction, target: { kind: 'back' } }));
  }
  return all(changes);
}
