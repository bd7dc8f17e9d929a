import { FIELDS, guess, PRESSED, type RoleContext, type RoleRule } from './evidence.ts';
import { hasParent, type Sight } from './sight.ts';

/** What place and contents say of containers. Run from the innermost outwards. */
export const PLACE_RULES: readonly RoleRule[] = [headOfMain, bottomBar, header, footer, main];

/** How many of the things in a bar can be pressed, or are an icon with a text. */
function pressedIn(s: Sight, roleOf: RoleContext['roleOf']): number {
  return s.children.filter(
    (child) =>
      PRESSED.includes(roleOf(child)) ||
      (child.text !== '' && child.children.some((inner) => inner.element.kind === 'vector')),
  ).length;
}

export const SAYS_WHOSE = /©|\bcopyright\b|all rights/i;

const isWide = (s: Sight, { screen }: RoleContext): boolean => s.element.box.width >= screen.width * 0.95;

function bottomBar(s: Sight, context: RoleContext) {
  const { screen, roleOf } = context;
  const { box, kind } = s.element;
  const isAtFoot = box.y + box.height >= screen.height - 8 && box.height <= 120;
  return kind === 'box' && isWide(s, context) && isAtFoot && screen.width <= 600 && pressedIn(s, roleOf) >= 3
    ? guess('navigation', 0.75, 'a bar of links at the foot of the screen')
    : null;
}

function header(s: Sight, context: RoleContext) {
  const { screen } = context;
  const { box, kind } = s.element;
  if (kind !== 'box' || !isWide(s, context) || s.depth > 2 || !s.children.length || !s.text) return null;
  if (/ status /.test(s.words) || box.y > 60 || box.height < 40) return null;
  if (screen.isDrawing) return box.height <= 120 ? guess('banner', 0.5, 'it stands across the top') : null;
  // A page's head is a large picture or a line with little in it, above all the rest.
  const isOnTop = box.y <= 4 || s.index <= 1;
  return isOnTop && box.height < screen.height * 0.5 && s.look.hasFill && s.text.length < 300
    ? guess('banner', 0.45, 'it stands across the top, on a ground of its own')
    : null;
}

/** What stands first in the main part, low and with the largest text of the page, is its head. */
function headOfMain(s: Sight, { screen, roleOf }: RoleContext) {
  if (screen.isDrawing || s.element.kind !== 'box' || s.index !== 0 || !s.parent?.parent) return null;
  if (s.element.box.height > 160 || s.element.box.height === 0 || s.parent.children.length < 2) return null;
  const isMain =
    / main /.test(s.parent.words) || roleOf(s.parent) === 'main' || s.parent.element.tag === 'main';
  if (!isMain || s.hasOwnText) return null;
  const largest = Math.max(...screen.all.map((other) => (other.hasOwnText ? other.fontSize : 0)));
  return holds(s, (inner) => inner.hasOwnText && inner.fontSize === largest)
    ? guess('banner', 0.5, 'it stands first, with the title of the page')
    : null;
}

function footer(s: Sight, context: RoleContext) {
  const { screen, roleOf } = context;
  const { box, kind } = s.element;
  if (kind !== 'box' || s.depth > 4 || !isAcross(s) || hasParent(s, (p) => roleOf(p) === 'contentinfo'))
    return null;
  const isLast = box.y + box.height >= screen.height - 4 && box.y > screen.height * 0.3;
  if (!isLast || box.height > 500 || box.height < 24) return null;
  // Of several containers around the same, the outermost that shows is the foot, else the outermost of all.
  const around: Sight[] = [s];
  while (around[0].parent?.parent && around[0].parent.text === s.text) around.unshift(around[0].parent);
  for (let only = s; only.children.length === 1;) around.push((only = only.children[0]));
  const shows = around.find(({ look }) => look.hasFill || look.hasBorder || look.hasUnderline);
  if ((shows ?? around[0]) !== s) return null;
  // What says whose the page is belongs to its foot.
  if (SAYS_WHOSE.test(s.text) && s.text.length < 900)
    return s.depth <= 1 || s.parent!.children.length > 1 || around.length > 1
      ? guess('contentinfo', 0.87, 'it says at the foot of the page whose the page is')
      : null;
  return !screen.isDrawing && s.depth === 1 && s.text.length < 300 && s.parent!.children.length > 1
    ? guess('contentinfo', 0.4, 'it stands last, at the foot of the page')
    : null;

  function isAcross({ element, parent }: Sight): boolean {
    return element.box.width >= (parent?.element.box.width ?? screen.width) * 0.75;
  }
}

/** Between the head and the foot of a page stands what it is about. */
function main(s: Sight, { screen, roleOf }: RoleContext) {
  if (s.element.kind !== 'box' || s.depth < 1 || s.depth > 4 || screen.isDrawing) return null;
  if (/ (main|main content) /.test(s.words) && s.element.box.height > screen.height * 0.3)
    return guess('main', 0.7, 'it is called the main part');
  const others = s.parent!.children.filter((other) => other !== s && other.element.box.height > 0);
  const around = others.filter((other) =>
    ['banner', 'navigation', 'contentinfo'].includes(roleOf(other) ?? ''),
  );
  const hasFoot = around.some((other) => roleOf(other) === 'contentinfo');
  const isLargest = others.every(
    (other) => around.includes(other) || other.element.box.height < s.element.box.height / 2,
  );
  const isHeld = s.depth === 1 && !holds(s, (inner) => ['main', 'contentinfo'].includes(roleOf(inner) ?? ''));
  return around.length > 0 && isLargest && (hasFoot || isHeld) && s.element.box.height > 60
    ? guess('main', 0.5, 'it stands between the head and the foot of the page')
    : null;
}

const holds = (s: Sight, test: (inner: Sight) => boolean): boolean =>
  s.children.some((child) => test(child) || holds(child, test));

/**
 * Forms: the innermost container that holds fields and something to send them with, and with it the containers that
 * hold nothing else. `take` is called once a form.
 */
export function findForms(context: RoleContext, take: (form: Sight, fields: number) => void): void {
  const { screen, roleOf } = context;
  const inForm = new Set<Sight>();
  const counts = new Map<Sight, { fields: number; buttons: number; forms: number }>();
  for (const s of screen.all.toReversed()) {
    const count = { fields: 0, buttons: 0, forms: 0 };
    for (const child of s.children) {
      const inner = counts.get(child)!;
      count.fields += inner.fields;
      count.buttons += inner.buttons;
      count.forms += inner.forms;
    }
    const role = roleOf(s);
    if (FIELDS.includes(role)) count.fields++;
    if (role === 'form') count.forms++;
    if (role === 'button' || (role === 'link' && s.look.hasFill && s.look.radius > 0)) count.buttons++;
    counts.set(s, count);
    if (!count.fields || !count.buttons || count.forms || PRESSED.includes(role) || FIELDS.includes(role))
      continue;
    // A page on which there happens to be a field is no form.
    if (s.text.length > 700) continue;
    const isInRow =
      ['row', 'cell', 'table', 'listitem'].includes(role ?? '') ||
      hasParent(s, (p) => ['row', 'listitem'].includes(roleOf(p) ?? ''));
    if (isInRow && !(role === 'listitem' || hasParent(s, (p) => roleOf(p) === 'navigation'))) continue;
    let form = s;
    while (
      form.parent?.parent &&
      form.parent.children.length === 1 &&
      roleOf(form.parent) === null &&
      !/ (dropdown|menu|modal|dialog|card|panel|collapse|popover|container|sidebar|col|row) /.test(
        form.parent.words,
      ) &&
      !form.look.hasBorder &&
      !form.look.hasShadow
    )
      form = form.parent;
    if (inForm.has(form) || form === screen.root || roleOf(form) !== null) continue;
    inForm.add(form);
    // Whatever stands around it is no form again.
    for (let up: Sight | null = s; up; up = up.parent) {
      const around = counts.get(up);
      if (around) around.forms = 1;
    }
    count.forms = 1;
    take(form, count.fields);
  }
}
