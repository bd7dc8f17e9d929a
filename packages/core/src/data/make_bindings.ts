import { all, applyChange, type Change, putBinding } from '../change/change.ts';
import { valueOf, shown as said, type Scope } from '../expression/value_of.ts';
import type { Expression } from '../expression/expression.ts';
import type { KnownNames } from '../expression/language.ts';
import type { App } from '../model/app.ts';
import { camelCase, uniqueCodeName } from '../model/names.ts';
import { findElement } from '../model/places.ts';
import { hostOf, type Project, textOf } from '../model/project.ts';
import { recordsOf } from '../records/records.ts';
import type { BindingProposal } from './bindings.ts';
import { takeCollection } from './make_work.ts';
import type { DataProposals } from './propose.ts';

/** A text that is to say what is worked out. */
export interface MadeBinding {
  readonly proposal: BindingProposal;
  /** The expression that it says. */
  readonly source: string;
}

/**
 * Lets texts say what they count: the numbers in them become expressions over the collections that they are about, which are
 * taken along. What is proposed of single records stays as it was drawn.
 */
export function makeBindings(
  project: Project,
  { collections }: Pick<DataProposals, 'collections'>,
  proposals: readonly BindingProposal[],
): { readonly change: Change | null; readonly app: App; readonly made: readonly MadeBinding[] } {
  let { app } = project;
  const changes: Change[] = [];
  const made: MadeBinding[] = [];
  const put = (change: Change): void => {
    changes.push(change);
    app = applyChange(app, change);
  };
  for (const proposal of proposals) {
    const [, , of = ''] = /^(count|range)\((\w+)\)$/.exec(proposal.shows) ?? [];
    const found = collections.find(({ name }) => name === of);
    const element = findElement(project.design, proposal.element);
    if (!found || !element || app.bindings[proposal.element]) continue;
    const rows = new Set(found.places.flatMap((place) => place.rows));
    let id = Object.keys(app.collections).find((key) =>
      app.collections[key].rows.some((row) => rows.has(row.element)),
    );
    if (id === undefined) {
      const taken = takeCollection({ ...project, app }, found);
      put(taken.change);
      id = taken.id;
    }
    const isHere = app.collections[id].rows.some((row) => hostOf(project, row.element) === proposal.screen);
    const source = sourceOf(textOf(element), app.collections[id].name, isHere);
    if (source === null) continue;
    put(putBinding(proposal.element, { text: source }));
    made.push({ proposal, source });
  }
  return { change: changes.length ? all(changes) : null, app, made };
}

/** A text with its numbers as what they count; null where it has none. */
function sourceOf(text: string, collection: string, hasList: boolean): string | null {
  const number = String.raw`\d[\d.,]*`;
  const call = (name: string): string => `\${${name}(${collection})}`;
  const range = new RegExp(
    `(${number})(\\s*(?:to|-|–|—)\\s*)(${number})(\\s+(?:of|from)\\s+)(${number})`,
  ).exec(text);
  const part = new RegExp(`(${number})(\\s+(?:of|from)\\s+)(${number})`).exec(text);
  const one = new RegExp(number).exec(text);
  const found = hasList ? 'found' : 'count';
  const [match, made] = range
    ? [range, hasList ? call('firstShown') + range[2] + call('lastShown') + range[4] + call(found) : null]
    : part
      ? [part, hasList ? call('lastShown') + part[2] + call(found) : call('count') + part[2] + call('count')]
      : one
        ? [one, call('count')]
        : [null, null];
  if (!match || made === null) return null;
  const plain = (piece: string): string => piece.replace(/[\\`]|\$(?=\{)/g, '\\$&');
  return `\`${plain(text.slice(0, match.index))}${made}${plain(text.slice(match.index + match[0].length))}\``;
}

/** What expressions on a screen can speak of. */
export function expressionNames(project: Project, screen: string): KnownNames {
  const { app } = project;
  const all = Object.values(app.collections);
  return {
    collections: Object.fromEntries(all.map(({ name, fields }) => [name, fields])),
    conditions: conditionNames(app),
    lists: Object.fromEntries(
      all.flatMap(({ name, rows }) =>
        rows.some(({ element }) => hostOf(project, element) === screen) ? [[name, { name, hook: name }]] : [],
      ),
    ),
  };
}

function conditionNames({ conditions }: App): string[] {
  const names = new Set<string>();
  for (const id of Object.keys(conditions).sort())
    names.add(uniqueCodeName(camelCase(conditions[id].name), 'condition', (one) => names.has(one)));
  return [...names];
}

/** What an expression says with the records as they were drawn, all of them on one page. */
export function saidAtFirst({ design, app }: Project, expression: Expression): string {
  const names = conditionNames(app);
  const ids = Object.keys(app.conditions).sort();
  const records = Object.fromEntries(
    Object.values(app.collections).map((collection) => [
      collection.name,
      recordsOf(design, collection).map(({ values }) =>
        Object.fromEntries(Object.entries(values).map(([name, { text }]) => [name, text])),
      ),
    ]),
  );
  const scope: Scope = {
    records,
    variables: Object.fromEntries(names.map((name, i) => [name, app.conditions[ids[i]].initial])),
    listings: Object.fromEntries(
      Object.entries(records).map(([name, { length }]) => [
        name,
        (asks: string) => (asks === 'first' ? Math.min(1, length) : /^pages?$/.test(asks) ? 1 : length),
      ]),
    ),
  };
  return said(valueOf(expression, scope));
}
