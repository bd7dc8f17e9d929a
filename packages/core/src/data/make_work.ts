import {
  all,
  applyChange,
  type Change,
  putBinding,
  putInteraction,
  putLayer,
  putVariable,
} from '../change/change.ts';
import type { DisclosureProposal } from '../disclosures/find.ts';
import { takeDisclosures } from '../disclosures/take.ts';
import type { App, Collection, Interaction, ListDeed, Target } from '../model/app.ts';
import { freeInteractionKey, pressTo } from '../model/interaction.ts';
import { uniqueName } from '../model/names.ts';
import { copiedText } from '../links/copied_text.ts';
import type { Element } from '../model/design.ts';
import { screensOfBar } from './bars.ts';
import { containersOf, findElement, parentsByKey, screenOf } from '../model/places.ts';
import { type Project, screensByKey, textOf, variableNames, walkElements } from '../model/project.ts';
import { recordsOf } from '../records/records.ts';
import { inferRoles } from '../roles/infer.ts';
import { applyRoles } from '../roles/apply.ts';
import type { RoleDetail } from '../roles/names.ts';
import { isAmong, sightOf } from '../roles/sight.ts';
import { type ActionProposal, SLIDES } from './actions.ts';
import type { DataProposals } from './propose.ts';
import { quoted } from '../variables/settings.ts';
import { takenCollection } from './records.ts';
import { choicesOf } from './choices.ts';
import { holdsWords } from './figures.ts';
import { marking, removal } from './make_record_deeds.ts';
import { ratingOf } from './ratings.ts';
import { freeVariable, nameBefore, type Stepping, steppingOf } from './steppers.ts';
import { takeCollection } from './take_collection.ts';
import type { KnownCollection, PlannedDeed } from './work.ts';

/** What becomes of controls that are to work. */
export interface MadeWork {
  /** Null where nothing can be done. */
  readonly change: Change | null;
  /** The app after it. */
  readonly app: App;
  readonly made: readonly { readonly action: ActionProposal; readonly interaction: Interaction }[];
  /** Those that stay as they are, each with why. */
  readonly left: readonly { readonly action: ActionProposal; readonly why: string }[];
}

/**
 * Makes controls do what they most likely do: those of lists with the records that their screen shows, which are taken along,
 * what opens and closes parts of the screen, and signing in and out with the condition that says so.
 * @param disclosures what is hidden on the screens as they were drawn, and what opens it
 */
export function makeWork(
  project: Project,
  proposals: Pick<DataProposals, 'collections' | 'forms'> & Partial<Pick<DataProposals, 'bindings'>>,
  actions: readonly ActionProposal[],
  disclosures: readonly DisclosureProposal[] = [],
): MadeWork {
  const maker = new Maker(project, proposals, disclosures);
  for (const action of actions) maker.take(action);
  return maker.made();
}

/** Whether an element is a box that is ticked, which tells when it is. */
const isTicked = (element: Element | null): boolean =>
  element?.attributes?.type === 'checkbox' || element?.role === 'checkbox';

class Maker {
  readonly #drawn: Project;
  #app: App;
  readonly #proposals: Parameters<typeof makeWork>[1];
  /** What opens or closes a part, by the key of the control. */
  readonly #opens: ReadonlyMap<string, { readonly proposal: DisclosureProposal; readonly target: Target }>;
  /** Keys of what sends a form by which one signs in. */
  readonly #signsIn: ReadonlySet<string>;
  readonly #changes: Change[] = [];
  readonly #made: { action: ActionProposal; interaction: Interaction }[] = [];
  readonly #left: { action: ActionProposal; why: string }[] = [];

  constructor(
    project: Project,
    proposals: Parameters<typeof makeWork>[1],
    disclosures: readonly DisclosureProposal[],
  ) {
    this.#opens = new Map(
      disclosures.flatMap((proposal) =>
        proposal.controls.map(([key, target]) => [key, { proposal, target }] as const),
      ),
    );
    this.#drawn = project;
    this.#signsIn = new Set(
      proposals.forms.flatMap(({ purpose, submit }) =>
        purpose === 'sign-in' && submit ? [submit.element] : [],
      ),
    );
    this.#app = project.app;
    this.#proposals = proposals;
  }

  take(action: ActionProposal): void {
    // A box by itself is ticked by whoever presses it, and a switch that is one is switched.
    if (action.does === 'select') return;
    if (action.does === 'toggle' && findElement(this.#drawn.design, action.element)?.tag === 'input') return;
    const deed = this.#deedOf(action);
    if (typeof deed === 'string') {
      this.#left.push({ action, why: deed });
      return;
    }
    if (deed.of?.proposal) this.#do(takeCollection(this.#project, deed.of.proposal).change);
    if (deed.along) this.#do(deed.along);
    const at = deed.at ?? action.element;
    const key = deed.replaces ? at : freeInteractionKey(this.#app.interactions, at);
    this.#do(putInteraction(key, deed.interaction));
    this.#made.push({ action, interaction: deed.interaction });
  }

  made(): MadeWork {
    return {
      change: this.#changes.length ? all(this.#changes) : null,
      app: this.#app,
      made: this.#made,
      left: this.#left,
    };
  }

  #do(change: Change): void {
    this.#changes.push(change);
    this.#app = applyChange(this.#app, change);
  }

  get #project(): Project {
    return { ...this.#drawn, app: this.#app };
  }

  #deedOf(action: ActionProposal): PlannedDeed | string {
    const { element, does } = action;
    const own = this.#app.interactions[element];
    if (does === 'sign-in' && !this.#signsIn.has(element)) return 'it leads to where one signs in';
    if (does === 'sign-in' || does === 'sign-out') return this.#signing(action, own);
    if (own) return 'it does something already';
    const opens = this.#opens.get(element);
    if (opens) {
      const { proposal, target } = opens;
      const isTaken = proposal.parts.every(([key]) => this.#app.disclosures[key]);
      return {
        interaction: pressTo(target),
        replaces: true,
        ...(isTaken ? {} : { along: takeDisclosures(this.#app, [proposal]) }),
      };
    }
    switch (does) {
      case 'open':
      case 'close':
      case 'expand':
      case 'tab':
        return 'nothing that it could open or close is hidden on its screen';
      case 'filter': {
        const deed = this.#listDeed(action);
        // What looks like a filter and has nothing to filter is chosen for itself.
        const choice = typeof deed === 'string' ? this.#choice(action) : deed;
        return typeof choice === 'string' ? deed : choice;
      }
      case 'search':
      case 'sort':
      case 'previous':
      case 'next':
      case 'page':
      case 'load-more':
        return this.#listDeed(action);
      case 'remove':
        return removal(this.#project, this.#known(), this.#proposals, action);
      case 'change': {
        const { mark } = action;
        return mark
          ? marking(this.#project, this.#known(), this.#proposals, { ...action, mark })
          : NOT_SAID.change!;
      }
      case 'choose':
        return this.#choice(action);
      case 'toggle':
        return this.#switch(action);
      case 'increase':
      case 'decrease':
        return this.#step(action, does);
      case 'rate':
        return this.#counted(
          ratingOf(this.#project, action.screen, element),
          'it does not stand among other stars',
        );
      case 'print':
        return { interaction: pressTo({ kind: 'browser', does: 'print' }) };
      case 'select-all':
        return {
          interaction: {
            ...pressTo({ kind: 'browser', does: 'tick' }),
            on: isTicked(findElement(this.#drawn.design, element)) ? 'change' : 'press',
          },
        };
      case 'refresh':
        return { interaction: pressTo({ kind: 'browser', does: 'reload' }) };
      case 'copy': {
        const of = this.#copied(element);
        return of
          ? { interaction: pressTo({ kind: 'browser', does: 'copy', of }) }
          : 'nothing stands beside it that it could copy';
      }
      default:
        return NOT_SAID[does] ?? 'what it does is to be said at Junction';
    }
  }

  #listDeed(action: ActionProposal): PlannedDeed | string {
    const { screen, element, does, label } = action;
    const sight = sightOf(screensByKey(this.#drawn.design).get(screen)!);
    const at = sight.byKey.get(element);
    if (!at || isAmong(at, SLIDES)) return 'it is about slides, and not about records';
    const known = this.#nearest(screen, element);
    if (!known) return 'no list of records stands on its screen';
    const deed = (one: ListDeed, on: Interaction['on'] = 'press'): PlannedDeed => ({
      of: known,
      interaction: {
        on,
        target: { kind: 'list', collection: known.id, deed: one },
        arrival: { kind: 'none' },
      },
    });
    switch (does) {
      case 'previous':
      case 'next':
        return deed({ kind: 'page', to: does });
      case 'page': {
        const to = Number(label.trim());
        return Number.isInteger(to) && to > 0 ? deed({ kind: 'page', to }) : 'its page has no number';
      }
      case 'load-more':
        return deed({ kind: 'more' });
      case 'sort': {
        const field = fieldCalled(known.collection, label);
        return field ? deed({ kind: 'sort', field }) : `no field of ${known.collection.name} is called so`;
      }
      case 'search': {
        const wider = this.#isOfBar(element, known);
        if (wider !== null) return wider;
        if (/^(input|textarea)$/.test(at.element.tag ?? '')) return deed({ kind: 'search' }, 'change');
        const role = inferRoles(screensByKey(this.#drawn.design).get(screen)!).get(element)?.role;
        if (role !== 'textbox') return 'the field beside it searches as one types';
        return this.#drawnField(screen, element, deed({ kind: 'search' }, 'change'));
      }
      default:
        return at.element.tag === 'select'
          ? chosenBy(known, textsOf(at.element.children.map(textOf)), deed)
          : this.#filter(action, known, deed);
    }
  }

  /** Why a field in a bar that most screens share searches no list: those of few of them, or of each another. Null where it can. */
  #isOfBar(element: string, { collection }: KnownCollection): string | null {
    const screens = screensOfBar(this.#project, element);
    if (!screens.size) return null;
    const listed = new Set(collection.rows.map(({ element: row }) => screenOf(this.#drawn.design, row)));
    const showing = [...screens].filter((key) => listed.has(key)).length;
    return showing * 2 > screens.size
      ? null
      : `it stands on ${screens.size} screens, of which ${showing} ${showing === 1 ? 'shows' : 'show'} ${collection.name}: what it looks through is not said`;
  }

  /** One of several sets a variable that is one of what they say; the one that is drawn as chosen is it at first. */
  #choice({ screen, element }: ActionProposal): PlannedDeed | string {
    const choice = choicesOf(screensByKey(this.#drawn.design).get(screen)!).get(element);
    if (!choice) return 'nothing stands beside it that could be chosen instead';
    const { all: controls, chosen, label, within } = choice;
    const made = [...controls.keys()].flatMap((key) => {
      const target = this.#app.interactions[key]?.target;
      return target?.kind === 'set' && this.#app.variables[target.condition]?.type === 'one-of'
        ? [target.condition]
        : [];
    })[0];
    const free = freeVariable(this.#app, 'choice', nameBefore(within, 'Choice'));
    const condition = made ?? free.condition;
    const variable = {
      name: free.name,
      type: 'one-of',
      choices: [...controls.values()],
      initial: chosen,
    } as const;
    return {
      interaction: pressTo({ kind: 'set', condition, value: quoted(label) }),
      ...(made === undefined ? { along: putVariable(condition, variable) } : {}),
    };
  }

  /** What is drawn as a switch becomes one, and what it says is remembered. */
  #switch({ screen, element, label }: ActionProposal): PlannedDeed | string {
    const as = { role: 'switch' } as const;
    const made = this.#fieldOf(screen, element, as);
    if (made === null) return 'it is drawn so that no switch can be made of it';
    const { condition, name } = freeVariable(this.#app, 'switched', label.trim() || 'Switched');
    const initial = made.attributes?.checked !== undefined;
    const variables = { ...this.#app.variables, [condition]: { name, initial } };
    const inCode = variableNames({ variables }).get(condition)!;
    return {
      at: made.key,
      interaction: {
        on: 'change',
        target: { kind: 'set', condition, value: `!${inCode}` },
        arrival: { kind: 'none' },
      },
      along: all([
        putLayer(element, { ...this.#app.layers[element], ...as }),
        putVariable(condition, { name, initial }),
        putBinding(made.key, { ...this.#app.bindings[made.key], value: inCode }),
      ]),
    };
  }

  #step({ screen, element }: ActionProposal, does: 'increase' | 'decrease'): PlannedDeed | string {
    return this.#counted(
      steppingOf(this.#project, screen, element, does),
      'no number stands beside it that it could count',
    );
  }

  #counted(stepping: Stepping | null, why: string): PlannedDeed | string {
    if (!stepping) return why;
    const { condition, value, along } = stepping;
    return { interaction: pressTo({ kind: 'set', condition, value }), ...(along ? { along } : {}) };
  }

  /** What is done by a field that is drawn goes to the real one that it becomes. */
  #drawnField(screen: string, element: string, deed: PlannedDeed): PlannedDeed | string {
    const as = { role: 'textbox', input: 'search' } as const;
    const made = this.#fieldOf(screen, element, as);
    return made === null
      ? 'it is drawn so that no field can be made of it'
      : { ...deed, at: made.key, along: putLayer(element, { ...this.#app.layers[element], ...as }) };
  }

  /** The field that an element becomes or that is made in it, where it is taken for one. */
  #fieldOf(screen: string, element: string, as: RoleDetail): Element | null {
    const root = applyRoles(screensByKey(this.#drawn.design).get(screen)!, new Map([[element, as]]));
    let made: Element | null = null;
    walkElements(root, (one, parents) => {
      const isOfIt = one.key === element || parents.some((parent) => parent.key === element);
      if (one.tag === 'input' && isOfIt) made ??= one;
    });
    return made;
  }

  /** A chip filters by the field in which records say what it and those beside it say. */
  #filter(
    action: ActionProposal,
    known: KnownCollection,
    deed: (one: ListDeed) => PlannedDeed,
  ): PlannedDeed | string {
    const screen = screensByKey(this.#drawn.design).get(action.screen)!;
    const sight = sightOf(screen);
    const parent = parentsByKey(screen).get(action.element);
    const beside = (parent ? sight.byKey.get(parent.key)?.children : undefined) ?? [];
    const labels = textsOf(beside.length ? beside.map(({ text }) => text) : [action.label]);
    const field = fieldSaying(
      known,
      labels.filter((label) => !ALL.test(label)),
    );
    if (!field) return `no field of ${known.collection.name} says any of ${labels.slice(0, 4).join(', ')}`;
    if (ALL.test(action.label.trim())) return deed({ kind: 'filter', field: field.name });
    return deed({
      kind: 'filter',
      field: field.name,
      value: action.label.trim(),
      ...(field.isPart ? { part: true as const } : {}),
    });
  }

  /** What stands beside what copies: the field or the text that is nearest before it, or after it. */
  #copied(element: string): string | null {
    const screen = screensByKey(this.#drawn.design).get(screenOf(this.#drawn.design, element));
    const parents = screen && parentsByKey(screen);
    let inner = element;
    for (let level = 0; parents && level < 2; level++) {
      const parent = parents.get(inner);
      if (!parent) return null;
      const at = parent.children.findIndex(({ key }) => key === inner);
      const near = [...parent.children.slice(0, at).reverse(), ...parent.children.slice(at + 1)];
      const found = near.find((one) => one.tag !== 'button' && one.tag !== 'a' && copiedText(one) !== '');
      if (found) return found.key;
      inner = parent.key;
    }
    return null;
  }

  #signing({ does, screen }: ActionProposal, own: Interaction | undefined): PlannedDeed | string {
    const value = does === 'sign-in';
    const known = Object.entries(this.#app.variables).find(([, { name }]) => SIGNED_IN.test(name))?.[0];
    const condition = known ?? 'signed-in';
    if (own?.target.kind === 'disclose') return 'it opens what asks first';
    const steps = own ? [...(own.before ?? []), own.target] : [];
    if (steps.some((step) => step.kind === 'set' && step.condition === condition))
      return 'it does so already';
    const along = known ? {} : { along: putVariable(condition, { name: 'Signed in', initial: false }) };
    const set = { kind: 'set', condition, value } as const;
    if (!own) {
      const door = value ? null : this.#doorOf(condition, screen);
      const interaction: Interaction = door ? { ...pressTo(door), before: [set] } : pressTo(set);
      return { ...along, interaction };
    }
    // What it did stays, after that.
    return { ...along, replaces: true, interaction: { ...own, before: [set, ...(own.before ?? [])] } };
  }

  /** Where who signed out is to sign in again: where screens that ask for it lead, else the screen with that form. */
  #doorOf(condition: string, from: string): Target | null {
    const led = Object.values(this.#app.screens).find(({ guard }) => guard?.condition === condition)?.guard
      ?.otherwise;
    const door = led ?? this.#proposals.forms.find(({ purpose }) => purpose === 'sign-in')?.screen;
    return door && door !== from && this.#app.screens[door]?.use === 'screen'
      ? { kind: 'screen', screen: door }
      : null;
  }

  /** The collection whose list stands nearest to an element of its screen: in the smallest part around both. */
  #nearest(screen: string, element: string): KnownCollection | null {
    const { design } = this.#drawn;
    const around = [element, ...containersOf(design, element)];
    const distance = ({ collection }: KnownCollection): number =>
      Math.min(
        ...collection.rows
          .filter((row) => screenOf(design, row.within) === screen)
          .map((row) => {
            const holders = new Set([row.within, ...containersOf(design, row.within)]);
            const at = around.findIndex((key) => holders.has(key));
            return at < 0 ? Infinity : at;
          }),
        Infinity,
      );
    const known = this.#known()
      .map((one) => ({ one, far: distance(one) }))
      .filter(({ far }) => far < Infinity)
      .sort((a, b) => a.far - b.far || b.one.records.length - a.one.records.length);
    return known[0]?.one ?? null;
  }

  #known(): KnownCollection[] {
    const { design } = this.#drawn;
    const taken = Object.entries(this.#app.collections).map(([id, collection]): KnownCollection => ({
      id,
      collection,
      records: recordsOf(design, collection),
    }));
    const held = new Set(taken.flatMap(({ collection }) => collection.rows.map((row) => row.element)));
    const open = this.#proposals.collections
      .filter(({ places }) => !places.some(({ rows }) => rows.some((row) => held.has(row))))
      .map((proposal): KnownCollection => {
        const collection = takenCollection(proposal);
        const id = freeName(this.#app, proposal.name);
        return {
          id,
          collection: { ...collection, name: id },
          records: recordsOf(design, collection),
          proposal,
        };
      });
    return [...taken, ...open];
  }
}

/** What somebody has to say first of what is done. */
const NOT_SAID: Readonly<Partial<Record<ActionProposal['does'], string>>> = {
  add: 'to which records it adds, and what, is to be said at Junction',
  change: 'what it changes is to be said at Junction, or where it leads to',
  like: 'what remembers it is to be said at Junction: a field of a record, or a variable',
  share: 'where it is shared is to be said at Junction',
  download: 'which file it saves is to be said at Junction',
  upload: 'a file needs a form that it is sent with',
  reply: 'where it leads to is to be said at Junction',
  submit: 'its form is made to work at Forms',
};

const SIGNED_IN = /\b(signed|logged) ?in\b/i;
/** What a filter says that shows everything. */
const ALL = /^(all|any|every(thing| one)?|show all)\b/i;

const freeName = (app: App, name: string): string =>
  uniqueName(name, (one) => app.collections[one] !== undefined, '');

const textsOf = (texts: readonly string[]): string[] => [
  ...new Set(texts.map((text) => text.trim()).filter((text) => text !== '' && text.length <= 200)),
];

/** The field that a head calls, with its arrow left out. */
function fieldCalled({ fields }: Collection, head: string): string | null {
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const wanted = plain(head.replace(/^sort(ed)?( by)?:?\s/i, ''));
  return wanted
    ? (fields.find(
        ({ name, label, type }) =>
          type !== 'picture' && (plain(label ?? '') === wanted || plain(name) === wanted),
      )?.name ?? null)
    : null;
}

/** The field in which records say what labels say, or hold it as words. */
function fieldSaying(
  { collection, records }: KnownCollection,
  labels: readonly string[],
): { readonly name: string; readonly isPart: boolean } | null {
  const found = collection.fields.flatMap(({ name, type }) => {
    if (type === 'picture') return [];
    const said = records.map(({ values }) => (values[name]?.text ?? '').trim().toLowerCase());
    const wanted = labels.map((label) => label.toLowerCase());
    const same = wanted.filter((label) => said.includes(label)).length;
    const part = wanted.filter((label) => said.some((text) => holdsWords(text, label))).length;
    return [
      { name, isPart: false, score: 2 * same },
      { name, isPart: true, score: part },
    ].filter(({ score }) => score > 0);
  });
  return found.sort((a, b) => b.score - a.score)[0] ?? null;
}

/** A choice filters by the field that says what can be chosen. */
function chosenBy(
  known: KnownCollection,
  choices: readonly string[],
  deed: (one: ListDeed, on: 'change') => PlannedDeed,
): PlannedDeed | string {
  const field = fieldSaying(known, choices);
  if (!field || field.isPart) return `no field of ${known.collection.name} says what can be chosen`;
  const said = new Set(known.records.map(({ values }) => (values[field.name]?.text ?? '').toLowerCase()));
  const others = choices.filter((choice) => !said.has(choice.toLowerCase()) && ALL_OR_NONE.test(choice));
  return deed({ kind: 'choose', field: field.name, all: others.slice(0, 20) }, 'change');
}
/** What a choice says that is none: everything, or what is to be chosen. */
const ALL_OR_NONE = /^(all|any|every|show all|choose|select|filter|-|–|—)|(…|\.\.\.)$/i;

/** The heads of columns over the rows of a collection, as controls that sort by them. */
export function sortingHeads({ design }: Project, collection: Collection): ActionProposal[] {
  const withins = new Set(collection.rows.map(({ within }) => within));
  return [...withins].flatMap((within): ActionProposal[] => {
    const screen = screenOf(design, within);
    const around = [...containersOf(design, within)][0];
    const table = findElement(design, around ?? within);
    if (!table) return [];
    const heads: ActionProposal[] = [];
    walkElements(table, (element) => {
      if (element.tag !== 'th') return true;
      const label = textOf(element);
      if (fieldCalled(collection, label))
        heads.push({
          screen,
          element: element.key,
          label,
          does: 'sort',
          confidence: 0.7,
          reason: `it is the head of a column of ${collection.name}`,
        });
      return false;
    });
    return heads;
  });
}
