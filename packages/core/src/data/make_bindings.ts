import { all, applyChange, type Change, putBinding, putLayer } from '../change/change.ts';
import type { App, Collection } from '../model/app.ts';
import { recordVariable } from '../model/names.ts';
import { titleField } from '../records/records.ts';
import { findElement } from '../model/places.ts';
import { hostOf, type Project, textOf } from '../model/project.ts';
import { screensOfBar } from './bars.ts';
import type { BindingProposal } from './bindings.ts';
import { printFigure } from './figures.ts';
import type { DataProposals } from './propose.ts';
import { byReach, heldBy, isOfRecord, type MadeBinding, recordOn } from './record_screens.ts';

/**
 * Lets texts say what they count: the numbers in them become expressions over the collections that they are about, which are
 * taken along; and screens of one record show the one that their address says.
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
  // What many screens have around them is about none of their records.
  const ofRecords = proposals.filter((one) => isOfRecord(one) && !screensOfBar(project, one.element).size);
  for (const [screen, said] of byReach(project, collections, ofRecords))
    if (!app.details[screen]) made.push(...recordOn({ ...project, app }, collections, screen, said, put));
  for (const proposal of proposals) {
    const [, shows, named = ''] = /^(count|range|chart)\((\w+)\)$/.exec(proposal.shows) ?? [];
    const { figure } = proposal;
    const of = figure?.of ?? named;
    const found = collections.find(({ name }) => name === of);
    const element = findElement(project.design, proposal.element);
    if (!found || !element || app.bindings[proposal.element]) continue;
    const { id } = heldBy({ ...project, app }, found, put);
    const isHere = app.collections[id].rows.some((row) => hostOf(project, row.element) === proposal.screen);
    if (shows === 'chart') {
      const drawn = drawnBy({ ...project, app }, app.collections[id], proposal.by);
      if (!drawn) continue;
      if (app.layers[proposal.element]?.role !== 'chart')
        put(putLayer(proposal.element, { ...app.layers[proposal.element], role: 'chart' }));
      put(putBinding(proposal.element, drawn));
      made.push({ proposal, source: drawn.values });
      continue;
    }
    const { name: inApp } = app.collections[id];
    const source = figure
      ? figureSource(textOf(element), printFigure(figure, inApp))
      : sourceOf(textOf(element), inApp, isHere);
    if (source === null) continue;
    put(putBinding(proposal.element, { text: source }));
    made.push({ proposal, source });
  }
  return { change: changes.length ? all(changes) : null, app, made };
}

/**
 * What a chart of a collection draws: how many records say the same in the field that it is parted by; where nothing says by which,
 * a number that each of them says; where they say none, how many say the same in a field that is one of some. Null where neither is.
 */
function drawnBy(
  { design }: Project,
  collection: Collection,
  by: string | undefined,
): { readonly labels: string; readonly values: string } | null {
  const { name, fields } = collection;
  const one = recordVariable(name);
  const said = (field: string): string => `map(${name}, (${one}) => ${one}.${field})`;
  const parted = by === undefined ? undefined : fields.find((field) => isParted(field, by));
  const size = fields.find(({ type }) => /^(number|money|percent)$/.test(type));
  const title = titleField(design, collection);
  if (!parted && size && title && title.name !== size.name)
    return { labels: said(title.name), values: said(size.name) };
  const kind = parted ?? fields.find(({ type }) => type === 'one-of');
  if (!kind) return null;
  const labels = `unique(${said(kind.name)})`;
  return {
    labels,
    values: `map(${labels}, (text) => count(filter(${name}, (${one}) => ${one}.${kind.name} === text)))`,
  };
}

/** Whether a field is what a word means: it is called so, or is a day. */
function isParted({ name, label = '', type }: Collection['fields'][number], by: string): boolean {
  if (/^(day|date)s?$/.test(by) && type === 'date') return true;
  return type !== 'picture' && (name.toLowerCase() === by || label.toLowerCase() === by);
}

/** Signs of currencies, each with its three letters. */
const CURRENCIES: Readonly<Record<string, string>> = {
  '€': 'EUR',
  '£': 'GBP',
  $: 'USD',
  '¥': 'JPY',
  '₹': 'INR',
};

/** A figure that is written as it is drawn: as money, with its thousands parted, or bare. */
function figureSource(text: string, figure: string): string {
  const sign = Object.keys(CURRENCIES).find((one) => text.includes(one));
  const code = sign === undefined ? /\b[A-Z]{3}\b/.exec(text)?.[0] : CURRENCIES[sign];
  if (code !== undefined) return `formatMoney(${figure}, '${code}')`;
  return /\d[,.' ]\d{3}/.test(text) ? `formatNumber(${figure})` : figure;
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
