import { all, type Change, putLayer, putRefused } from '../change/change.ts';
import type { App, Layer } from '../model/app.ts';
import type { Design, Element, Screen } from '../model/design.ts';
import { type Project, walkElements } from '../model/project.ts';
import type { RoleGuess } from './guess.ts';
import { inferRoles } from './infer.ts';
import type { RoleDetail } from './names.ts';
import { shapeOf } from './shape.ts';

/** A role that waits for somebody to take or refuse it. */
export interface RoleProposal {
  readonly element: Element;
  readonly guess: RoleGuess;
}

/** Text that is nothing but text needs no decision; below this, `paragraph` only says so. */
const PLAIN_TEXT = 0.6;

export const refusalOfRole = (key: string, role: string): string => `role ${key} ${role}`;

/**
 * The roles of a drawn screen that nobody has decided about, in reading order. What the file itself says (a tag, an
 * authored role) is decided; an element that is left out, or lies in one that is a picture, is not asked about.
 */
export function roleProposals(app: App, drawn: Screen): RoleProposal[] {
  const guesses = inferRoles(drawn, app.defaults);
  const found: RoleProposal[] = [];
  walkElements(drawn.root, (element) => {
    const layer = app.layers[element.key];
    const isShown = layer?.show ?? !element.hidden;
    if (!isShown) return false;
    const guess = guesses.get(element.key);
    if (guess && isOpen(app, element.key, layer, guess)) found.push({ element, guess });
    // Within a control there is nothing left to decide.
    const decided = layer?.role;
    return !layer?.flat && !(decided && CLOSED.has(decided));
  });
  return found;
}

const CLOSED = new Set(['textbox', 'combobox', 'checkbox', 'radio', 'switch', 'slider', 'chart', 'avatar']);

function isOpen(app: App, key: string, layer: Layer | undefined, guess: RoleGuess): boolean {
  if (layer?.role || guess.confidence >= 1 || guess.role === 'none') return false;
  // A label follows from the field that it names.
  if (guess.role === 'label') return false;
  if (guess.role === 'paragraph' && guess.confidence < PLAIN_TEXT) return false;
  return !app.refused[refusalOfRole(key, guess.role)];
}

/** Says what an element is. What else was decided about it stays. */
export function decideRole(app: App, key: string, detail: RoleDetail): Change {
  const { role: _role, input: _input, level: _level, chart: _chart, ...rest } = app.layers[key] ?? {};
  const label = detail.label?.trim() || rest.label;
  return putLayer(key, {
    ...rest,
    role: detail.role,
    ...(detail.input && detail.input !== 'text' ? { input: detail.input } : {}),
    ...(detail.level ? { level: detail.level } : {}),
    ...(detail.chart ? { chart: detail.chart } : {}),
    ...(label ? { label: label.slice(0, 500) } : {}),
  });
}

/** Takes a decision about an element's role back. */
export function undecideRole(app: App, key: string): Change {
  const { role: _role, input: _input, level: _level, chart: _chart, ...rest } = app.layers[key] ?? {};
  return putLayer(key, rest);
}

export const refuseRole = ({ element, guess }: RoleProposal): Change =>
  putRefused(refusalOfRole(element.key, guess.role), true);

/** Takes all proposals that are at least so sure. */
export const takeRoles = (app: App, proposals: readonly RoleProposal[], least: number): Change =>
  all(
    proposals
      .filter(({ guess }) => guess.confidence >= least)
      .map(({ element, guess }) => decideRole(app, element.key, guess)),
  );

/**
 * Elements of all screens that are like one: called the same and built the same, or, where they have no name of their
 * own, built the same and of about the same size. The element itself is among them.
 */
export function elementsLike(design: Design, element: Element): Element[] {
  const shape = shapeOf(element);
  const name = nameOf(element);
  const found: Element[] = [];
  for (const screen of design.screens)
    walkElements(screen.root, (other) => {
      if (other.kind !== element.kind || other.tag !== element.tag || shapeOf(other) !== shape) return;
      const isLike = name
        ? nameOf(other) === name
        : nameOf(other) === '' && isNear(other.box.height, element.box.height) && sameLook(other, element);
      if (isLike) found.push(other);
    });
  return found;
}

/** A layer's name without numbers; empty where it is only its text or given by Tovel. */
function nameOf(element: Element): string {
  const own = element.classes ?? (element.kind === 'text' ? '' : element.name);
  const plain = own
    .replace(/[\d_]+/g, ' ')
    .trim()
    .toLowerCase();
  const isGiven = ['box', 'group', 'vector', 'image'].includes(plain);
  return isGiven || (element.children.length > 0 && firstText(element).startsWith(plain)) ? '' : plain;
}

function firstText(element: Element): string {
  let text = '';
  walkElements(element, (inner) => {
    text ||= inner.text?.trim().toLowerCase() ?? '';
    return !text;
  });
  return text;
}

const isNear = (a: number, b: number): boolean => Math.abs(a - b) <= Math.max(2, Math.min(a, b) * 0.1);

const LOOK = ['font-size', 'font-weight', 'background-color', 'border-top-width'];
const sameLook = (a: Element, b: Element): boolean =>
  LOOK.every((property) => a.style.base[property] === b.style.base[property]);

/**
 * How many decisions about roles wait in a project: what is alike, on whatever screens, and taken for the same is one, as it
 * can be decided in one go.
 */
export function openRoles({ app, design }: Project): number {
  const open = new Set<string>();
  for (const screen of design.screens) {
    const use = app.screens[screen.key]?.use;
    if (!use || use === 'skip') continue;
    for (const { element, guess } of roleProposals(app, screen))
      open.add(`${guess.role} ${likenessOf(element)}`);
  }
  return open.size;
}

/** The same for elements that are alike, as `elementsLike` finds them; heights of those without a name within steps. */
function likenessOf(element: Element): string {
  const name = nameOf(element);
  const look = name ? '' : LOOK.map((property) => element.style.base[property] ?? '').join('|');
  const height = name ? 0 : Math.round(Math.log(Math.max(1, element.box.height)) / Math.log(1.1));
  return [element.kind, element.tag, shapeOf(element), name, height, look].join(' ');
}
