import { type Put, putBinding, putEdit, putLayer } from '../change/change.ts';
import type { App, Layer, TableName, Tables } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { editKey } from '../model/edit_key.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { screenOf } from '../model/places.ts';
import { type Project, screensByKey, walkElements } from '../model/project.ts';
import { quoted } from '../variables/settings.ts';
import type { Found, Rule } from './finding.ts';
import { keyIn } from './key_in_text.ts';
import { onceFor } from '../json/once_for.ts';

type Fix = NonNullable<Found['fix']>;

/** What stands where a key was. */
const INSTEAD = 'YOUR_KEY';
const INSTEAD_OF_IT = `Write ${INSTEAD} instead`;
/** A key, so that somebody knows which one is meant and nobody can take it. */
const shortened = (key: string): string => `${key.slice(0, 4)}…${key.slice(-2)}`;

const messageOf = (where: string, key: string): string =>
  `${where} holds what looks like a key (${shortened(key)}). All that is delivered can be read by everybody: keep it in the environment, and let it be given anew.`;

/** Attributes that are delivered as they are written. */
const ATTRIBUTES = ['value', 'placeholder', 'href', 'title', 'aria-label', 'alt', 'content'] as const;

/** What mends a key in an attribute: what is said instead, where something can be, else the element is left out. */
function mendOf(
  element: Element,
  name: (typeof ATTRIBUTES)[number],
  without: string,
  layer: Layer = {},
): Fix {
  const { key } = element;
  if (name === 'aria-label' || name === 'alt')
    return { label: INSTEAD_OF_IT, change: putLayer(key, { ...layer, label: without }) };
  if (name === 'value' && element.tag === 'input' && element.attributes?.type !== 'hidden')
    return { label: INSTEAD_OF_IT, change: putBinding(key, { value: quoted(without) }) };
  return { label: 'Leave it out', change: putLayer(key, { ...layer, show: false }) };
}

/** A key that an element of a screen holds, and what it says without it. */
interface Held {
  readonly element: Element;
  readonly at: 'text' | (typeof ATTRIBUTES)[number];
  readonly key: string;
  readonly without: string;
}

/** What texts and attributes of a screen hold; worked out once per screen value, since findings are after every step. */
const heldOn = onceFor((screen: Screen): readonly Held[] => findHeld(screen));

function findHeld(screen: Screen): Held[] {
  const found: Held[] = [];
  const look = (element: Element, at: Held['at'], text: string | undefined): void => {
    const key = keyIn(text ?? '');
    if (key) found.push({ element, at, key, without: text!.replaceAll(key, INSTEAD) });
  };
  walkElements(screen.root, (element) => {
    look(element, 'text', element.text);
    for (const name of ATTRIBUTES) look(element, name, element.attributes?.[name]);
    return true;
  });
  return found;
}

function secretsOn(screen: Screen, app: App): Found[] {
  return heldOn(screen).flatMap(({ element, at, key, without }): Found[] => {
    if (isSaidAnew(element.key, at, app)) return [];
    const fix =
      at === 'text'
        ? { label: INSTEAD_OF_IT, change: putEdit(editKey(element.key, 'text'), without) }
        : mendOf(element, at, without, app.layers[element.key]);
    const message = messageOf(at === 'text' ? 'A text' : `Its ${at}`, key);
    return [{ screen: screen.key, element: element.key, about: at, message, fix }];
  });
}

/** Whether something else is delivered than the attribute that was drawn. */
function isSaidAnew(key: string, at: Held['at'], { bindings, interactions, layers }: App): boolean {
  switch (at) {
    case 'value':
      return bindings[key]?.value !== undefined;
    case 'href':
      return interactions[key] !== undefined;
    case 'aria-label':
    case 'alt':
      return layers[key]?.label !== undefined;
    default:
      return false;
  }
}

/** What people said, by the table that it is kept in, and how it is spoken of. */
const SAID = {
  interactions: () => 'What it does',
  bindings: () => 'What it shows',
  layers: () => 'What it is called',
  forms: () => 'Its form',
  variables: ({ name }) => `The variable “${name}”`,
  collections: ({ name }) => `The collection ${name}`,
  apis: ({ name }) => `The description of ${name}`,
  journeys: ({ name }) => `The journey “${name}”`,
  redirects: () => 'A path that leads on',
  handWritten: (_, path) => `What was written by hand into ${path}`,
} as const satisfies { readonly [T in TableName]?: (entry: Tables[T], key: string) => string };
const OF_ELEMENTS: ReadonlySet<string> = new Set(['interactions', 'bindings', 'layers', 'forms']);

/** The first key in what an entry of a table says; looked for once per entry. */
function keyOfEntry(entry: unknown): string | null {
  if (typeof entry === 'string') return keyIn(entry);
  return typeof entry === 'object' && entry !== null ? keyWithin(entry) : null;
}

const keyWithin = onceFor((entry: object): string | null =>
  Object.values(entry).reduce((found: string | null, one) => found ?? keyOfEntry(one), null),
);

/** A value with something else wherever it says a text. */
function replaced<T>(value: T, text: string): T {
  if (typeof value === 'string') return value.replaceAll(text, INSTEAD) as T;
  if (Array.isArray(value)) return value.map((one: unknown) => replaced(one, text)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, replaced(one, text)])) as T;
}

/** What was said at the stations and holds a key. */
function secretsSaid({ design, app }: Project): Found[] {
  const tables = Object.keys(SAID) as (keyof typeof SAID)[];
  return tables.flatMap((table) =>
    Object.entries(app[table]).flatMap(([id, entry]): Found[] => {
      const key = keyOfEntry(entry);
      if (!key) return [];
      const element = OF_ELEMENTS.has(table) ? elementOfInteraction(id) : null;
      const where = (SAID[table] as (entry: unknown, key: string) => string)(entry, id);
      const change = { kind: 'put', table, key: id, value: replaced(entry, key) } as Put;
      return [
        {
          screen: element ? screenOf(design, element) : null,
          element,
          about: `${table} ${id}`,
          message: messageOf(where, key),
          fix: { label: INSTEAD_OF_IT, change },
        },
      ];
    }),
  );
}

export const secretRules: readonly Rule[] = [
  {
    code: 'secret',
    level: 'error',
    station: 'map',
    title: 'Keys in what is delivered',
    find: ({ project, graph }) => {
      const screens = screensByKey(project.design);
      return [
        ...graph.screens.flatMap((key) => secretsOn(screens.get(key)!, project.app)),
        ...secretsSaid(project),
      ];
    },
  },
];
