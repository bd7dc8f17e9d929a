import { type App, type Design, recordsOf } from '@tovel/core';
import { counted } from '../ui/counted';
import type { Shown } from './CollectionShown';
import type { DataItem } from './DataList';

interface Seen {
  readonly design: Design;
  readonly app: App;
  /** Collections, those that are taken first. */
  readonly shown: readonly Shown[];
  /** How many forms, texts that say what is so, and controls there are. */
  readonly forms: number;
  readonly texts: number;
  readonly controls: number;
  /** How many proposals there are of what described APIs give. */
  readonly calls: number;
}

/** What is listed of the data of a project; what is nowhere to be seen is not listed. */
export function dataItems({ design, app, shown, forms, texts, controls, calls }: Seen): DataItem[] {
  const variables = Object.keys(app.variables).length;
  const bound = Object.keys(app.bindings).length;
  return [
    ...shown.map(({ id, collection, proposal }): DataItem => ({
      id,
      group: proposal ? 'Proposed, the surest first' : 'Collections',
      name: collection.name,
      says: counted(recordsOf(design, collection).length, 'record'),
      mark: proposal ? 'proposed' : 'taken',
    })),
    {
      id: 'variables',
      group: 'What the app remembers',
      name: 'Variables',
      says: String(variables || 'none yet'),
      mark: variables ? 'taken' : 'seen',
    },
    ...(forms ? [seen('forms', 'Forms', forms)] : []),
    ...(texts || bound ? [seen('texts', 'Texts', Math.max(texts, bound))] : []),
    ...(controls ? [seen('controls', 'Controls', controls)] : []),
    ...(shown.length ? [apisItem(Object.keys(app.apis).length, calls)] : []),
  ];
}

const apisItem = (apis: number, proposals: number): DataItem => ({
  id: 'apis',
  group: 'Where records come from',
  name: 'Described APIs',
  says: apis ? String(apis) : 'none yet',
  mark: proposals ? 'proposed' : apis ? 'taken' : 'seen',
});

const seen = (id: string, name: string, count: number): DataItem => ({
  id,
  group: 'Seen on the screens',
  name,
  says: String(count),
  mark: 'seen',
});
