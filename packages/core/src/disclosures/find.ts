import { labelOf } from '../links/pressable.ts';
import type { Disclosure, DisclosureKind, Target } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { sentenceCase } from '../model/names.ts';
import { textOf } from '../model/project.ts';
import {
  CLOSES,
  headingIn,
  hiddenBelow,
  isAkin,
  isControl,
  isListOfLinks,
  isSender,
  kindOf,
  leadsNowhere,
  opensByName,
  SAYS_TOGGLE,
  saysItOpens,
  showsSomething,
  signsOf,
} from './signs.ts';
import { onceFor } from '../json/once_for.ts';

/** Parts of a screen that are opened and closed together with what does so. */
export interface DisclosureProposal {
  /** Stays the same for the same parts of a screen. */
  readonly id: string;
  readonly screen: string;
  /** By the keys of the parts. */
  readonly parts: readonly (readonly [key: string, disclosure: Disclosure])[];
  /** What each element does to them, by the keys of the elements. */
  readonly controls: readonly (readonly [key: string, target: Target])[];
  /** 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

/** What the page itself says, as a link says where it leads, is at least so sure. */
export const SAID_BY_PAGE = 0.9;

/**
 * What a screen as it was drawn hides at first, and what on it opens that: by the ids that controls name, else by what stands
 * beside what is hidden. Of panels that are shown in turn all belong together.
 */
export const findDisclosures = onceFor((screen: Screen): readonly DisclosureProposal[] =>
  new Finder(screen).find(),
);

/** How far from a part its opener is looked for: what names it, what stands right beside it, or what is near. */
const REACHES = ['named', 'beside', 'near'] as const;
type Reach = (typeof REACHES)[number];

/** How a control leads to a part, with how sure that is. */
interface Opener {
  readonly element: Element;
  readonly confidence: number;
  readonly reason: string;
}

/** A field that nobody sees is ticked by what is seen of it, and is nothing to be opened. */
const FIELD = /^(input|select|textarea)$/;

/** What holds more controls than these is a stretch of a page, and not what stands beside something. */
const MOST_BESIDE = 20;

class Finder {
  readonly #screen: Screen;
  readonly #all: Element[] = [];
  readonly #parents = new Map<Element, Element>();
  readonly #byId = new Map<string, Element>();
  readonly #hidden: Element[] = [];
  /** Elements that name others, with those that they name. */
  readonly #naming: (readonly [Element, readonly Element[]])[] = [];
  readonly #made: DisclosureProposal[] = [];
  /** What holds parts that a list of controls names in its order. */
  readonly #inOrder = new Set<Element>();
  /** What is part of a proposal. */
  readonly #taken = new Set<Element>();
  /** What names something, or opens something already. */
  readonly #opening = new Set<Element>();
  readonly #names = new Set<string>();
  /** Parts that were hidden by themselves, with what opens them. */
  readonly #singles = new Map<Element, Element>();

  constructor(screen: Screen) {
    this.#screen = screen;
    const visit = (element: Element): void => {
      this.#all.push(element);
      if (element.source.id && !this.#byId.has(element.source.id)) this.#byId.set(element.source.id, element);
      if (element.hidden && !FIELD.test(element.tag ?? '')) this.#hidden.push(element);
      for (const child of element.children) {
        this.#parents.set(child, element);
        visit(child);
      }
    };
    visit(screen.root);
    for (const element of this.#all) {
      const named = element.controls?.ids.flatMap((id) => this.#byId.get(id) ?? []) ?? [];
      if (!named.length) continue;
      this.#naming.push([element, named]);
      this.#opening.add(element);
    }
    for (const [list, [parts, ...others]] of this.#naming.slice())
      if (!others.length) this.#nameInOrder(list, parts);
  }

  /** Where a list of controls names what holds as many parts, each names the one of its place. */
  #nameInOrder(list: Element, parts: Element): void {
    const { children } = parts;
    if (children.length < 2 || children.length !== list.children.length) return;
    if (children.filter(({ hidden }) => !hidden).length > 1) return;
    const controls = list.children.map((entry) => this.#pressed(entry));
    if (controls.some((pressed) => pressed.length !== 1 || !leadsNowhere(pressed[0]))) return;
    this.#inOrder.add(parts);
    controls.forEach(([control], i) => {
      this.#naming.push([control, [children[i]]]);
      this.#opening.add(control);
    });
  }

  find(): readonly DisclosureProposal[] {
    for (const [parent, members] of this.#groups()) this.#group(parent, members);
    // What names a part and what stands right beside it come before what is only near, which may belong to another one.
    for (const reach of REACHES) {
      for (const part of this.#hidden) if (!this.#taken.has(part)) this.#single(part, reach);
      // So does what is open by now: the control of the group that the page is in is not free for others.
      for (const [part, opener] of this.#singles) this.#openBeside(part, opener);
    }
    for (const [opener, named] of this.#naming)
      for (const part of named) {
        this.#whenNarrow(opener, part);
        this.#openAtFirst(opener, part);
      }
    return this.#made;
  }

  /**
   * Siblings of one kind of which one is shown and the others are not, by what they stand in; or none, where the entries of
   * one list each name one of them, as pages do whose script shows the first.
   */
  #groups(): Map<Element, Element[]> {
    const found = new Map<Element, Element[]>();
    for (const part of this.#hidden) {
      const parent = this.#parents.get(part);
      if (!parent || found.has(parent)) continue;
      const members = parent.children.filter((child) => child.tag === part.tag && isAkin(child, part));
      const shown = members.filter((member) => !member.hidden).length;
      if (
        members.length > 1 &&
        (shown === 1 || (!shown && (this.#inOrder.has(parent) || this.#areOfOneList(members))))
      )
        found.set(parent, members);
    }
    return found;
  }

  /** Whether parts in the flow of a page are each named by its own link of one list, which stands elsewhere. */
  #areOfOneList(parts: readonly Element[]): boolean {
    if (parts.length < 3) return false;
    const lists = new Set<Element | undefined>();
    const links = new Set<Element>();
    for (const part of parts) {
      const link = this.#naming.find(([, named]) => named.includes(part))?.[0];
      if (!link || kindOf(part) !== 'section' || !leadsNowhere(link) || SAYS_TOGGLE.test(signsOf(link)))
        return false;
      if (this.#isIn(link, this.#parents.get(part)!)) return false;
      const holder = this.#parents.get(link);
      lists.add(holder?.children.length === 1 ? this.#parents.get(holder) : holder);
      links.add(link);
    }
    return lists.size === 1 && links.size === parts.length;
  }

  #group(parent: Element, members: readonly Element[]): void {
    const choosers = members.map((member) =>
      this.#naming.filter(([element, named]) => named.includes(member) && !this.#isIn(element, member)),
    );
    const turning = this.#turning(parent);
    const isChosen = choosers.filter((list) => list.length).length === members.length;
    const numbered = turning.filter(({ to }) => typeof to === 'number');
    const steps = turning.filter(({ to }) => typeof to !== 'number');
    if (!isChosen && !steps.length && numbered.length < 2) return;
    const kind: DisclosureKind = isChosen && !steps.length ? 'panel' : 'slide';
    const among = parent.key;
    const drawn = members.find((member) => !member.hidden);
    const atFirst = drawn ?? members[0];
    const first = numbered.some(({ to }) => to === 0) ? 0 : 1;
    const parts = members.map((member, i): readonly [string, Disclosure] => [
      member.key,
      {
        name: this.#named(choosers[i][0]?.[0] ?? null, member, kind, i),
        kind,
        ...(member === atFirst ? { open: true as const } : {}),
        among,
      },
    ]);
    const controls: [string, Target][] = [
      ...choosers.flatMap((list, i) =>
        list.map(([element]): [string, Target] => [element.key, opens(members[i], 'open')]),
      ),
      ...steps.map(({ element, to }): [string, Target] => [
        element.key,
        { kind: 'turn', among, to: to as 'next' | 'previous' },
      ]),
      ...numbered.flatMap(({ element, to }): [string, Target][] => {
        const member = members[(to as number) - first];
        return member ? [[element.key, opens(member, 'open')]] : [];
      }),
    ];
    for (const member of members) this.#taken.add(member);
    this.#propose(
      parts,
      controls,
      drawn ? 0.95 : SAID_BY_PAGE,
      !drawn
        ? 'each is named by its own entry of a list; none is drawn shown, so that the first one is at first'
        : kind === 'panel'
          ? 'each is named by its own control, and one is shown'
          : 'one of them is shown, and controls name what they stand in',
    );
  }

  /** Controls that name what parts stand in, or stand beside them, and go on or back, or to one of a number. */
  #turning(parent: Element): { element: Element; to: 'next' | 'previous' | number }[] {
    const holders = new Set<Element>([parent]);
    for (let at = this.#parents.get(parent), i = 0; at && i < 2; at = this.#parents.get(at), i++)
      holders.add(at);
    return this.#naming.flatMap(([element, named]) => {
      const turn = element.controls?.turn;
      if (turn === undefined || !named.some((one) => holders.has(one))) return [];
      const to = /^n/i.test(turn) ? 'next' : /^p/i.test(turn) ? 'previous' : Number(turn);
      return [{ element, to } as const];
    });
  }

  #single(part: Element, reach: Reach): void {
    const openers = this.#openers(part, reach);
    const kind = kindOf(part);
    const [best] = openers.toSorted((a, b) => b.confidence - a.confidence);
    if (!best) return;
    this.#taken.add(part);
    this.#singles.set(part, best.element);
    const name = this.#named(kind === 'dialog' ? null : best.element, part, kind, 0, best.element);
    for (const { element } of openers) this.#opening.add(element);
    const controls: [string, Target][] = openers
      .filter(({ confidence }) => confidence >= best.confidence - 0.1)
      .map(({ element }) => [element.key, opens(part, kind === 'dialog' ? 'open' : 'toggle')]);
    for (const closer of this.#closers(part)) controls.push([closer.key, opens(part, 'close')]);
    this.#propose([[part.key, { name, kind }]], controls, best.confidence, best.reason);
  }

  /** A part that narrow windows hide, and that something names as what it opens. */
  #whenNarrow(opener: Element, part: Element): void {
    if (part.hidden || this.#taken.has(part) || this.#isIn(opener, part)) return;
    const below = hiddenBelow(part);
    if (below === null || !this.#isControl(opener)) return;
    this.#taken.add(part);
    const name = this.#named(opener, part, 'section', 0);
    this.#propose(
      [[part.key, { name, kind: 'section', below }]],
      [[opener.key, opens(part, 'toggle')]],
      0.95,
      `windows of up to ${below} px hide it, and “${labelOf(opener)}” names it as what it opens`,
    );
  }

  /** A part that is open at first, and that something names as what it opens and closes. */
  #openAtFirst(opener: Element, part: Element): void {
    if (
      part.hidden ||
      this.#taken.has(part) ||
      this.#isIn(opener, part) ||
      !SAYS_TOGGLE.test(signsOf(opener))
    )
      return;
    if (Object.values(part.style.at ?? {}).some((css) => css.display === 'none')) return;
    if (this.#isUnseen(opener)) return;
    if (opener.attributes?.['aria-expanded'] !== 'true' && !/collapse-toggle|accordion/.test(signsOf(opener)))
      return;
    this.#taken.add(part);
    const name = this.#named(opener, part, 'section', 0);
    this.#propose(
      [[part.key, { name, kind: 'section', open: true }]],
      [[opener.key, opens(part, 'toggle')]],
      0.92,
      'it is open, and a control names it as what it opens',
    );
  }

  /**
   * What is open at first beside parts that are built like it and are not: of the groups of a menu, the one that the page is in.
   * @param part one that is hidden, with what opens it
   */
  #openBeside(part: Element, opener: Element): void {
    const steps = (element: Element, holder: Element): number[] => {
      const path: number[] = [];
      for (let at = element; at !== holder; at = this.#parents.get(at)!)
        path.unshift(this.#parents.get(at)!.children.indexOf(at));
      return path;
    };
    let holder = this.#parents.get(part);
    while (holder && !this.#isIn(opener, holder)) holder = this.#parents.get(holder);
    const list = holder && this.#parents.get(holder);
    if (!holder || !list || this.#isIn(opener, part)) return;
    const [toPart, toOpener] = [steps(part, holder), steps(opener, holder)];
    const follow = (from: Element, path: readonly number[]): Element | undefined =>
      path.reduce<Element | undefined>((at, i) => at?.children[i], from);
    for (const other of list.children) {
      if (other === holder || other.tag !== holder.tag) continue;
      const [open, control] = [follow(other, toPart), follow(other, toOpener)];
      if (!open || !control || open.hidden || this.#taken.has(open) || this.#opening.has(control)) continue;
      const isLike = open.tag === part.tag && isAkin(open, part) && isAkin(control, opener);
      if (!isLike || !this.#isControl(control) || !leadsNowhere(control)) continue;
      this.#taken.add(open);
      this.#opening.add(control);
      const name = this.#named(control, open, 'section', 0);
      this.#propose(
        [[open.key, { name, kind: kindOf(open), open: true }]],
        [[control.key, opens(open, 'toggle')]],
        0.92,
        `it is open, and what is built like it beside it is opened by “${labelOf(opener)}”`,
      );
    }
  }

  /** What opens a hidden part: what names it, else what stands beside it. */
  #openers(part: Element, reach: Reach): Opener[] {
    const naming = this.#naming.flatMap(([element, named]): Opener[] =>
      named.includes(part) && !this.#isIn(element, part)
        ? [{ element, confidence: 0.97, reason: `“${labelOf(element)}” names it as what it opens` }]
        : [],
    );
    if (naming.length) return naming;
    return reach === 'named' ? this.#calledAfter(part) : this.#beside(part, reach);
  }

  /** Controls whose class is that of a part and says that they open it: `right-sidebar-toggle`. */
  #calledAfter(part: Element): Opener[] {
    const names = (part.classes ?? '').split(/\s+/).filter((name) => /[a-z][-_][a-z]/i.test(name));
    if (!names.length || !showsSomething(part)) return [];
    return this.#all.flatMap((element): Opener[] => {
      const name = names.find((one) => opensByName(element.classes ?? '', one));
      return name === undefined ||
        element.hidden ||
        !this.#isControl(element) ||
        !leadsNowhere(element) ||
        this.#isIn(element, part)
        ? []
        : [
            {
              element,
              confidence: 0.93,
              reason: `“${labelOf(element)}” is called after it: what opens “${name}”`,
            },
          ];
    });
  }

  /** The control that stands nearest to a hidden part, in what holds both. */
  #beside(part: Element, reach: Exclude<Reach, 'named'>): Opener[] {
    if (kindOf(part) === 'dialog' || !showsSomething(part)) return [];
    let inner = part;
    for (let level = 0; level < (reach === 'beside' ? 1 : 2); level++) {
      const parent = this.#parents.get(inner);
      if (!parent || parent === this.#screen.root) return [];
      const at = parent.children.indexOf(inner);
      const near = [...parent.children.slice(0, at).reverse(), ...parent.children.slice(at + 1)];
      // What holds a page's worth of controls is not beside anything.
      const pressed = near
        .map((sibling) => this.#pressed(sibling))
        .filter((all) => all.length <= MOST_BESIDE);
      const found = pressed.flat().filter((one) => !this.#opening.has(one));
      // What holds several controls is a bar or a list, whose controls stand beside parts of their own.
      const right = new Set(pressed.flatMap((all) => (all.length === 1 ? all : [])));
      const isInReach = (one: Element): boolean => reach === 'near' || right.has(one);
      const toggles = found.filter(
        (one) => SAYS_TOGGLE.test(signsOf(one)) && isInReach(one) && (leadsNowhere(one) || saysItOpens(one)),
      );
      // Of those that stand in each of several rows none opens what stands beside all of these.
      const sure = toggles.find((one) => !toggles.some((other) => other !== one && isSameToggle(one, other)));
      if (sure)
        return [
          {
            element: sure,
            confidence: 0.92,
            reason: `“${labelOf(sure)}” beside it says that it opens something`,
          },
        ];
      const own =
        this.#isControl(parent) && !parent.hidden && !this.#opening.has(parent) ? parent : undefined;
      const only = found.filter((one) => leadsNowhere(one) && !isSender(one));
      const one = own ?? (found.length === 1 ? only[0] : undefined);
      if (one && level === 0 && leadsNowhere(one) && this.#listsLinks(part))
        return [
          {
            element: one,
            confidence: 0.93,
            reason: `“${labelOf(one)}” stands beside a list of links that is hidden, and leads nowhere itself`,
          },
        ];
      if (one && reach === 'near')
        return [
          { element: one, confidence: 0.7, reason: `“${labelOf(one)}” stands beside it and leads nowhere` },
        ];
      if (found.length) return [];
      inner = parent;
    }
    return [];
  }

  /** Whether a part is a list of links, or is built like others that are: of the groups of a menu some have a single entry. */
  #listsLinks(part: Element): boolean {
    if (isListOfLinks(part)) return true;
    return (
      part.children.some(({ tag }) => tag === 'a') &&
      this.#hidden.some((other) => other.tag === part.tag && isAkin(other, part) && isListOfLinks(other))
    );
  }

  /** What can be pressed in an element and is not hidden. */
  #pressed(element: Element): Element[] {
    if (element.hidden) return [];
    return this.#isControl(element) ? [element] : element.children.flatMap((child) => this.#pressed(child));
  }

  /** What in a part closes it: by its words, or since it names what it stands in. */
  #closers(part: Element): Element[] {
    const naming = new Set(this.#naming.flatMap(([element, named]) => (named.includes(part) ? element : [])));
    const found: Element[] = [];
    const visit = (element: Element): void => {
      const closes =
        element !== part &&
        this.#isControl(element) &&
        (naming.has(element) || CLOSES.test(`${signsOf(element)} ${labelOf(element)}`));
      if (closes) {
        found.push(element);
        return;
      }
      element.children.forEach(visit);
    };
    visit(part);
    return found;
  }

  /** Whether an element is pressed: also what ticks a box that nobody sees, which is there for no more than that. */
  #isControl(element: Element): boolean {
    if (isControl(element)) return true;
    const named = element.tag === 'label' ? element.attributes?.for : undefined;
    if (named === undefined) return false;
    const box = this.#byId.get(named);
    return !box || box.hidden === true;
  }

  /** Whether an element is not seen at the screen's own width. */
  #isUnseen(element: Element): boolean {
    for (let at: Element | undefined = element; at; at = this.#parents.get(at))
      if (at.style.base.display === 'none') return true;
    return false;
  }

  #isIn(element: Element, part: Element): boolean {
    for (let at: Element | undefined = element; at; at = this.#parents.get(at)) if (at === part) return true;
    return false;
  }

  /** What a part is called: as its own name says, its heading, or what opens it. */
  #named(
    opener: Element | null,
    part: Element,
    kind: DisclosureKind,
    number: number,
    otherwise?: Element,
  ): string {
    const said = [
      part.attributes?.['aria-label'],
      kind === 'section' || kind === 'panel' ? null : headingIn(part),
      this.#textOfId(part.attributes?.['aria-labelledby']),
      opener && labelOf(opener),
      otherwise && labelOf(otherwise),
      wordsOfClass(part),
    ].map((text) =>
      (text ?? '')
        .replace(/\s+/g, ' ')
        .replace(/^\s*(toggle|open|show|hide|close|expand|collapse) (the )?(?=\S)/i, '')
        .replace(/[\s:…]+$/, '')
        .trim()
        .slice(0, 60),
    );
    const words = said.find((text) => /\p{L}{2}/u.test(text));
    const usable = words
      ? sentenceCase(words)
      : kind === 'slide'
        ? `Slide ${number + 1}`
        : sentenceCase(kind);
    let name = usable;
    for (let n = 2; this.#names.has(name); n++) name = `${usable} ${n}`;
    this.#names.add(name);
    return name;
  }

  #textOfId(ids: string | undefined): string {
    const [id] = ids?.split(/\s+/) ?? [];
    const element = id ? this.#byId.get(id) : undefined;
    return element ? textOf(element) : '';
  }

  #propose(
    parts: DisclosureProposal['parts'],
    controls: readonly (readonly [string, Target])[],
    confidence: number,
    reason: string,
  ): void {
    const once = new Map(controls);
    this.#made.push({
      id: `disclosure ${parts[0][0]}`,
      screen: this.#screen.key,
      parts,
      controls: [...once],
      confidence,
      reason,
    });
  }
}

/** The words of the first class that has several: `right-sidebar` → `right sidebar`. */
const wordsOfClass = ({ classes = '' }: Element): string =>
  /(?:^|\s)([a-z]+(?:[-_][a-z]+)+)(?:\s|$)/.exec(classes)?.[1].replace(/[-_]/g, ' ') ?? '';

/** Whether two controls say the same, and were made alike. */
const isSameToggle = (one: Element, other: Element): boolean =>
  labelOf(one) === labelOf(other) && signsOf(one) === signsOf(other);

const opens = (part: Element, does: 'toggle' | 'open' | 'close'): Target => ({
  kind: 'disclose',
  part: part.key,
  does,
});
