import type { Interaction, TableEntry, TableName } from '../model/app.ts';
import { describeTarget } from '../links/target.ts';
import type { Project } from '../model/project.ts';
import type { Decided } from './decided.ts';

/** What entries of a table are, in words. */
const WORDS: Partial<Record<TableName, string>> = {
  still: 'does nothing',
  layers: 'what it is',
  edits: 'a change of its look or text',
  regions: 'a region',
  added: 'an added control',
  drawers: 'a drawer',
  disclosures: 'a part that opens and closes',
  components: 'a place of a component',
  collections: 'a record',
  journeys: 'a step of a journey',
  screens: 'the panel of an overlay',
  interactions: 'where something leads',
};

const wordsOf = (project: Project, { table, value }: TableEntry, isOwn: boolean): string =>
  table === 'interactions' && isOwn
    ? `leads to ${describeTarget(project, (value as Interaction).target).label}`
    : (WORDS[table as TableName] ?? table);

/** What entries say that are about one element, in one line. */
export const describeEntries = (project: Project, entries: readonly TableEntry[]): string =>
  describeDecided(project, { own: entries, named: [], minor: [] });

/** What was decided about an element, in one line. */
export function describeDecided(project: Project, { own, named }: Decided): string {
  const words = [
    ...own.map((entry) => wordsOf(project, entry, true)),
    ...named.map((entry) => wordsOf(project, entry, false)),
  ];
  return [...new Set(words)].join(', ');
}
