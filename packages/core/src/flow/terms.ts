/**
 * Pieces that the language is put together from. Each says how a value is written and how it is read, so that the two
 * cannot drift apart; what comes next is always told by the next word.
 */

import { FlowError, type LineReader } from './line_reader.ts';
import type { Known } from './known.ts';
import { type Names, type Said } from './names.ts';
import { quoted } from './tokens.ts';

/** Where something is said: elements are meant to be on this screen where no other is named. */
export interface Place {
  readonly known: Known;
  readonly screen: string | null;
}

export interface Term<T> {
  print(value: T, place: Place): string;
  /** Whether it begins here; what it could begin with is remembered. */
  begins(reader: LineReader, place: Place): boolean;
  /** @throws FlowError */
  read(reader: LineReader, place: Place): T;
}

/** A part of a phrase: a word, a field, what may be left out, or a word that says yes. */
type Piece =
  | string
  | { readonly field: string; readonly term: Term<unknown>; readonly on?: string }
  | { readonly maybe: readonly Piece[] }
  | { readonly flag: string; readonly word: string; readonly isAlwaysSaid: boolean };

/** A field of a value; its elements are on the screen that another field says, where `on` names one. */
export const field = <T>(name: string, term: Term<T>, on?: string): Piece => ({
  field: name,
  term: term as Term<unknown>,
  ...(on === undefined ? {} : { on }),
});
/** What is written where its first field is there. */
export const maybe = (...pieces: readonly Piece[]): Piece => ({ maybe: pieces });
/** A word that says yes; where it is not there that is a no, or nothing. */
export const flag = (name: string, word = name, absent: 'no' | 'nothing' = 'nothing'): Piece => ({
  flag: name,
  word,
  isAlwaysSaid: absent === 'no',
});

type Fields = Readonly<Record<string, unknown>>;

/** Pieces one after another, which make a value of several fields. */
export function phrase<T>(...pieces: readonly Piece[]): Term<T> {
  const print = (list: readonly Piece[], value: Fields, place: Place): string[] =>
    list.flatMap((piece) => {
      if (typeof piece === 'string') return [piece];
      if ('maybe' in piece) return isThere(piece.maybe, value) ? print(piece.maybe, value, place) : [];
      if ('flag' in piece) return value[piece.flag] === true ? [piece.word] : [];
      const { term, on } = piece;
      return [term.print(value[piece.field], at(place, on, value))].filter(Boolean);
    });
  const read = (
    list: readonly Piece[],
    reader: LineReader,
    place: Place,
    into: Record<string, unknown>,
  ): void => {
    for (const piece of list)
      if (typeof piece === 'string') {
        if (!reader.takes(piece)) reader.fail();
      } else if ('maybe' in piece) {
        if (beginsWith(piece.maybe[0], reader, place)) read(piece.maybe, reader, place, into);
      } else if ('flag' in piece) {
        if (reader.takes(piece.word)) into[piece.flag] = true;
        else if (piece.isAlwaysSaid) into[piece.flag] = false;
      } else into[piece.field] = piece.term.read(reader, at(place, piece.on, into));
  };
  return {
    print: (value, place) => print(pieces, value as Fields, place).join(' '),
    begins: (reader, place) => beginsWith(pieces[0], reader, place),
    read: (reader, place) => {
      const value: Record<string, unknown> = {};
      read(pieces, reader, place, value);
      return value as T;
    },
  };
}

const at = (place: Place, on: string | undefined, value: Fields): Place =>
  on === undefined || typeof value[on] !== 'string' ? place : { ...place, screen: value[on] };

/** Whether a value has what pieces that may be left out say first. */
function isThere(pieces: readonly Piece[], value: Fields): boolean {
  const first = pieces.find((piece) => typeof piece !== 'string');
  if (!first || typeof first === 'string') return false;
  if ('maybe' in first) return isThere(first.maybe, value);
  return 'flag' in first ? value[first.flag] === true : value[first.field] !== undefined;
}

function beginsWith(piece: Piece, reader: LineReader, place: Place): boolean {
  if (typeof piece === 'string') return reader.sees(piece);
  if ('maybe' in piece) return beginsWith(piece.maybe[0], reader, place);
  return 'flag' in piece ? reader.sees(piece.word) : piece.term.begins(reader, place);
}

/** A value of one of several kinds, told apart by the field `tag`. */
export function oneOf<T>(tag: string, kinds: Readonly<Record<string, Term<object>>>): Term<T> {
  const list = Object.entries(kinds);
  return {
    print: (value, place) => {
      const kind = (value as Fields)[tag] as string;
      return kinds[kind].print(value as object, place);
    },
    begins: (reader, place) => list.filter(([, term]) => term.begins(reader, place)).length > 0,
    read: (reader, place) => {
      const found = list.find(([, term]) => term.begins(reader, place));
      if (!found) return reader.fail();
      return { [tag]: found[0], ...found[1].read(reader, place) } as T;
    },
  };
}

/** A kind of value that has fields of its own beside its tag. */
export const kind = (...pieces: readonly Piece[]): Term<object> => phrase<object>(...pieces);

/** Several, parted by a word. */
export const listOf = <T>(term: Term<T>, joint: string): Term<readonly T[]> => ({
  print: (values, place) => values.map((value) => term.print(value, place)).join(` ${joint} `),
  begins: (reader, place) => term.begins(reader, place),
  read: (reader, place) => {
    const values = [term.read(reader, place)];
    while (reader.takes(joint)) values.push(term.read(reader, place));
    return values;
  },
});

/** A value that a term says in another form. */
export const as = <T, U>(term: Term<U>, to: (value: T) => U, from: (value: U) => T): Term<T> => ({
  print: (value, place) => term.print(to(value), place),
  begins: (reader, place) => term.begins(reader, place),
  read: (reader, place) => from(term.read(reader, place)),
});

export const text: Term<string> = {
  print: quoted,
  begins: (reader) => {
    reader.want({ value: 'a text in "' });
    return reader.peek()?.kind === 'text';
  },
  read: (reader) => (reader.take('text', { value: 'a text in "' }) ?? reader.fail()).value,
};

/** A whole number, with its unit where it has one. */
export const whole = (unit?: string): Term<number> => ({
  print: (value) => (unit ? `${value} ${unit}` : String(value)),
  begins: (reader) => {
    reader.want({ value: 'a number' });
    return reader.peek()?.kind === 'number';
  },
  read: (reader) => {
    const { value } = reader.take('number', { value: 'a number' }) ?? reader.fail();
    if (unit && !reader.takes(unit)) reader.fail();
    return Number(value);
  },
});

/** One of these words, and what it stands for. */
export function words<T>(values: Readonly<Record<string, T>>): Term<T> {
  const list = Object.entries(values);
  return {
    print: (value) => list.find(([, one]) => one === value)![0],
    begins: (reader) => list.filter(([word]) => reader.sees(word)).length > 0,
    read: (reader) => {
      const found = list.find(([word]) => reader.takes(word));
      if (!found) return reader.fail();
      return found[1];
    },
  };
}

export const oneWord = <T extends string>(...list: readonly T[]): Term<T> =>
  words(Object.fromEntries(list.map((word) => [word, word])) as Record<string, T>);

export const path: Term<string> = {
  print: (value) => value,
  begins: (reader) => {
    reader.want({ value: 'a path such as /tools' });
    return reader.peek()?.kind === 'path';
  },
  read: (reader) => (reader.take('path', { value: 'a path such as /tools' }) ?? reader.fail()).value,
};

/** A name as code has it, written without marks where that cannot be misread. */
const identifier: Term<string> = {
  print: (value) => (/^[A-Za-z]\w*$/.test(value) ? value : quoted(value)),
  begins: (reader) => {
    reader.want({ value: 'a name' });
    return ['word', 'text'].includes(reader.peek()?.kind ?? '');
  },
  read: (reader) =>
    (reader.take('word', { value: 'a name' }) ?? reader.take('text', { value: 'a name' }) ?? reader.fail())
      .value,
};

/** Values by name: `toolId "saw" and day "3"`. */
export const byName = <T>(term: Term<T>): Term<Readonly<Record<string, T>>> => {
  const pairs = listOf(
    phrase<{ name: string; value: T }>(field('name', identifier), field('value', term)),
    'and',
  );
  return as(
    pairs,
    (value) => Object.entries(value).map(([name, one]) => ({ name, value: one })),
    (list) => Object.fromEntries(list.map(({ name, value }) => [name, value])),
  );
};

/** Something by its name: `"Catalogue"`, `"Details" #2`, or, where it has none here, `key "…"`. */
export function named(what: string, namesOf: (known: Known, place: Place) => Names): Term<string> {
  return {
    print: (key, place) => namesOf(place.known, place).print(key) ?? `key ${quoted(key)}`,
    begins: (reader, place) => startsName(reader, what, () => namesOf(place.known, place).all()),
    read: (reader, place) => {
      const names = namesOf(place.known, place);
      const said = saidHere(reader, what, () => names.all());
      return 'key' in said ? said.key : keyOf(names, said, what, reader);
    },
  };
}

const startsName = (reader: LineReader, what: string, all: () => readonly string[]): boolean => {
  reader.want({ name: what, all });
  const next = reader.peek();
  return next?.kind === 'text' || (next?.kind === 'word' && next.value === 'key');
};

type SaidHere = (Said & { readonly from: number; readonly to: number }) | { readonly key: string };

function saidHere(reader: LineReader, what: string, all: () => readonly string[]): SaidHere {
  const next = reader.peek();
  if (next?.kind === 'word' && next.value === 'key') {
    reader.takes('key');
    return { key: text.read(reader, null as never) };
  }
  const token = reader.take('text', { name: what, all }) ?? reader.fail();
  const nth = reader.peek()?.kind === 'nth' ? reader.take('nth', { value: '#' }) : null;
  return { text: token.value, nth: Number(nth?.value ?? 1), from: token.from, to: nth?.to ?? token.to };
}

function keyOf(
  names: Names,
  said: Said & { readonly from: number; readonly to: number },
  what: string,
  reader: LineReader,
  where = '',
): string {
  const key = names.keyOf(said);
  if (key !== undefined) return key;
  if (reader.isLenient) return said.text;
  const count = names.count(said.text);
  const like = count ? null : names.like(said.text);
  const says = count
    ? `There ${count === 1 ? 'is only one' : `are only ${count}`} “${said.text}”${where}.`
    : `There is no ${what} “${said.text}”${where}.${like === null ? '' : ` Do you mean “${like}”?`}`;
  throw new FlowError(says, said.from, Math.max(said.to, said.from + 1) || reader.line.length);
}

/** An element, or a part that opens, by what people call it, with its screen where that is another. */
export function onScreen(what: 'element' | 'part', screens: Term<string>): Term<string> {
  const namesOn = ({ known }: Place, screen: string): Names =>
    what === 'element' ? known.elementsOn(screen) : known.partsOn(screen);
  const label = what === 'element' ? 'an element' : 'a part that opens';
  const offered = (place: Place) => (): readonly string[] =>
    place.screen === null ? [] : namesOn(place, place.screen).all();
  return {
    print: (key, place) => {
      const here = place.screen === null ? null : namesOn(place, place.screen).print(key);
      if (here) return here;
      const home = place.known.homeOf(key);
      const there = home === null ? null : namesOn(place, home).print(key);
      return there ? `${there} on ${screens.print(home!, place)}` : `key ${quoted(key)}`;
    },
    begins: (reader, place) => startsName(reader, label, offered(place)),
    read: (reader, place) => {
      const said = saidHere(reader, label, offered(place));
      if ('key' in said) return said.key;
      const screen = reader.takes('on') ? screens.read(reader, place) : place.screen;
      if (screen === null) throw new FlowError(`Say on which screen “${said.text}” is.`, said.from, said.to);
      const where = ` on “${place.known.nameOf(screen)}”`;
      return keyOf(namesOn(place, screen), said, what, reader, where);
    },
  };
}
