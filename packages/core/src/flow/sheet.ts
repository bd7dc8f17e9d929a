import { grouped } from '../json/grouped.ts';
import { settle } from '../layers/settle.ts';
import { elementOfInteraction, type Interaction, numberOfInteraction } from '../model/interaction.ts';
import { elementsByKey, hostOf, orderedScreens, type Project, screensByKey } from '../model/project.ts';
import { Known } from './known.ts';
import type { SaidScreen, SaidStep } from './grammar.ts';
import type { JourneyStep } from '../model/app.ts';

/** Something an element of a screen does, with the key under which it is kept. */
export interface KeptLink {
  readonly key: string;
  /** Not there where the whole screen does it. */
  readonly element?: string;
  readonly interaction: Interaction;
}

/** What is on no screen that a sheet tells of. */
const NOWHERE = '';

/** What a sheet tells of a project: its screens in order, and what belongs to each. */
export class Sheet {
  /** Settled. */
  readonly project: Project;
  readonly known: Known;
  /** Keys of the screens that a sheet is about, in their order. */
  readonly screens: readonly string[];
  readonly #links: ReadonlyMap<string, readonly KeptLink[]>;
  readonly #still: ReadonlyMap<string, readonly string[]>;

  constructor(given: Project) {
    const project = settle(given);
    const { app } = project;
    this.project = project;
    this.screens = orderedScreens(app).filter((key) => useOf(app.screens[key].use) !== null);
    this.known = new Known(
      project,
      this.screens.map((key) => [key, app.screens[key].name]),
      variablesOf(project),
    );
    const links = Object.entries(app.interactions).map(([key, interaction]): KeptLink => {
      const element = elementOfInteraction(key);
      return { key, interaction, ...(this.#isRoot(element) ? {} : { element }) };
    });
    this.#links = grouped(links, ({ key }) => this.known.homeOf(elementOfInteraction(key)) ?? NOWHERE);
    this.#still = grouped(Object.keys(app.still), (element) => this.known.homeOf(element) ?? NOWHERE);
  }

  #isRoot(element: string): boolean {
    return screensByKey(this.project.design).get(hostOf(this.project, element))?.root.key === element;
  }

  /** What is done on a screen, from top to bottom, and what the screen itself does first. */
  linksOf(screen: string): readonly KeptLink[] {
    const place = this.#places(screen);
    return (this.#links.get(screen) ?? []).toSorted(
      (a, b) =>
        place(a.element) - place(b.element) ||
        numberOfInteraction(a.key) - numberOfInteraction(b.key) ||
        (a.key < b.key ? -1 : 1),
    );
  }

  stillOf(screen: string): readonly string[] {
    const place = this.#places(screen);
    return (this.#still.get(screen) ?? []).toSorted((a, b) => place(a) - place(b) || (a < b ? -1 : 1));
  }

  /** Elements of a screen by where they stand; those that are not there come last. */
  #places(screen: string): (element: string | undefined) => number {
    const drawn = screensByKey(this.project.design).get(screen);
    const order = new Map([...(drawn ? elementsByKey(drawn).keys() : [])].map((key, i) => [key, i]));
    return (element) => (element === undefined ? -1 : (order.get(element) ?? Infinity));
  }

  /** A step of a journey as it is said. */
  saidStep(one: JourneyStep): SaidStep {
    if (one.kind === 'enter') return one;
    const element = elementOfInteraction(one.interaction);
    const number = numberOfInteraction(one.interaction);
    return {
      kind: 'do',
      ...(this.#isRoot(element) ? {} : { element }),
      ...(number > 1 ? { number } : {}),
      to: one.to,
    };
  }
}

/** What a sheet calls a use, or null for one that it does not tell of. */
export const useOf = (use: string): SaidScreen['use'] | null =>
  use === 'screen' || use === 'planned' || use === 'overlay' ? use : null;

export const variablesOf = ({ app }: Project): [key: string, name: string][] =>
  Object.keys(app.variables)
    .sort()
    .map((key) => [key, app.variables[key].name]);
