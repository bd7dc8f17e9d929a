import { all, type Change, putAdded, putDrawer, putEdit, putInteraction } from '../change/change.ts';
import type { Drawer } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { pressablesOf } from '../links/pressable.ts';
import { type Project, walkElements } from '../model/project.ts';
import { screenWith } from '../model/places.ts';
import { freeAddedKey } from './added.ts';
import { editKey, parseEditKey } from '../model/edit_key.ts';

/** An element that could open a drawer, with why. */
export interface OpenerProposal {
  readonly element: Element;
  readonly label: string;
  readonly confidence: number;
  readonly reason: string;
}

const MENU = /\b(menu|nav(igation)?|hamburger|burger|side ?bar|drawer|toggle[rd]?|bars)\b/i;

/** What on a screen could open a part of it as a drawer, the likeliest first: what is called a menu and wired to nothing. */
export function openerProposals({ app }: Project, screen: Screen, part: Element): OpenerProposal[] {
  const inside = new Set<string>();
  walkElements(part, (element) => void inside.add(element.key));
  return pressablesOf(screen)
    .filter(({ element }) => !inside.has(element.key) && !app.interactions[element.key])
    .flatMap(({ element, label }): OpenerProposal[] => {
      const words = `${label} ${element.name} ${element.classes ?? ''} ${element.source.id ?? ''}`.replace(
        /[_-]/g,
        ' ',
      );
      if (!MENU.test(words)) return [];
      const isSmall = element.box.width <= 96;
      return [
        {
          element,
          label,
          confidence: isSmall ? 0.9 : 0.6,
          reason: `it is called “${label}” and leads nowhere yet`,
        },
      ];
    })
    .sort((a, b) => b.confidence - a.confidence);
}

/**
 * Hides a part of a screen on windows up to a width and offers it there as a drawer. With `opener` null a button is
 * added before the part, which shows only where the part does not.
 */
export function drawerChange(
  project: Project,
  part: string,
  drawer: Omit<Drawer, 'opener'>,
  opener: string | null,
): Change {
  const screen = screenWith(project.design, part);
  const key = opener ?? freeAddedKey(project.app, screen?.key ?? 'screen');
  const changes: Change[] = [putDrawer(part, { ...drawer, opener: key })];
  if (opener === null && screen) {
    const within = parentOf(screen.root, part) ?? screen.root;
    const before = within.children.findIndex((child) => child.key === part) - 1;
    changes.push(
      putAdded(key, {
        kind: 'button',
        text: drawer.name,
        screen: screen.key,
        within: within.key,
        ...(within.children[before] ? { after: within.children[before].key } : {}),
      }),
      putEdit(editKey(key, 'display', { kind: 'from', width: drawer.below + 1 }), 'none'),
      // Whatever it stands in, it is no wider than its text.
      putEdit(editKey(key, 'align-self'), 'flex-start'),
      putEdit(editKey(key, 'justify-self'), 'start'),
    );
  }
  changes.push(
    putInteraction(key, {
      on: 'press',
      target: { kind: 'drawer', element: part },
      arrival: { kind: 'none' },
    }),
  );
  return all(changes);
}

function parentOf(root: Element, key: string): Element | null {
  for (const child of root.children) {
    if (child.key === key) return root;
    const found = parentOf(child, key);
    if (found) return found;
  }
  return null;
}

/** The change that makes a part no drawer any more; a button that was added to open it goes, too. */
export function undrawerChange({ app }: Project, part: string): Change {
  const opener = app.drawers[part]?.opener;
  if (!opener) return putDrawer(part, null);
  const edits = Object.keys(app.edits).filter((key) => parseEditKey(key)?.element === opener);
  return all([
    putDrawer(part, null),
    putInteraction(opener, null),
    ...(app.added[opener] ? [putAdded(opener, null), ...edits.map((key) => putEdit(key, null))] : []),
  ]);
}
