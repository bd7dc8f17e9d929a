import { parseExpression } from '../expression/language.ts';
import type { App, Collection, RecordDeed, Target } from '../model/app.ts';
import { recordName, recordVariable } from '../model/names.ts';
import type { Project } from '../model/project.ts';
import { type DeedPlace, deedNames, readDeed, rowCollectionOf } from '../records/deeds.ts';

type RecordTarget = Extract<Target, { readonly kind: 'record' }>;

/** A collection that a word means: `loan`, `Loans`, `to loans`. */
function collectionCalled({ collections }: App, word: string): [string, Collection] | null {
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const meant = plain(word.replace(/^(an?|one|the|to|all)\s+/i, ''));
  return (
    Object.entries(collections).find(
      ([, { name }]) => plain(name) === meant || plain(recordName(name)) === meant,
    ) ?? null
  );
}

/**
 * What people type to do something to records: `add loan`, `add loan with due = 'today'`, `remove loan`,
 * `remove tools where tool.name === loan.name`, `set status to out`, `set status of tools to out where …`.
 * @returns null where that is not what is typed, or no collection is called so; what is wrong with it, where it cannot be done
 */
export function typedDeed(
  project: Project,
  place: DeedPlace,
  typed: string,
): { readonly target: RecordTarget; readonly problem: string | null } | null {
  const words = typed.trim().replace(/\s+/g, ' ');
  const made = adding(project, place, words) ?? removing(project, words) ?? setting(project, place, words);
  return made && { target: made, problem: readDeed(project, made, place).problem ?? null };
}

const target = (collection: string, deed: RecordDeed): RecordTarget => ({ kind: 'record', collection, deed });

function adding(project: Project, place: DeedPlace, words: string): RecordTarget | null {
  const [, name, given] = /^add (.+?)(?: (?:with|saying) (.+))?$/i.exec(words) ?? [];
  const found = name ? collectionCalled(project.app, name) : null;
  if (!found) return null;
  const [id, collection] = found;
  const form = Object.entries(project.app.forms).find(([, one]) => one.submit === place.element)?.[0];
  const says = given === undefined ? alike(project, place, collection, form) : saidOf(given);
  if (!says || (form === undefined && !Object.keys(says).length)) return null;
  return target(id, {
    kind: 'add',
    ...(form === undefined ? {} : { form }),
    ...(Object.keys(says).length ? { says } : {}),
  });
}

/** What the record that is at hand says in fields that are called alike, and that no form asks for. */
function alike(
  project: Project,
  { screen, element }: DeedPlace,
  collection: Collection,
  form: string | undefined,
): Record<string, string> {
  const { app } = project;
  const row = element === undefined ? null : rowCollectionOf(project, element);
  const hand = app.collections[row ?? app.details[screen]?.collection ?? ''];
  if (!hand || hand === collection) return {};
  const asked = new Set(form === undefined ? [] : app.forms[form].fields.map(({ field }) => field));
  const known = new Set(hand.fields.map(({ name }) => name));
  const self = recordVariable(hand.name);
  return Object.fromEntries(
    collection.fields.flatMap(({ name }) =>
      known.has(name) && !asked.has(name) ? [[name, `${self}.${name}`]] : [],
    ),
  );
}

/** `name = tool.name, due = 'today'`; null where it is not that. */
function saidOf(text: string): Record<string, string> | null {
  const says: Record<string, string> = {};
  for (const part of text.split(/,(?=\s*[a-z]\w*\s*=(?!=))/i)) {
    const [, name, source] = /^\s*([a-z]\w*)\s*=(?!=)\s*(.+?)\s*$/i.exec(part) ?? [];
    if (!name) return null;
    says[name] = source;
  }
  return says;
}

function removing(project: Project, words: string): RecordTarget | null {
  const [, name, where] = /^remove (.+?)(?: where (.+))?$/i.exec(words) ?? [];
  const found = name ? collectionCalled(project.app, name) : null;
  return found && target(found[0], { kind: 'remove', ...(where === undefined ? {} : { where }) });
}

function setting(project: Project, place: DeedPlace, words: string): RecordTarget | null {
  const [, field, of, to, where] =
    /^set ([a-z]\w*)(?: of (.+?))? to (.+?)(?: where (.+))?$/i.exec(words) ?? [];
  if (!field) return null;
  const { app } = project;
  const own = place.element === undefined ? null : rowCollectionOf(project, place.element);
  const id = of
    ? collectionCalled(app, of)?.[0]
    : [own, app.details[place.screen]?.collection].find(
        (one) => !!one && app.collections[one]?.fields.some(({ name }) => name === field),
      );
  if (!id) return null;
  // What is written as an expression is one; words that are none stand for themselves.
  const isSaid =
    !/^[\p{L}\p{N} ,·–-]+$/u.test(to) || parseExpression(to, deedNames(project, place)).problem === undefined;
  return target(id, {
    kind: 'set',
    field,
    ...(isSaid ? { says: to } : { value: to }),
    ...(where === undefined ? {} : { where }),
  });
}
