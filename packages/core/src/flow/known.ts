import { labelOf, pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { hostOf, type Project, screensByKey, walkElements } from '../model/project.ts';
import { isField } from '../roles/role.ts';
import { Names } from './names.ts';
import { onceFor } from '../json/once_for.ts';

/** What can be named in a sheet, by the keys of a project. Screens and variables are those that the sheet has. */
export class Known {
  readonly screens: Names;
  readonly variables: Names;
  readonly collections: Names;
  readonly apis: Names;
  /** Files that came along, by their hashes. */
  readonly files: Names;
  /** Settled. */
  readonly project: Project;
  readonly #names: ReadonlyMap<string, string>;
  readonly #elements = new Map<string, Names>();
  readonly #parts = new Map<string, Names>();

  constructor(
    project: Project,
    screens: Iterable<readonly [key: string, name: string]>,
    variables: Iterable<readonly [key: string, name: string]>,
  ) {
    const { app, design } = project;
    this.project = project;
    this.#names = new Map(screens);
    this.screens = new Names(this.#names);
    this.variables = new Names(variables);
    this.collections = new Names(named(app.collections));
    this.apis = new Names(named(app.apis));
    this.files = new Names(design.assets.map(({ hash, file }) => [hash, file]));
  }

  nameOf(screen: string): string {
    return this.#names.get(screen) ?? screen;
  }

  /** The screen of the sheet that shows an element. */
  homeOf(element: string): string | null {
    const home = hostOf(this.project, element);
    return this.#names.has(home) ? home : null;
  }

  /** Elements of a screen by what people call them: what is pressed first, then fields, then all others. */
  elementsOn(screen: string): Names {
    const known = this.#elements.get(screen);
    if (known) return known;
    const drawn = screensByKey(this.project.design).get(screen);
    const made = drawn ? elementNames(drawn) : new Names([]);
    this.#elements.set(screen, made);
    return made;
  }

  /** The parts of a screen that open and close. */
  partsOn(screen: string): Names {
    const known = this.#parts.get(screen);
    if (known) return known;
    const { disclosures } = this.project.app;
    const here = named(disclosures).filter(([key]) => hostOf(this.project, key) === screen);
    const made = new Names(here);
    this.#parts.set(screen, made);
    return made;
  }
}

const named = (table: Readonly<Record<string, { readonly name: string }>>): [string, string][] =>
  Object.keys(table)
    .sort()
    .map((key) => [key, table[key].name]);

/** Naming takes a while, and most screens stay the same from one look to the next. */
const elementNames = onceFor(nameElements);

function nameElements(screen: Screen): Names {
  const pressed = pressablesOf(screen).flatMap(({ element, label }): [string, string][] =>
    label ? [[element.key, label]] : [],
  );
  const labels = new Map(pressed);
  const [fields, others]: [string, string][][] = [[], []];
  // What a button says is called as the button is.
  const repeated = new Set<string>();
  walkElements(screen.root, (element, parents) => {
    const label = element === screen.root || element.hidden ? '' : labelOf(element);
    if (!label) return;
    (isField(element) ? fields : others).push([element.key, label]);
    const isSaidAround = parents.some(({ key }) => labels.get(key) === label);
    if (isSaidAround && !labels.has(element.key)) repeated.add(element.key);
  });
  return new Names([...pressed, ...fields, ...others], repeated);
}
