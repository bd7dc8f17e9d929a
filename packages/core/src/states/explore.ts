import type { PlannedLink, StatePlan } from './plan.ts';

/** A way to a state: where interactions are kept, in order; null for an overlay that is closed by Escape or by itself. */
export type StateWay = readonly (string | null)[];

/** What was found by going everywhere. */
export interface Explored {
  readonly states: number;
  /** Whether all states were seen; else nothing can be said of what never is. */
  readonly isWhole: boolean;
  /** Keys of screens and overlays that were seen. */
  readonly seen: readonly string[];
  /** Where interactions are kept that were done. */
  readonly done: readonly string[];
  /** Overlays that one can be in without a way out, each with the way there. */
  readonly traps: readonly { readonly overlay: string; readonly way: StateWay }[];
  /** Rules that do not hold, each with a way to where they do not. */
  readonly broken: readonly { readonly rule: string; readonly way: StateWay }[];
}

/** States beyond these are not looked at. */
const MOST_STATES = 3_000_000;

/**
 * Goes everywhere that one gets in an app, breadth first, so that each way is one of the shortest. Going back leads to any
 * screen that led here; what is found so is at most too much, which is why a way is walked once more before it is told.
 */
export function explore(plan: StatePlan, most = MOST_STATES): Explored {
  const walk = new Exploration(plan, most, -1);
  const gated = new Map<number, Exploration>();
  const broken = plan.rules.flatMap(({ id, screen, mask, is, gate }) => {
    let at: number;
    let by = walk;
    if (gate < 0) at = walk.firstWhere((node, bits) => node === screen && (bits & mask) !== is);
    else {
      // Who never is at the gate gets no further than without it.
      by = gated.get(gate) ?? new Exploration(plan, most, gate);
      gated.set(gate, by);
      at = by.firstWhere((node) => node === screen);
    }
    return at < 0 ? [] : [{ rule: id, way: by.wayTo(at) }];
  });
  return {
    states: walk.size,
    isWhole: walk.isWhole,
    seen: walk.seen(),
    done: walk.done(),
    traps: walk.traps(),
    broken,
  };
}

/** A number for each pair of a screen and the overlay over it, made as they are met. */
interface Position {
  readonly screen: number;
  /** The uppermost overlay; -1 for none. */
  readonly overlay: number;
  /** The position that it was opened from first; -1 where that is the screen alone. */
  readonly beneath: number;
  /**
   * With an overlay: the number of each of its states, by what the bits are; 0 for one that was not met, else one more than
   * the number. Of screens alone only which were met is known.
   */
  readonly states: Int32Array | null;
  /** The state of it that was met last; -1 for none. */
  last: number;
}

/** What is kept of a link in a row of numbers, and where in it. Such rows are read some ten times a state. */
const FIELDS = 8;
const [MASK, IS, KEEPS, SETS, PLAIN, MAY_SET, TO, OPENS] = [0, 1, 2, 3, 4, 5, 6, 7];

/** The number of a link where there is none: an overlay that is closed by Escape or by itself. */
const NONE = -1;

class Exploration {
  isWhole = true;
  size = 0;
  readonly #plan: StatePlan;
  readonly #most: number;
  /** A screen that nobody enters. */
  readonly #closed: number;
  /** Links by their numbers; those of a node are from its offset to that of the next. */
  readonly #links: readonly PlannedLink[];
  readonly #offsets: Int32Array;
  /**
   * A row for each link. Its PLAIN is the screen that it leads to by nothing but the bits, known once it led there; -1 where
   * it does otherwise or did not yet.
   */
  readonly #rows: Int32Array;
  readonly #isDone: Uint8Array;
  /** The guard of each node; one without has nothing to be so. */
  readonly #guardMask: Int32Array;
  readonly #guardIs: Int32Array;
  readonly #otherwise: Int32Array;
  /**
   * Which states of screens alone were met, a bit each: for what the bits are, all screens side by side, since most links
   * change no bit.
   */
  readonly #met: Uint8Array;
  /** The length of a row of it. */
  readonly #screenBits: number;
  readonly #width: number;
  readonly #positions: Position[] = [];
  /** The position of each screen alone, and those with overlays. */
  readonly #alone: Int32Array;
  readonly #covered = new Map<number, number>();
  // One entry a state, in the order in which they were met.
  #place = new Int32Array(1024);
  #bits = new Int32Array(1024);
  #before = new Int32Array(1024);
  #by = new Int32Array(1024);
  /** The state of the same position that was met before. */
  #earlier = new Int32Array(1024);
  /** The positions with each screen. */
  readonly #placesOf: number[][];
  /** Which screens led to each. */
  readonly #cameFrom: number[][];
  /** A bit for each pair of a screen and one that led to it. */
  readonly #isFrom: Uint8Array;
  /** What the state that is looked at leads to, where that is asked. */
  #next: number[] | null = null;

  constructor(plan: StatePlan, most: number, closed: number) {
    this.#plan = plan;
    this.#most = most;
    this.#closed = closed;
    this.#links = plan.links.flat();
    this.#offsets = new Int32Array(plan.nodes.length + 1);
    plan.links.forEach((own, node) => (this.#offsets[node + 1] = this.#offsets[node] + own.length));
    this.#rows = new Int32Array(this.#links.length * FIELDS);
    this.#links.forEach(({ mask, is, clears, sets, maySet, to, opens }, i) =>
      this.#rows.set([mask, is, ~clears, sets, -1, maySet, to, opens], i * FIELDS),
    );
    this.#isDone = new Uint8Array(this.#links.length);
    this.#guardMask = Int32Array.from(plan.guards, (guard) => guard?.mask ?? 0);
    this.#guardIs = Int32Array.from(plan.guards, (guard) => guard?.is ?? 0);
    this.#otherwise = Int32Array.from(plan.guards, (guard) => guard?.otherwise ?? -1);
    this.#width = plan.bits.length;
    this.#screenBits = Math.ceil(plan.screens / 8) * 8;
    this.#met = new Uint8Array((this.#screenBits / 8) * 2 ** this.#width);
    this.#alone = new Int32Array(plan.nodes.length).fill(-1);
    this.#placesOf = plan.nodes.map(() => []);
    this.#cameFrom = plan.nodes.map(() => []);
    this.#isFrom = new Uint8Array((plan.nodes.length * this.#screenBits) / 8);
    if (plan.start < 0) return;
    this.#enter(plan.start, plan.initial, -1, NONE, -1);
    for (let at = 0; at < this.size; at++) this.#leave(at);
  }

  /** The first state, in the order in which they were met, that is so; -1 for none. */
  firstWhere(test: (node: number, bits: number) => boolean): number {
    for (let at = 0; at < this.size; at++) {
      const { screen, overlay } = this.#positions[this.#place[at]];
      if (test(screen, this.#bits[at]) || (overlay >= 0 && test(overlay, this.#bits[at]))) return at;
    }
    return -1;
  }

  wayTo(state: number): StateWay {
    const way: (string | null)[] = [];
    for (let at = state; this.#before[at] >= 0; at = this.#before[at])
      way.push(this.#by[at] === NONE ? null : this.#links[this.#by[at]].key);
    return way.reverse();
  }

  seen(): string[] {
    const nodes = new Set(
      this.#positions.flatMap(({ screen, overlay }) => (overlay < 0 ? [screen] : [screen, overlay])),
    );
    return [...nodes].map((node) => this.#plan.nodes[node]);
  }

  done(): string[] {
    return [...new Set(this.#links.filter((_, i) => this.#isDone[i]).map(({ key }) => key))];
  }

  /** Overlays with states from which none without them is reached. */
  traps(): Explored['traps'] {
    const { overlays, screens, nodes } = this.#plan;
    if (!this.isWhole || overlays.every(({ closes }) => closes)) return [];
    const suspects = new Map<number, number[]>();
    for (let at = 0; at < this.size; at++) {
      const { overlay } = this.#positions[this.#place[at]];
      if (overlay < 0 || overlays[overlay - screens].closes) continue;
      const known = suspects.get(overlay);
      if (known) known.push(at);
      else suspects.set(overlay, [at]);
    }
    return [...suspects].flatMap(([overlay, states]) => {
      const free = this.#freeOf(overlay, states);
      const first = states.find((state) => !free.has(state));
      return first === undefined ? [] : [{ overlay: nodes[overlay], way: this.wayTo(first) }];
    });
  }

  /** Those of the states within an overlay from which one gets out of it. */
  #freeOf(overlay: number, states: readonly number[]): Set<number> {
    const before = new Map<number, number[]>();
    const free = new Set<number>();
    for (const state of states) {
      this.#next = [];
      this.#leave(state);
      for (const next of this.#next)
        if (next === NONE || this.#positions[this.#place[next]].overlay !== overlay) free.add(state);
        else before.set(next, [...(before.get(next) ?? []), state]);
      this.#next = null;
    }
    // A set that grows while it is gone through is gone through to its end.
    for (const state of free) for (const one of before.get(state) ?? []) free.add(one);
    return free;
  }

  #positionFor(screen: number, overlay: number, beneath: number): number {
    const key = screen * this.#plan.nodes.length + overlay;
    const known = overlay < 0 ? this.#alone[screen] : (this.#covered.get(key) ?? -1);
    if (known >= 0) return known;
    const number = this.#positions.length;
    if (overlay < 0) this.#alone[screen] = number;
    else this.#covered.set(key, number);
    this.#positions.push({
      screen,
      overlay,
      beneath,
      states: overlay < 0 ? null : new Int32Array(2 ** this.#width),
      last: -1,
    });
    this.#placesOf[screen].push(number);
    return number;
  }

  /** Goes to a screen, past its guard. @param from the screen that led there; -1 for none, or when going back */
  #enter(screen: number, bits: number, before: number, by: number, from: number): void {
    let at = screen;
    // Guards that send each other round in a circle show nothing.
    for (let turns = 0; (bits & this.#guardMask[at]) !== this.#guardIs[at]; turns++) {
      if (turns > this.#plan.nodes.length) return;
      at = this.#otherwise[at];
    }
    if (at === this.#closed) return;
    if (from >= 0 && from !== at && !this.#next) this.#noteFrom(at, from);
    this.#meet(this.#positionFor(at, -1, -1), bits, before, by);
  }

  #isMet(screen: number, bits: number): boolean {
    const index = bits * this.#screenBits + screen;
    return (this.#met[index >> 3] & (1 << (index & 7))) !== 0;
  }

  /** Whether going to a screen notes nothing more: where one has been, its guard has let one pass. */
  #isKnown(screen: number, bits: number): boolean {
    return !this.#next && this.#isMet(screen, bits);
  }

  /** Notes that a screen leads to another one; who went back from there before can get to it, too. */
  #noteFrom(screen: number, from: number): void {
    const index = screen * this.#screenBits + from;
    if (this.#isFrom[index >> 3] & (1 << (index & 7))) return;
    this.#isFrom[index >> 3] |= 1 << (index & 7);
    this.#cameFrom[screen].push(from);
    for (const place of this.#placesOf[screen]) {
      const { overlay, last } = this.#positions[place];
      const backs = this.#backsFrom(screen, overlay);
      // What is met meanwhile is looked at in its turn.
      for (let state = last; backs.length && state >= 0; state = this.#earlier[state])
        for (const link of backs) this.#followTo(from, link, state);
    }
  }

  /** The links of a screen and of what is open over it that lead back. */
  #backsFrom(screen: number, overlay: number): number[] {
    const of = (node: number): number[] => {
      const found: number[] = [];
      for (let link = this.#offsets[node]; link < this.#offsets[node + 1]; link++)
        if (this.#links[link].to === -2) found.push(link);
      return found;
    };
    return overlay < 0 ? of(screen) : [...of(overlay), ...of(screen)];
  }

  /** Goes by a link that leads back to one of the screens that led here. */
  #followTo(screen: number, link: number, state: number): void {
    const rows = this.#rows;
    const row = link * FIELDS;
    const bits = this.#bits[state];
    if ((bits & rows[row + MASK]) !== rows[row + IS]) return;
    const made = (bits & rows[row + KEEPS]) | rows[row + SETS];
    if (!this.#isKnown(screen, made)) this.#enter(screen, made, state, link, -1);
  }

  #meet(place: number, bits: number, before: number, by: number): void {
    const position = this.#positions[place];
    const { screen, states } = position;
    const known = states ? states[bits] : Number(this.#isMet(screen, bits));
    if (this.#next) {
      // What lies outside overlays needs no number.
      this.#next.push(states ? known - 1 : NONE);
      return;
    }
    if (known) return;
    if (this.size >= this.#most) {
      this.isWhole = false;
      return;
    }
    if (this.size === this.#place.length) this.#grow();
    const state = this.size++;
    this.#place[state] = place;
    this.#bits[state] = bits;
    this.#before[state] = before;
    this.#by[state] = by;
    this.#earlier[state] = position.last;
    position.last = state;
    if (states) states[bits] = state + 1;
    else {
      const index = bits * this.#screenBits + screen;
      this.#met[index >> 3] |= 1 << (index & 7);
    }
  }

  #grow(): void {
    const larger = (one: Int32Array): Int32Array<ArrayBuffer> => {
      const made = new Int32Array(one.length * 2);
      made.set(one);
      return made;
    };
    this.#place = larger(this.#place);
    this.#bits = larger(this.#bits);
    this.#before = larger(this.#before);
    this.#by = larger(this.#by);
    this.#earlier = larger(this.#earlier);
  }

  #leave(state: number): void {
    const place = this.#place[state];
    const { screen, overlay } = this.#positions[place];
    if (overlay >= 0) {
      const { closes, modal } = this.#plan.overlays[overlay - this.#plan.screens];
      if (closes) this.#close(state, NONE, this.#bits[state]);
      this.#followAll(overlay, state, place, screen, overlay);
      if (modal) return;
    }
    this.#followAll(screen, state, place, screen, overlay);
  }

  #close(state: number, by: number, bits: number): void {
    const { screen, beneath } = this.#positions[this.#place[state]];
    this.#meet(this.#positionFor(screen, -1, -1), bits, state, by);
    if (beneath >= 0) this.#meet(beneath, bits, state, by);
  }

  /** Follows the links of a node in a state, of which the place is given. */
  #followAll(node: number, state: number, place: number, screen: number, overlay: number): void {
    const rows = this.#rows;
    const bits = this.#bits[state];
    const first = this.#offsets[node];
    const end = this.#offsets[node + 1];
    for (let by = first, row = first * FIELDS; by < end; by++, row += FIELDS) {
      if ((bits & rows[row + MASK]) !== rows[row + IS]) continue;
      const made = (bits & rows[row + KEEPS]) | rows[row + SETS];
      const plain = rows[row + PLAIN];
      // Most lead to where one has been.
      if (plain >= 0 && this.#isKnown(plain, made)) continue;
      this.#follow(by, made, state, place, screen, overlay);
    }
  }

  /** Follows a link in a state. @param made the bits as they are after it */
  #follow(by: number, made: number, state: number, place: number, screen: number, overlay: number): void {
    const rows = this.#rows;
    const row = by * FIELDS;
    const to = rows[row + TO];
    const maySet = rows[row + MAY_SET];
    const opens = rows[row + OPENS];
    this.#isDone[by] = 1;
    // Where a guard sent one on, it is not said yet that this screen leads to that.
    if (to >= 0 && !maySet && (made & this.#guardMask[to]) === this.#guardIs[to]) rows[row + PLAIN] = to;
    // A second time with what may be so besides.
    for (let now = made; ; now = made | maySet) {
      if (to >= 0) this.#enter(to, now, state, by, screen);
      else if (to === -2) this.#goBack(screen, now, state, by);
      else if (opens > 0)
        this.#meet(this.#positionFor(screen, opens - 1, overlay >= 0 ? place : -1), now, state, by);
      else if (opens < 0 && overlay >= 0) this.#close(state, by, now);
      else this.#meet(place, now, state, by);
      if (now === (made | maySet)) break;
    }
  }

  #goBack(screen: number, bits: number, state: number, by: number): void {
    const from = this.#cameFrom[screen];
    for (let i = 0; i < from.length; i++)
      if (!this.#isKnown(from[i], bits)) this.#enter(from[i], bits, state, by, -1);
    // Where nothing came before it leads to the start.
    if (!from.length) this.#enter(this.#plan.start, bits, state, by, -1);
  }
}
