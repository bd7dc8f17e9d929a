import {
  all,
  type ActionProposal,
  type App,
  applyChange,
  type Change,
  type Collection,
  type DrawnState,
  findDisclosures,
  graphOf,
  kebabCase,
  makeBindings,
  makeForms,
  makeWork,
  type Project,
  proposeData,
  putBinding,
  putCollection,
  putInteraction,
  putScreen,
  putVariable,
  recordsOf,
  type RecordField,
  settle,
  showRecord,
  sortingHeads,
  takeCollection,
  takeState,
  textOf,
  titleField,
  typedWiring,
  type Variable,
  walkElements,
  withRecord,
} from '@tovel/core';

/** What stands behind the screens of a project, in people's words. */
export interface Working {
  /** What the project is called. */
  readonly name: string;
  /** An API that is described by a file of the demo. */
  readonly api?: { readonly name: string; readonly file: string };
  /** Proposed collections by name: what they are called, fields that no screen shows, and records beyond those drawn. */
  readonly collections: Readonly<
    Record<
      string,
      {
        readonly as?: string;
        /** What each record says in the field, by what the record is called. */
        readonly fields?: readonly (RecordField & { readonly says: Readonly<Record<string, string>> })[];
        readonly more?: readonly Readonly<Record<string, string>>[];
      }
    >
  >;
  /** Controls that are made to do what they most likely do, by screen; `*` for all of it. */
  readonly work: Readonly<Record<string, readonly string[]>>;
  /** Screens whose texts say what is proposed of them, and those whose forms are made to work. */
  readonly bindings: readonly string[];
  readonly forms: readonly string[];
  /** Screens that show one record: at which route, by which parameter, and which one where nobody says. */
  readonly details: Readonly<
    Record<
      string,
      {
        readonly collection: string;
        readonly route: string;
        readonly parameter: string;
        readonly like: string;
      }
    >
  >;
  readonly variables: readonly Variable[];
  /** What is typed at Junction, a line each. */
  readonly typed: Readonly<Record<string, readonly string[]>>;
  /** Elements by their texts, and what they show. */
  readonly shows: readonly {
    readonly on: string;
    readonly at: string;
    readonly as: Readonly<Record<string, string>>;
  }[];
  /** Drawings of what a screen shows while its list has nothing to show; they lie beside the screens. */
  readonly states: readonly { readonly drawn: string; readonly of: string; readonly state: DrawnState }[];
  /** Screens that one has to be signed in for, and where one is led otherwise. */
  readonly guards: Readonly<Record<string, { readonly variable: string; readonly otherwise: string }>>;
}

/**
 * The key of the screen that is called so.
 * @throws RangeError where there is none
 */
export function screenCalled({ screens }: App, name: string): string {
  const key = Object.keys(screens).find((one) => screens[one].name === name);
  if (!key) throw new RangeError(`there is no screen "${name}"`);
  return key;
}

/**
 * The change after which a project works as is said.
 * @throws RangeError for a screen, an element, a collection or a line that means nothing
 */
export function workingAs(drawn: Project, working: Working): Change {
  const maker = new Maker(drawn);
  maker.all(working);
  return all(maker.changes);
}

class Maker {
  readonly changes: Change[] = [];
  #app: App;
  readonly #drawn: Project;

  constructor(drawn: Project) {
    this.#drawn = drawn;
    this.#app = drawn.app;
  }

  all(working: Working): void {
    for (const variable of working.variables) this.#do(putVariable(kebabCase(variable.name), variable));
    for (const [name, said] of Object.entries(working.collections)) this.#collect(name, said);
    const data = proposeData(this.#project.design);
    const screens = new Map(
      Object.entries(working.work).map(([name, labels]) => [this.#screen(name), labels]),
    );
    const isWanted = ({ screen, label }: ActionProposal): boolean => {
      const labels = screens.get(screen);
      return labels?.includes('*') === true || labels?.includes(label) === true;
    };
    const actions = data.actions.filter(isWanted);
    this.#make(
      makeWork(this.#project, data, actions, this.#project.design.screens.flatMap(findDisclosures)).change,
    );
    const on = (names: readonly string[]): ReadonlySet<string> =>
      new Set(names.map((name) => this.#screen(name)));
    const [bound, filled] = [on(working.bindings), on(working.forms)];
    this.#make(
      makeForms(
        this.#project,
        data,
        data.forms.filter(({ screen }) => filled.has(screen)),
      ).change,
    );
    this.#make(
      makeBindings(
        this.#project,
        data,
        data.bindings.filter(({ screen }) => bound.has(screen)),
      ).change,
    );
    for (const [name, { collection, route, parameter, like }] of Object.entries(working.details)) {
      const key = this.#screen(name);
      this.#do(showRecord(this.#project, key, { collection, parameter, route, like }));
    }
    for (const [name, lines] of Object.entries(working.typed)) this.#type(name, lines);
    this.#dropUnused();
    for (const { drawn, of, state } of working.states)
      this.#do(takeState(this.#app, this.#screen(drawn), this.#screen(of), state));
    for (const { on: name, at, as } of working.shows) this.#do(putBinding(this.#element(name, at), as));
    for (const [name, { variable, otherwise }] of Object.entries(working.guards)) {
      const key = this.#screen(name);
      const guard = { condition: kebabCase(variable), is: true, otherwise: this.#screen(otherwise) };
      this.#do(putScreen(key, { ...this.#app.screens[key], guard }));
    }
  }

  get #project(): Project {
    return { ...this.#drawn, app: this.#app };
  }

  #do(change: Change): void {
    this.changes.push(change);
    this.#app = applyChange(this.#app, change);
  }

  #make(change: Change | null): void {
    if (change) this.#do(change);
  }

  #screen(name: string): string {
    return screenCalled(this.#app, name);
  }

  /** What a form would have added to by itself, where it was told to add to something else. */
  #dropUnused(): void {
    const used = new Set(
      Object.values(this.#app.interactions).flatMap(({ before = [], target }) =>
        [...before, target].flatMap((step) => (step.kind === 'record' ? [step.collection] : [])),
      ),
    );
    for (const [id, { rows, more }] of Object.entries(this.#app.collections))
      if (!rows.length && !more?.length && !used.has(id)) this.#do(putCollection(id, null));
  }

  /** The innermost element of a screen that says this. */
  #element(name: string, text: string): string {
    const drawn = settle(this.#project).design.screens.find(({ key }) => key === this.#screen(name))!;
    let found: string | null = null;
    walkElements(drawn.root, (element) => {
      if (textOf(element).trim() === text) found = element.key;
    });
    if (found === null) throw new RangeError(`nothing on ${name} says "${text}"`);
    return found;
  }

  #collect(name: string, { as = name, fields = [], more = [] }: Working['collections'][string]): void {
    const proposal = proposeData(this.#project.design).collections.find((one) => one.name === name);
    if (!proposal) throw new RangeError(`no collection "${name}" is proposed`);
    const { id, change } = takeCollection(this.#project, { ...proposal, name: as });
    this.#do(change);
    let collection: Collection = this.#app.collections[id];
    const title = titleField(this.#drawn.design, collection)?.name ?? '';
    for (const { says, ...field } of fields) {
      const said: Record<string, Record<string, string>> = {};
      for (const record of recordsOf(this.#drawn.design, collection)) {
        const text = says[record.values[title]?.text ?? ''];
        if (text !== undefined) said[record.id] = { ...collection.said?.[record.id], [field.name]: text };
      }
      collection = {
        ...collection,
        fields: [...collection.fields, field],
        said: { ...collection.said, ...said },
      };
    }
    for (const says of more) collection = withRecord(collection, says);
    this.#do(putCollection(id, collection));
    const heads = sortingHeads(this.#project, collection);
    this.#make(makeWork(this.#project, { collections: [], forms: [] }, heads).change);
  }

  #type(name: string, lines: readonly string[]): void {
    const screen = this.#screen(name);
    for (const text of lines) {
      const project = this.#project;
      const [line] = typedWiring(settle(project), graphOf(settle(project)), screen, text);
      if (line.problem !== undefined) throw new RangeError(`${name}: ${text}: ${line.problem}`);
      const { arrival } = this.#app.interactions[line.element] ?? {};
      this.#do(
        putInteraction(line.element, {
          ...line.interaction,
          ...(arrival && line.interaction.arrival.kind === 'none' ? { arrival } : {}),
        }),
      );
    }
  }
}
