import {
  all,
  applyChange,
  type Change,
  putVariable,
  putInteraction,
  putJourney,
  putProblem,
  putRedirect,
  putScreen,
  putStill,
  setStart,
} from '../change/change.ts';
import { grouped } from '../json/grouped.ts';
import { equalJson } from '../json/json.ts';
import type { App, Variable, Interaction, JourneyStep, Overlay, ScreenEntry } from '../model/app.ts';
import { settle } from '../layers/settle.ts';
import { elementOfInteraction, freeInteractionKey } from '../model/interaction.ts';
import { kebabCase, uniqueName } from '../model/names.ts';
import { type Project, screensByKey } from '../model/project.ts';
import {
  variableLine,
  guard,
  journeyLine,
  journeyStep,
  link,
  overlay,
  redirect,
  type SaidLink,
  type SaidScreen,
  screenLine,
  shownWith,
  start,
  still,
  title,
} from './grammar.ts';
import { Known } from './known.ts';
import { FlowError, LineReader, type Wanted } from './line_reader.ts';
import { variablesOf, Sheet, useOf } from './sheet.ts';
import type { Place, Term } from './terms.ts';
import { type Line, linesOfSheet } from './tokens.ts';

/** What is wrong with a sheet, and where: lines and columns from 1, `length` in characters. */
export interface FlowProblem {
  readonly line: number;
  readonly column: number;
  readonly length: number;
  readonly message: string;
}

export interface ReadFlow {
  /** What makes the project say what the sheet says; null where it says so already, or where it cannot be read. */
  readonly change: Change | null;
  readonly problems: readonly FlowProblem[];
  /** Screens of the project that the sheet does not tell of, by their names: they stay as they are. */
  readonly untold: readonly string[];
}

/**
 * Reads a flow sheet against the project that it is about. Links, variables, redirects and journeys become what the sheet
 * says, so that a line that is taken away takes away what it said; a screen is known by its name, else by its route, and one
 * that is told for the first time is planned. Screens that are not told of stay as they are.
 */
export function readFlow(project: Project, text: string): ReadFlow {
  const reading = new FlowReading(project, linesOfSheet(text));
  reading.read();
  if (reading.problems.length) return { change: null, problems: reading.problems, untold: reading.untold() };
  const changes = reading.changes();
  return {
    change: changes.length ? all(changes) : null,
    problems: reading.problems,
    untold: reading.untold(),
  };
}

/** What could stand at the end of a line that is not finished. */
export function wantedAt(project: Project, text: string, line: Line): readonly Wanted[] {
  const reading = new FlowReading(project, linesOfSheet(text));
  reading.read();
  return reading.wantedIn(line);
}

/** A screen as the sheet says it. */
interface ToldScreen {
  readonly key: string;
  readonly line: Line;
  readonly said: SaidScreen;
  overlay?: Overlay;
  guard?: ScreenEntry['guard'];
  params?: ScreenEntry['params'];
  readonly links: (SaidLink & { readonly line: Line })[];
  readonly still: Set<string>;
}

interface ToldJourney {
  readonly line: Line;
  readonly name: string;
  readonly start: string;
  readonly steps: { readonly said: ReturnType<typeof journeyStep.read>; readonly line: Line }[];
}

/** Reads a line with a term, of which only how it begins is asked. */
type Line1 = readonly [term: Pick<Term<unknown>, 'begins'>, take: (reader: LineReader) => void];

class FlowReading {
  readonly problems: FlowProblem[] = [];
  readonly #project: Project;
  readonly #lines: readonly Line[];
  /** What the project says so far. */
  readonly #sheet: Sheet;
  readonly #screens = new Map<Line, ToldScreen>();
  readonly #variables = new Map<string, Variable & { readonly line: Line }>();
  readonly #redirects = new Map<string, { readonly to: string; readonly line: Line }>();
  readonly #journeys: ToldJourney[] = [];
  #known: Known;
  #start: string | null = null;
  /** What lines that stand further in belong to. */
  #within: { readonly screen: ToldScreen } | { readonly journey: ToldJourney; at: string } | null = null;

  constructor(project: Project, lines: readonly Line[]) {
    this.#project = settle(project);
    this.#lines = lines;
    this.#sheet = new Sheet(project);
    this.#known = new Known(this.#project, [], []);
  }

  read(): void {
    this.#readHeads();
    for (const line of this.#lines) this.#attempt(line, (reader) => this.#readLine(line, reader));
  }

  wantedIn(line: Line): readonly Wanted[] {
    const before = this.#lines.findLast(({ number, isWithin }) => number < line.number && !isWithin);
    this.#within = null;
    if (line.isWithin && before)
      for (const one of this.#lines)
        if (one.number >= before.number && one.number < line.number)
          this.#attempt(one, (reader) => this.#readLine(one, reader));
    const reader = new LineReader(line, true);
    try {
      this.#readLine(line, reader);
    } catch (error) {
      if (!(error instanceof FlowError)) throw error;
    }
    return reader.isAtEnd ? reader.wanted : [];
  }

  untold(): string[] {
    const told = new Set([...this.#screens.values()].map(({ key }) => key));
    const { screens } = this.#project.app;
    return Object.keys(screens)
      .filter((key) => useOf(screens[key].use) && !told.has(key))
      .map((key) => screens[key].name);
  }

  /** Screens and variables first: what is said further up may name them. */
  #readHeads(): void {
    const { app } = this.#project;
    const heads: { readonly line: Line; readonly said: SaidScreen }[] = [];
    const takenIds = new Set<string>();
    for (const line of this.#lines) {
      if (line.isWithin) continue;
      const reader = new LineReader(line);
      try {
        if (screenLine.begins(reader, this.#place(null)))
          heads.push({ line, said: screenLine.read(reader, this.#place(null)) });
        else if (variableLine.begins(reader, this.#place(null))) {
          const name = line.tokens[1]?.kind === 'text' ? line.tokens[1].value : null;
          if (name === null) continue;
          const id =
            variablesOf(this.#project).find(([key, called]) => called === name && !takenIds.has(key))?.[0] ??
            uniqueName(kebabCase(name) || 'condition', (one) => !!app.variables[one] || takenIds.has(one));
          takenIds.add(id);
          this.#variables.set(id, { name, initial: false, line });
          this.#variables.set(id, { ...variableLine.read(reader, this.#place(null)), line });
        }
      } catch (error) {
        // It is told where the line is read as a whole.
        if (!(error instanceof FlowError)) throw error;
      }
    }
    const keys = this.#keysOf(heads.map(({ said }) => said));
    heads.forEach(({ line, said }, i) =>
      this.#screens.set(line, { key: keys[i], line, said, links: [], still: new Set() }),
    );
    this.#known = new Known(
      this.#project,
      heads.map(({ said }, i) => [keys[i], said.name]),
      [...this.#variables].map(([id, { name }]) => [id, name]),
    );
  }

  /** Which screens are meant: by their names, then, of those that nothing has named, by their routes; others are new. */
  #keysOf(said: readonly SaidScreen[]): string[] {
    const { app } = this.#project;
    const left = new Set(this.#sheet.screens);
    const take = (key: string | undefined): string | undefined => {
      if (key !== undefined) left.delete(key);
      return key;
    };
    const found = said.map(({ name }) => take([...left].find((key) => app.screens[key].name === name)));
    const keys = found.map(
      (key, i) =>
        key ??
        take(
          [...left].find((one) => said[i].route !== undefined && app.screens[one].route === said[i].route),
        ),
    );
    const made = new Set<string>();
    return keys.map((key, i) => {
      if (key !== undefined) return key;
      const fresh = uniqueName(
        `planned-${kebabCase(said[i].name) || 'screen'}`,
        (one) => !!app.screens[one] || made.has(one) || screensByKey(this.#project.design).has(one),
      );
      made.add(fresh);
      return fresh;
    });
  }

  #place(screen: string | null): Place {
    return { known: this.#known, screen };
  }

  #attempt(line: Line, read: (reader: LineReader) => void): void {
    const reader = new LineReader(line);
    try {
      read(reader);
      reader.end();
    } catch (error) {
      if (!(error instanceof FlowError)) throw error;
      this.#tell(line, error.message, error.from, error.to);
    }
  }

  #tell(line: Line, message: string, from = line.tokens[0]?.from ?? 0, to = line.length): void {
    this.problems.push({
      line: line.number,
      column: from + 1,
      length: Math.max(1, to - from),
      message,
    });
  }

  #readLine(line: Line, reader: LineReader): void {
    const forms = line.isWithin ? this.#formsWithin() : this.#formsAtTop(line);
    if (line.isWithin && !forms.length)
      throw new FlowError(
        'This line stands further in, but no screen and no journey stands above it.',
        line.tokens[0]?.from ?? 0,
        line.length,
      );
    const found = forms.filter(([term]) => term.begins(reader, this.#place(null)))[0];
    if (found) found[1](reader);
    else reader.fail();
  }

  #formsAtTop(line: Line): Line1[] {
    const top = this.#place(null);
    return [
      [title, (reader) => void title.read(reader, top)],
      [start, (reader) => (this.#start = start.read(reader, top).screen)],
      [variableLine, (reader) => void variableLine.read(reader, top)],
      [
        redirect,
        (reader) => {
          const { from, to } = redirect.read(reader, top);
          this.#redirects.set(from, { to, line });
        },
      ],
      [screenLine, (reader) => this.#openScreen(line, reader)],
      [
        journeyLine,
        (reader) => {
          const journey = { ...journeyLine.read(reader, top), line, steps: [] };
          this.#journeys.push(journey);
          this.#within = { journey, at: journey.start };
        },
      ],
    ];
  }

  #openScreen(line: Line, reader: LineReader): void {
    screenLine.read(reader, this.#place(null));
    const told = this.#screens.get(line)!;
    this.#within = { screen: told };
    if (told.said.use === 'overlay' && overlay.begins(reader, this.#place(told.key)))
      told.overlay = overlay.read(reader, this.#place(told.key));
    const is = this.#project.app.screens[told.key]?.use;
    if (told.said.use === 'overlay' && is === undefined)
      this.#tell(line, `There is no drawing “${told.said.name}” that could open over a screen.`);
    else if (is === 'planned' && told.said.use === 'screen')
      this.#tell(line, `“${told.said.name}” is still to be drawn: write “planned” in place of “screen”.`);
    else if (is !== undefined && is !== 'planned' && told.said.use === 'planned')
      this.#tell(line, `“${told.said.name}” is drawn already: write “screen” in place of “planned”.`);
  }

  #formsWithin(): Line1[] {
    const within = this.#within;
    if (!within) return [];
    if ('journey' in within) {
      const place = this.#place(within.at);
      return [
        [
          journeyStep,
          (reader) => {
            const said = journeyStep.read(reader, place);
            within.journey.steps.push({ said, line: reader.line });
            if (said.kind === 'do') within.at = said.to;
          },
        ],
      ];
    }
    const { screen } = within;
    const place = this.#place(screen.key);
    return [
      [guard, (reader) => (screen.guard = guard.read(reader, place))],
      [shownWith, (reader) => (screen.params = shownWith.read(reader, place).params)],
      [still, (reader) => void screen.still.add(still.read(reader, place).element)],
      [link, (reader) => void screen.links.push({ ...link.read(reader, place), line: reader.line })],
    ];
  }

  /** What is different from the project, in an order in which each of it holds. */
  changes(): Change[] {
    const { app } = this.#project;
    const changes: Change[] = [];
    const put = (change: Change, line: Line | null): void => {
      const problem = change.kind === 'put' ? putProblem(change.table, change.key, change.value) : null;
      if (problem === null) changes.push(change);
      else if (line) this.#tell(line, problem);
    };
    for (const id of Object.keys(app.variables))
      if (!this.#variables.has(id)) put(putVariable(id, null), null);
    for (const [id, { line, ...condition }] of this.#variables)
      if (!equalJson(app.variables[id], condition)) put(putVariable(id, condition), line);
    let order = Math.max(0, ...Object.values(app.screens).map((entry) => entry.order));
    for (const told of this.#screens.values()) {
      const entry = this.#entryOf(told, () => ++order);
      if (!equalJson(app.screens[told.key], entry)) put(putScreen(told.key, entry), told.line);
      this.#wire(told, put);
    }
    for (const from of Object.keys(app.redirects))
      if (!this.#redirects.has(from)) put(putRedirect(from, null), null);
    for (const [from, { to, line }] of this.#redirects)
      if (app.redirects[from]?.to !== to) put(putRedirect(from, { to }), line);
    if (this.#start !== null && this.#start !== app.start) changes.push(setStart(this.#start));
    this.#putJourneys(put, changes.reduce(applyChange, app));
    return this.problems.length ? [] : changes;
  }

  #entryOf(
    { key, said, overlay: opens, guard: needs, params }: ToldScreen,
    order: () => number,
  ): ScreenEntry {
    const was = this.#project.app.screens[key];
    const {
      guard: _guard,
      params: _params,
      overlay: _overlay,
      ...rest
    } = was ?? {
      name: said.name,
      route: said.route ?? `/${kebabCase(said.name)}`,
      use: 'planned' as const,
      order: order(),
    };
    return {
      ...rest,
      name: said.name,
      route: said.route ?? rest.route,
      use: was ? said.use : 'planned',
      ...(needs ? { guard: needs } : {}),
      ...(params ? { params } : {}),
      ...(opens ? { overlay: opens } : {}),
    };
  }

  /** What the elements of a screen do. What is said as it was stays the very value under the very key. */
  #wire(told: ToldScreen, put: (change: Change, line: Line | null) => void): void {
    const { app } = this.#project;
    const sheet = this.#sheet;
    const place = this.#place(told.key);
    const root = screensByKey(this.#project.design).get(told.key)?.root.key;
    const was = grouped(sheet.linksOf(told.key), ({ key }) => elementOfInteraction(key));
    const says = grouped(told.links, ({ element }) => element ?? root ?? told.key);
    const now: Record<string, Interaction> = {};
    for (const element of new Set([...was.keys(), ...says.keys()])) {
      const before = was.get(element) ?? [];
      const list = says.get(element) ?? [];
      const printed = (one: SaidLink): string => link.print(one, place);
      for (const [i, said] of list.entries()) {
        const known = before[i];
        const key = known?.key ?? freeInteractionKey({ ...app.interactions, ...now }, element);
        const value = known && printed(known) === printed(said) ? known.interaction : said.interaction;
        now[key] = value;
        if (!equalJson(app.interactions[key], value)) put(putInteraction(key, value), said.line);
      }
      for (const { key } of before.slice(list.length)) put(putInteraction(key, null), null);
    }
    const stood = new Set(sheet.stillOf(told.key));
    for (const element of stood) if (!told.still.has(element)) put(putStill(element, false), null);
    for (const element of told.still) if (!stood.has(element)) put(putStill(element, true), told.line);
  }

  #putJourneys(put: (change: Change, line: Line | null) => void, app: App): void {
    const left = new Set(Object.keys(app.journeys).sort());
    for (const { name, start: first, steps, line: head } of this.#journeys) {
      const key =
        [...left].find((one) => app.journeys[one].name === name) ??
        uniqueName(kebabCase(name) || 'journey', (one) => !!app.journeys[one]);
      left.delete(key);
      let screen = first;
      const made = steps.flatMap(({ said, line }): JourneyStep[] => {
        if (said.kind === 'enter') return [said];
        const element = said.element ?? screensByKey(this.#project.design).get(screen)?.root.key ?? screen;
        const interaction = said.number ? `${element}|${said.number}` : element;
        if (!app.interactions[interaction])
          this.#tell(line, 'Nothing is done there: say on its screen first what it does.');
        screen = said.to;
        return [{ kind: 'do', interaction, to: said.to }];
      });
      const journey = { name, start: first, steps: made };
      if (!equalJson(app.journeys[key], journey)) put(putJourney(key, journey), head);
    }
    for (const key of left) put(putJourney(key, null), null);
  }
}
