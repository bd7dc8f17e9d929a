import type { RoleContext } from './evidence.ts';
import { findForms, SAYS_WHOSE } from './place_evidence.ts';
import type { RoleGuess } from './guess.ts';
import type { Role } from './names.ts';
import { type Run, runsIn } from './shape.ts';
import { displayOf, hasParent, type Sight } from './sight.ts';

type Take = (sight: Sight, guess: RoleGuess) => void;

/** What repetition and company say: lists, navigations, tabs, radio groups, tables of equal columns. */
export function findStructure(context: RoleContext, take: Take): void {
  const { screen, roleOf } = context;
  // A page that lays items out as such has no other lists.
  const saysItems = screen.all.some((sight) => displayOf(sight.element) === 'list-item');
  for (const parent of screen.all) {
    if (['textbox', 'combobox', 'button', 'link', 'chart', 'table', 'row'].includes(roleOf(parent) ?? ''))
      continue;
    const items = parent.children.filter((child) => roleOf(child) === 'listitem');
    const areLaidOut = items.length > 0 && items.every((item) => displayOf(item.element) === 'list-item');
    if (areLaidOut) {
      take(parent, { role: 'list', confidence: 0.94, reason: 'all in it are items of a list' });
      continue;
    }
    if (!saysItems) for (const run of runsIn(parent)) takeRun(run, context, take);
  }
  for (const sight of screen.all) {
    if (sight.element.kind !== 'box' || roleOf(sight)) continue;
    radioGroup(sight, context, take);
    navigationOf(sight, context, take);
  }
  findForms(context, (form, fields) =>
    take(form, {
      role: 'form',
      confidence: fields >= 2 ? 0.7 : 0.6,
      reason: `${fields === 1 ? 'a field stands' : `${fields} fields stand`} in it, with something to send`,
    }),
  );
}

function takeRun(run: Run, { screen, roleOf, guesses }: RoleContext, take: Take): void {
  const { items, parent, axis } = run;
  const [first] = items;
  const roles = items.map((item) => roleOf(item));
  const isPlainText = first.element.kind !== 'box';
  const all = (role: Role): boolean => roles.every((other) => other === role);
  const areTabs = items.length >= 2 && roles.filter((role) => role === 'tab').length >= items.length - 1;
  // A bar that leads to other screens holds links, whatever it is called.
  if (areTabs && (roleOf(parent) === 'navigation' || hasParent(parent, (p) => roleOf(p) === 'navigation'))) {
    items.forEach((item) =>
      take(item, { role: 'link', confidence: 0.82, reason: 'it stands in a navigation' }),
    );
    return;
  }
  if (areTabs) {
    items.forEach((item) =>
      take(item, { role: 'tab', confidence: 0.78, reason: 'it is one of several tabs' }),
    );
    take(parent, { role: 'tablist', confidence: 0.75, reason: 'tabs stand in it side by side' });
    return;
  }
  if (isPlainText || all('button') || all('textbox') || all('separator') || all('cell')) return;
  // What can be pressed may stand in a list too, but a bar of links is a navigation first.
  if (all('link') && axis === 'x') return;
  const inner = items.map((item) => contentOf(item));
  const isRich = inner.every((count) => count >= 2);
  const named = items.filter((item) => guesses.get(item.element.key)?.role === 'listitem').length;
  if (items.length < 3 && named < 2) return;
  if (items.some((item) => / (status|redlines?|annotation) /.test(item.words))) return;
  if (!isRich && named < items.length && !all('link')) return;
  // Areas as large as the screen are sections of it, not rows.
  if (items.every((item) => item.element.box.height > screen.height * 0.4)) return;
  const fields = items.filter((item) =>
    item.children.some((child) => ['textbox', 'combobox'].includes(roleOf(child) ?? '')),
  );
  if (fields.length) return;
  const isWholeParent = items.length >= parent.children.length - 1;
  const confidence = Math.min(
    0.9,
    0.5 +
      (named ? 0.2 : 0) +
      (items.length >= 3 ? 0.15 : 0) +
      (isWholeParent ? 0.1 : 0) +
      (axis === 'y' ? 0.05 : 0),
  );
  const reason = `${items.length} of a kind stand ${axis === 'y' ? 'beneath each other' : axis === 'x' ? 'side by side' : 'in a grid'}`;
  items.forEach((item) => take(item, { role: 'listitem', confidence, reason }));
  if (isWholeParent && parent !== screen.root) take(parent, { role: 'list', confidence, reason });
}

/** How many texts and pictures an element holds. */
function contentOf(sight: Sight): number {
  if (!sight.children.length) return sight.hasOwnText || sight.element.kind !== 'box' ? 1 : 0;
  return sight.children.reduce((sum, child) => sum + contentOf(child), sight.hasOwnText ? 1 : 0);
}

function radioGroup(sight: Sight, { roleOf }: RoleContext, take: Take): void {
  const radios = sight.children.filter(
    (child) => roleOf(child) === 'radio' || child.children.some((inner) => roleOf(inner) === 'radio'),
  );
  if (radios.length >= 2)
    take(sight, { role: 'radiogroup', confidence: 0.75, reason: 'radio buttons stand together in it' });
}

/** A container that holds nothing but a list of links: the way around the app. */
function holdsMenu(sight: Sight, { roleOf }: RoleContext): boolean {
  const [only] = sight.children;
  return (
    sight.children.length === 1 &&
    roleOf(only) === 'list' &&
    only.children.length >= 3 &&
    // The entry of the present page may look like a button.
    only.children.filter((item) => countLinks(item, roleOf) >= 1).length >= only.children.length - 1
  );
}

const hasMenu = (sight: Sight, context: RoleContext): boolean =>
  holdsMenu(sight, context) || sight.children.some((child) => hasMenu(child, context));

/** Three or more links together, and little else: the way around the app. */
function navigationOf(sight: Sight, context: RoleContext, take: Take): void {
  const { roleOf, screen } = context;
  const { box } = sight.element;
  if (
    SAYS_WHOSE.test(sight.text) ||
    sight.text.length > 400 ||
    hasParent(sight, (p) => roleOf(p) === 'navigation')
  )
    return;
  if (holdsMenu(sight, context)) {
    take(sight, {
      role: 'navigation',
      confidence: 0.68,
      reason: 'it holds a list of links and nothing else',
    });
    return;
  }
  const links = countLinks(sight, roleOf);
  if (links < 3 || hasMenu(sight, context)) return;
  const isBar =
    box.width >= screen.width * 0.6 &&
    box.height <= 120 &&
    (box.y < 140 || box.y + box.height > screen.height - 40);
  const isSide = box.x <= 4 && box.width <= 320 && box.height >= screen.height * 0.5;
  if (isBar || isSide)
    take(sight, {
      role: 'navigation',
      confidence: isBar ? 0.55 : 0.5,
      reason: `${links} links stand together at the edge of the screen`,
    });
}

function countLinks(sight: Sight, roleOf: RoleContext['roleOf']): number {
  return sight.children.reduce(
    (sum, child) =>
      sum + (roleOf(child) === 'link' || roleOf(child) === 'tab' ? 1 : countLinks(child, roleOf)),
    0,
  );
}

/**
 * Rows of one list play the same parts at the same places: what most of them have there, all of them have. Without
 * this, a name that happens to be short would be a heading in one row and plain text in the next.
 */
export function agreeInLists({ screen, guesses }: RoleContext, put: Take): void {
  for (const list of screen.all) {
    const items = list.children.filter((child) => guesses.get(child.element.key)?.role === 'listitem');
    if (items.length < 2) continue;
    const places = new Map<string, Sight[]>();
    const visit = (sight: Sight, place: string): void => {
      const at = places.get(place);
      if (at) at.push(sight);
      else places.set(place, [sight]);
      sight.children.forEach((child, i) => visit(child, `${place}/${i}${child.element.kind}`));
    };
    items.forEach((item) => item.children.forEach((child, i) => visit(child, `${i}${child.element.kind}`)));
    for (const sights of places.values()) {
      if (sights.length < 2) continue;
      const votes = new Map<string, Sight[]>();
      for (const sight of sights) {
        const role = guesses.get(sight.element.key)?.role ?? '';
        votes.set(role, [...(votes.get(role) ?? []), sight]);
      }
      if (votes.size < 2) continue;
      const [role, winners] = [...votes].sort((a, b) => b[1].length - a[1].length)[0];
      if (!role || winners.length * 2 <= sights.length) continue;
      const model = guesses.get(winners[0].element.key)!;
      for (const sight of sights)
        if (
          guesses.get(sight.element.key)?.role !== role &&
          (guesses.get(sight.element.key)?.confidence ?? 0) < 0.9
        )
          put(sight, {
            ...model,
            confidence: Math.min(model.confidence, 0.7),
            reason: 'so it is in the other rows',
          });
    }
  }
}
