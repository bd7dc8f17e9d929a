import {
  all,
  applyChange,
  type Change,
  putCollection,
  putComponent,
  putInteraction,
} from '../change/change.ts';
import type { Collection, Interaction } from '../model/app.ts';
import { elementOfInteraction, numberOfInteraction } from '../model/interaction.ts';
import { alignPlaces } from '../components/align.ts';
import { pascalCase, recordName, uniqueName } from '../model/names.ts';
import { containersOf, findElement } from '../model/places.ts';
import { type Project } from '../model/project.ts';
import type { CollectionProposal } from './collections.ts';
import { takenCollection } from './records.ts';

/** A collection as it is taken: under a name that is free, with its rows as lists of their own. */
export function takeCollection(
  project: Project,
  proposal: CollectionProposal,
): { readonly id: string; readonly change: Change } {
  const id = uniqueName(proposal.name, (one) => project.app.collections[one] !== undefined, '');
  const collection = { ...takenCollection(proposal), name: id };
  const lists = all([putCollection(id, collection), ...rowsAsLists(project, collection)]);
  const app = applyChange(project.app, lists);
  return { id, change: all([lists, ...rowsAlike({ ...project, app }, collection)]) };
}

/** Rows of a collection are places of one list, as far as nothing else is said of them. */
function rowsAsLists({ app }: Project, { name, rows }: Collection): Change[] {
  const inComponent = new Map(
    Object.entries(app.components).flatMap(([id, { places }]) => places.map((place) => [place, id] as const)),
  );
  const changes: Change[] = [];
  const keys = rows.map(({ element }) => element);
  for (const id of new Set(keys.flatMap((key) => inComponent.get(key) ?? []))) {
    const component = app.components[id];
    if (component.kind !== 'list' && component.places.every((place) => keys.includes(place)))
      changes.push(putComponent(id, { ...component, kind: 'list' }));
  }
  const free = [...new Set(rows.map(({ within }) => within))].map((within) =>
    rows.flatMap((row) => (row.within === within && !inComponent.has(row.element) ? [row.element] : [])),
  );
  const ids = new Set(Object.keys(app.components));
  const names = new Set(Object.values(app.components).map((component) => component.name));
  for (const places of free) {
    if (places.length < 2) continue;
    const id = uniqueName(`rows-of-${name}`, (one) => ids.has(one));
    const called = uniqueName(`${pascalCase(recordName(name))} row`, (one) => names.has(one), ' ');
    ids.add(id);
    names.add(called);
    changes.push(putComponent(id, { name: called, kind: 'list', places }));
  }
  return changes;
}

/** What some rows of a list do counts for all of them, where those that do something do the same. */
function rowsAlike({ design, app }: Project, { rows }: Collection): Change[] {
  const listed = new Set(rows.map(({ element }) => element));
  const rowOf = (key: string): string | undefined =>
    listed.has(key) ? key : [...containersOf(design, key)].find((one) => listed.has(one));
  const own = new Map<string, { key: string; element: string }[]>();
  for (const key of Object.keys(app.interactions)) {
    const element = elementOfInteraction(key);
    const row = numberOfInteraction(key) === 1 ? rowOf(element) : undefined;
    if (row !== undefined) own.set(row, [...(own.get(row) ?? []), { key, element }]);
  }
  const groups = new Map<string, string[]>();
  for (const { places } of Object.values(app.components)) {
    const first = places.find((place) => listed.has(place));
    const model = first === undefined ? null : findElement(design, first);
    if (!model) continue;
    for (const place of places) {
      const at = findElement(design, place);
      if (!at || !own.has(place)) continue;
      const there = alignPlaces(at, model);
      for (const { key, element } of own.get(place)!) {
        const same = element === place ? model.key : there.get(element);
        if (same !== undefined) groups.set(same, [...(groups.get(same) ?? []), key]);
      }
    }
  }
  return [...groups.values()].flatMap((keys): Change[] => {
    const said = keys.map((key) => app.interactions[key]);
    const isOne = said.every((one) => JSON.stringify(goalOf(one)) === JSON.stringify(goalOf(said[0])));
    return isOne && !said.some(({ everywhere }) => everywhere)
      ? [putInteraction(keys[0], { ...said[0], everywhere: true })]
      : [];
  });
}

/** Where an interaction leads, whatever a row gives on the way. */
const goalOf = ({ on, target }: Interaction): unknown =>
  target.kind === 'screen' ? [on, target.screen] : [on, target];
