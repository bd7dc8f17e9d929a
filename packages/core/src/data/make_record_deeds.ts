import { all, type Change } from '../change/change.ts';
import type { RecordDeed, Target } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { recordName } from '../model/names.ts';
import { containersOf, isWithin, screenOf } from '../model/places.ts';
import type { Project } from '../model/project.ts';
import { titleField } from '../records/records.ts';
import type { ActionProposal } from './actions.ts';
import type { DataProposals } from './propose.ts';
import { byReach, isOfRecord, recordOn } from './record_screens.ts';
import type { KnownCollection, PlannedDeed } from './work.ts';

type Proposals = Pick<DataProposals, 'collections'> & Partial<Pick<DataProposals, 'bindings'>>;

/** What removes the record of its row, or the one that its screen shows; in words why it does not. */
export function removal(
  project: Project,
  known: readonly KnownCollection[],
  proposals: Proposals,
  { screen, element, label }: ActionProposal,
): PlannedDeed | string {
  const remove = { kind: 'remove' } as const;
  const ofRow = inRow(project, known, element, remove);
  if (ofRow) return ofRow;
  const shown = shownOn(project, known, proposals, screen);
  if (!shown) return 'it stands in no row of records, and its screen shows none';
  const { id, name } = shown;
  if (!saysRecord(label, name)) return `whether it removes the ${recordName(name)} is to be said at Junction`;
  // Where it was nothing is left to see.
  const list = known
    .find((one) => one.id === id)
    ?.collection.rows.map((row) => screenOf(project.design, row.element))
    .find((key) => key !== screen);
  const step: Target = { kind: 'record', collection: id, deed: remove };
  return {
    ...(shown.along ? { along: shown.along } : {}),
    interaction: list
      ? { on: 'press', before: [step], target: { kind: 'screen', screen: list }, arrival: { kind: 'none' } }
      : { on: 'press', target: step, arrival: { kind: 'none' } },
  };
}

/** What says of the record of its row, or of its screen, what a field of it is to be. */
export function marking(
  project: Project,
  known: readonly KnownCollection[],
  proposals: Proposals,
  { screen, element, mark }: ActionProposal & { readonly mark: NonNullable<ActionProposal['mark']> },
): PlannedDeed | string {
  const set = { kind: 'set', field: mark.field, value: mark.says } as const;
  const has = ({ collection }: KnownCollection): boolean =>
    collection.fields.some(({ name }) => name === mark.field);
  const ofRow = inRow(project, known.filter(has), element, set);
  if (ofRow) return ofRow;
  const shown = shownOn(project, known, proposals, screen);
  if (!shown) return `no record of ${mark.of} is shown on its screen`;
  return {
    ...(shown.along ? { along: shown.along } : {}),
    interaction: {
      on: 'press',
      target: { kind: 'record', collection: shown.id, deed: set },
      arrival: { kind: 'none' },
    },
  };
}

/** What is done in a row is done in all rows of its list; null where it stands in none. */
function inRow(
  { design, app }: Project,
  known: readonly KnownCollection[],
  element: string,
  deed: RecordDeed,
): PlannedDeed | string | null {
  const around = new Set([element, ...containersOf(design, element)]);
  const of = known.find(({ collection }) => collection.rows.some((row) => around.has(row.element)));
  if (!of) return null;
  const title = titleField(design, of.collection)?.name ?? '';
  const isTitle = of.collection.rows.some(
    ({ shows }) => Object.hasOwn(shows, title) && isWithin(design, shows[title], element),
  );
  if (isTitle) return 'it is what its record is called';
  const rows = new Set(of.collection.rows.map((row) => row.element));
  const sign = JSON.stringify(deed);
  const isSaid = Object.entries(app.interactions).some(
    ([key, { target, everywhere }]) =>
      everywhere &&
      target.kind === 'record' &&
      target.collection === of.id &&
      JSON.stringify(target.deed) === sign &&
      [...containersOf(design, elementOfInteraction(key))].some((one) => rows.has(one)),
  );
  if (isSaid) return 'it does so as that of the first row does';
  return {
    of,
    interaction: {
      on: 'press',
      target: { kind: 'record', collection: of.id, deed },
      arrival: { kind: 'none' },
      everywhere: true,
    },
  };
}

/** The collection whose record a screen shows, which is taken along where nobody has said so yet. */
function shownOn(
  project: Project,
  known: readonly KnownCollection[],
  { collections, bindings = [] }: Proposals,
  screen: string,
): { readonly id: string; readonly name: string; readonly along?: Change } | null {
  const said = project.app.details[screen]?.collection;
  const taken = said === undefined ? undefined : known.find(({ id }) => id === said);
  if (taken) return { id: taken.id, name: taken.collection.name };
  const proposed = byReach(project, collections, bindings.filter(isOfRecord)).find(([key]) => key === screen);
  if (!proposed) return null;
  const changes: Change[] = [];
  const made = recordOn(project, collections, screen, proposed[1], (change) => changes.push(change));
  const [one] = proposed[1][0].shows.split('.');
  const found = known.find(({ collection }) => recordName(collection.name) === one);
  return made.length && found ? { id: found.id, name: found.collection.name, along: all(changes) } : null;
}

/** Whether what goes is the record: nothing else is named. */
function saysRecord(label: string, collection: string): boolean {
  const words = label.toLowerCase().match(/\p{L}+/gu) ?? [];
  const named = words.filter((word) => !NO_THING.test(word));
  const record = recordName(collection).toLowerCase();
  return named.every((word) => record.endsWith(recordName(word)));
}
const NO_THING = /^(delete|remove|trash|discard|bin|this|it|the|permanently|forever|now)$/;
