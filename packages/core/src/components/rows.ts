import { inferRoles } from '../roles/infer.ts';
import { type Run, runsIn, shapeOf } from '../roles/shape.ts';
import { isCode, isInCode, rootOf, type Sight, sightOf } from '../roles/sight.ts';
import type { Element, Screen } from '../model/design.ts';
import { isSmall } from '../roles/called.ts';
import { sizeOf } from './groups.ts';
import { isEntryWithList, namesOf } from './names.ts';
import { idOf, type Named } from './proposal.ts';

/** The lists of a screen: rows that repeat within one element. */
export function listsOf(screen: Screen): Named[] {
  const { all } = sightOf(screen);
  const guesses = inferRoles(screen);
  const found: Named[] = [];
  const used = new Set<string>();
  for (const parent of all) {
    if (parent.element.hidden || isWithin(parent, used) || isCode(parent) || isInCode(parent)) continue;
    for (const run of runsOf(parent, guesses)) {
      const places = run.items.map((item) => item.element.key);
      if (places.some((key) => used.has(key)) || areGroups(run.items)) continue;
      const size = sizeOf(run.items[0].element);
      places.forEach((key) => used.add(key));
      const areItems = run.items.every((item) =>
        ['listitem', 'row'].includes(guesses.get(item.element.key)?.role ?? ''),
      );
      found.push({
        id: idOf('list', places),
        kind: 'list',
        ...namesOf(run.items[0], 'list', run.items),
        places,
        within: parent.element.key,
        saves: (places.length - 1) * size,
        confidence: Math.min(0.95, (areItems ? 0.75 : 0.55) + 0.03 * places.length),
        reason: `${places.length} rows of one kind stand ${run.axis === 'y' ? 'beneath each other' : run.axis === 'x' ? 'side by side' : 'in a grid'}`,
      });
    }
  }
  return found;
}

/**
 * Lists on several screens whose rows are built and called the same are one list with several runs.
 * @param sights all elements of the screens, by key
 * @param isStrict whether all rows of them have to be built the same, not only their first
 */
export function sameRows(
  lists: readonly Named[],
  sights: ReadonlyMap<string, Sight>,
  isStrict: boolean,
): Named[] {
  const merged = new Map<string, Named[]>();
  for (const list of lists) {
    const [key] = list.places;
    const first = sights.get(key)!;
    // Rows of tables have as many cells as they have, however alike the cells are.
    const cells = first.element.tag === 'tr' ? first.children.length : 0;
    const shapes = isStrict
      ? [...new Set(list.places.map((place) => shapeOf(sights.get(place)!.element)))].sort().join()
      : shapeOf(first.element);
    // The same in another size is the same, unless it proves to be something else.
    const size = isStrict ? first.fontSize : '';
    const form = `${list.name} ${shapes} ${size} ${cells}`;
    merged.set(form, [...(merged.get(form) ?? []), list]);
  }
  return [...merged.values()].map((group) => {
    if (group.length === 1) return group[0];
    const places = group.flatMap((list) => list.places);
    return {
      ...group[0],
      id: idOf('list', places),
      places,
      saves: group.reduce((sum, list) => sum + list.saves, 0),
      reason: `${group.length} lists on ${new Set(places.map((key) => rootOf(sights.get(key)!))).size} screens have rows of one kind`,
    };
  });
}

/** A row of a list may hold a list of its own, but not a cell of a row. */
const isWithin = (sight: Sight, used: ReadonlySet<string>): boolean => {
  for (let at: Sight | null = sight; at; at = at.parent)
    if (used.has(at.element.key)) return at === sight ? sizeOf(at.element) < 6 : false;
  return false;
};

function runsOf(parent: Sight, guesses: ReturnType<typeof inferRoles>): Run[] {
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const own = roleOf(parent);
  if (['button', 'link', 'textbox', 'combobox', 'row', 'chart', 'heading', 'paragraph'].includes(own))
    return [];
  // What lists itself as such is one list, however its items differ.
  const items = parent.children.filter((child) => roleOf(child) === 'listitem' && !child.element.hidden);
  if (items.length >= 2 && (own === 'list' || items.length >= parent.children.length * 0.5))
    return items.some((item) => item.children.length > 0 || item.text !== '')
      ? [{ parent, items, axis: axisOf(items) }]
      : [];
  const rows = parent.children.filter((child) => roleOf(child) === 'row');
  const body = rows.filter((row) => !row.children.every((cell) => roleOf(cell) === 'columnheader'));
  if (body.length >= 2) return [{ parent, items: body, axis: 'y' }];
  if (own === 'table') return [];
  return runsIn(parent, 3).filter(({ items: run }) => {
    const [first] = run;
    if (first.element.kind !== 'box') return false;
    if (
      run.every((item) =>
        [
          'button',
          'textbox',
          'separator',
          'radio',
          'checkbox',
          'cell',
          'columnheader',
          'heading',
          'paragraph',
        ].includes(roleOf(item)),
      )
    )
      return false;
    if (run.every((item) => item.children.some((child) => ['textbox', 'combobox'].includes(roleOf(child)))))
      return false;
    return (
      run.every((item) => contents(item) >= 2) || (run.length >= LEAST_PICTURES && run.every(holdsPicture))
    );
  });
}

/** Whether rows are groups that hold more entries here than there: no record has such fields. */
const areGroups = (items: readonly Sight[]): boolean =>
  items.every(isEntryWithList) && new Set(items.map(({ element }) => sizeOf(element))).size > 1;

/** So many pictures or drawings in frames are a gallery. */
const LEAST_PICTURES = 4;

const holdsPicture = (sight: Sight): boolean =>
  sight.children.some(
    (child) => child.element.kind === 'image' || isDrawing(child.element) || holdsPicture(child),
  );

/** Icons are signs of something, drawings are something. */
const isDrawing = (element: Element): boolean => element.kind === 'vector' && !isSmall(element);

const contents = (sight: Sight): number =>
  sight.children.length
    ? sight.children.reduce((sum, child) => sum + contents(child), sight.hasOwnText ? 1 : 0)
    : sight.hasOwnText || sight.element.kind !== 'box'
      ? 1
      : 0;

const axisOf = (items: readonly Sight[]): Run['axis'] => {
  const boxes = items.map((item) => item.element.box);
  if (boxes.every((box, i) => i === 0 || box.y >= boxes[i - 1].y + boxes[i - 1].height - 2)) return 'y';
  return boxes.every((box, i) => i === 0 || box.x >= boxes[i - 1].x + boxes[i - 1].width - 2) ? 'x' : 'grid';
};
