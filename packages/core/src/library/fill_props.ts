import { actingIn, leadsBy, pressProp } from '../emit/form/components/theirs.ts';
import type { WholeComponent } from '../emit/form/components/extract.ts';
import { termsOf } from '../emit/form/markup.ts';
import { propsOf } from '../expression/expression.ts';
import type { LibraryComponent, LibraryProp, Theirs, TheirValue } from '../model/app.ts';
import { wordsOf } from './called_alike.ts';
import { type Saying, sayingsOf } from './sayings.ts';

/** How the props of one of the team's components are filled from a drawn one. */
export interface Filling {
  readonly props: Theirs['props'];
  /** What the drawn one shows or does that finds no place, in words. */
  readonly lost: readonly string[];
  /** What theirs needs and is not given, in words: without it the code is not right. */
  readonly missing: readonly string[];
  /** How much of what the drawn one says and does finds a place, 0 to 1. */
  readonly placed: number;
}

/** Names of props that take something of a kind, those first that say it most plainly. */
const PLACES: Readonly<Record<Exclude<Saying['kind'], 'deed'>, readonly string[]>> = {
  text: [
    'children',
    'label',
    'text',
    'title',
    'heading',
    'name',
    'header',
    'caption',
    'content',
    'value',
    'description',
    'subtitle',
    'body',
    'summary',
    'detail',
    'meta',
    'secondary',
    'footer',
    'count',
    'badge',
    'status',
    'date',
    'price',
  ],
  picture: [
    'src',
    'image',
    'imageUrl',
    'img',
    'picture',
    'photo',
    'avatar',
    'thumbnail',
    'cover',
    'imgSrc',
    'url',
    'media',
  ],
  alt: ['alt', 'imageAlt', 'imgAlt', 'label', 'aria-label'],
  drawing: [
    'icon',
    'startIcon',
    'leftIcon',
    'iconBefore',
    'leading',
    'leadingVisual',
    'leadingIcon',
    'start',
    'prefix',
    'graphic',
    'endIcon',
    'rightIcon',
    'iconAfter',
    'trailing',
    'end',
  ],
  content: ['children', 'content', 'body'],
};

/** Props whose text is not for people to read. */
const NOT_READ =
  /^(id|className|class|style|role|type|name|form|href|to|target|rel|key|slot|lang|dir|src|alt|as|tag|value|defaultValue|placeholder|testId|data-.*|aria-.*|.*(Class|ClassName|Id|Ref|Url|Src|Color|Style))$/;

/** Names of flags that say that something is there to be seen. */
const OPENNESS = ['open', 'expanded', 'shown', 'show', 'visible', 'opened'];
/** Names of flags that say the same. */
const SAME_FLAGS: readonly (readonly string[])[] = [
  ['active', 'selected', 'current', 'checked', 'pressed', 'on', 'marked'],
  ['disabled', 'inactive', 'off'],
  OPENNESS,
  ['loading', 'busy', 'pending'],
];

/** What only a look depends on counts so much of what is said. */
const OF_LOOK = 0.5;
/** And a drawing that is the same wherever it stands so much. */
const OF_TRIFLE = 0.25;

/**
 * Fills the props of one of the team's components with what a drawn one says, so that as little as can be is lost: each part goes to a
 * prop that means it, or, where not all parts find one, all is written within theirs as it is drawn.
 */
export function fillProps(drawn: WholeComponent, component: LibraryComponent): Filling {
  const parted = filledByParts(drawn, component, false);
  const holds = component.props.some(({ name, type }) => name === 'children' && type === 'node');
  if (parted.placed === 1 || !holds) return parted;
  const around = filledByParts(drawn, component, true);
  return around.placed * OF_AROUND > parted.placed
    ? { ...around, placed: around.placed * OF_AROUND }
    : parted;
}

/** What is only put around what is drawn is worth so much of what takes its parts. */
const OF_AROUND = 0.9;

/** @param isAround whether what is drawn within is written within theirs, and not given part by part */
function filledByParts(drawn: WholeComponent, component: LibraryComponent, isAround: boolean): Filling {
  const props: Record<string, TheirValue> = {};
  const lost: string[] = [];
  const missing: string[] = [];
  const open = new Map(component.props.map((prop) => [prop.name, prop]));
  const take = (name: string, value: TheirValue): void => {
    props[name] = value;
    open.delete(name);
  };
  const sayings = sayingsOf(drawn);
  const texts = sayings.filter(({ kind }) => kind === 'text');
  // What is drawn within stays whole.
  let parts = isAround ? sayings.length : 0;
  let found = parts;
  const noted = (isPlaced: boolean, says: string, weight = 1): void => {
    parts += weight;
    if (isPlaced) found += weight;
    else lost.push(says);
  };
  if (isAround) take('children', { kind: 'drawn' });
  for (const saying of isAround ? [] : sayings) {
    const name = placeFor(saying, open, texts.length);
    if (name !== null) take(name, valueOf(saying, open.get(name)!.type));
    // A picture's words say little that is not seen, and a drawing that is always the same says less than the text beside it.
    if (name === null && saying.kind === 'alt') continue;
    const isTrifle = saying.kind === 'drawing' && saying.prop === null;
    noted(name !== null, wordsFor(saying), isTrifle ? OF_TRIFLE : 1);
  }
  const isInside = (prop: string): boolean => isAround && !decidesRoot(drawn, prop);
  for (const prop of drawn.props) {
    if (isInside(prop.name)) continue;
    if (prop.kind === 'flag') {
      const name = flagFor(prop.name, open);
      if (name !== null) take(name, { kind: 'prop', name: prop.name });
      noted(name !== null, `whether it ${readable(prop.name)}`, OF_LOOK);
    } else if (prop.kind === 'choice') {
      const name = choiceFor(prop.choices ?? [], open);
      if (name !== null) take(name, { kind: 'prop', name: prop.name });
      noted(name !== null, `which ${readable(prop.name)} it is`, OF_LOOK);
    }
  }
  const acting = actingIn(drawn.root);
  if (
    acting &&
    (!isAround || acting === drawn.root) &&
    !Object.values(props).some(({ kind }) => kind === 'deed')
  ) {
    const isDone = pressProp(component.props) !== null || leadsBy(component.props) !== null;
    noted(isDone, 'what it does when it is pressed');
    for (const name of [pressProp(component.props), leadsBy(component.props)]) if (name) open.delete(name);
  }
  // What is only there while it is said to be is written where it is there.
  for (const prop of open.values())
    if (prop.type === 'yes-no' && prop.byDefault !== 'true' && isOpenness(prop.name))
      take(prop.name, { kind: 'fixed', value: true });
  for (const prop of open.values()) {
    // What is called and is not said does nothing yet.
    if (!prop.isRequired || prop.type === 'press') continue;
    const value = anyValue(prop, drawn, texts);
    if (value) props[prop.name] = value;
    else missing.push(prop.name);
  }
  return { props, lost, missing, placed: parts ? found / parts : 1 };
}

/** Whether what the outermost element looks like depends on a prop. */
const decidesRoot = ({ root }: WholeComponent, prop: string): boolean =>
  termsOf({ ...root, slots: {} }).some((term) => propsOf(term).has(prop));

/** The prop that is called when a button within is pressed: `onReturn` for “Return”. */
const deedFor = (says: string, open: ReadonlyMap<string, LibraryProp>): string | null => {
  const words = wordsOf(says);
  return (
    [...open.values()].find(({ name, type }) => {
      const [on, ...called] = wordsOf(name);
      return (
        type === 'press' && on === 'on' && called.length > 0 && called.every((word) => words.includes(word))
      );
    })?.name ?? null
  );
};

const readable = (name: string): string => wordsOf(name).join(' ');

const wordsFor = ({ kind, prop, says }: Saying): string =>
  kind === 'content'
    ? 'what stands within it'
    : kind === 'deed'
      ? says
        ? `the button “${says.slice(0, 40)}” in it`
        : 'the button in it'
      : prop !== null
        ? `its ${readable(prop)}`
        : kind === 'text'
          ? `“${says.slice(0, 40)}”`
          : `its ${kind}`;

function valueOf({ kind, prop, says }: Saying, type?: LibraryProp['type']): TheirValue {
  if (kind === 'content' || kind === 'deed') return { kind };
  if (prop !== null) return { kind: 'prop', name: prop };
  return { kind: 'fixed', value: type === 'number' ? Number(says) : says };
}

/** The prop that takes something that is said: one of the same name first, then the plainest for its kind. */
function placeFor(
  { kind, prop, says }: Saying,
  open: ReadonlyMap<string, LibraryProp>,
  texts: number,
): string | null {
  if (kind === 'deed') return deedFor(says, open);
  const takes = (name: string): boolean => {
    const there = open.get(name);
    if (!there) return false;
    if (kind === 'content') return there.type === 'node';
    if (kind === 'drawing') return prop !== null && (there.type === 'node' || there.type === 'other');
    if (kind === 'picture') return prop !== null && (there.type === 'text' || there.type === 'other');
    return (
      there.type === 'text' ||
      there.type === 'node' ||
      (kind === 'text' && there.type === 'number' && prop === null && /^\d+$/.test(says))
    );
  };
  const own = prop?.replace(/\d+$/, '');
  if (own !== undefined && takes(own)) return own;
  // Where several texts are said, each goes to a prop that means it, and what stands between the tags is for one alone.
  const places = kind === 'text' && texts > 1 ? PLACES.text.slice(1) : PLACES[kind];
  const plain = places.find(takes);
  if (plain !== undefined) return plain;
  if (kind !== 'text') return null;
  if (takes('children')) return 'children';
  return (
    [...open.keys()].find((name) => !NOT_READ.test(name) && open.get(name)!.isRequired && takes(name)) ?? null
  );
}

function flagFor(name: string, open: ReadonlyMap<string, LibraryProp>): string | null {
  const said = wordsOf(name).filter((word) => word !== 'is' && word !== 'has');
  const group = SAME_FLAGS.find((words) => said.some((word) => words.includes(word)));
  for (const prop of open.values()) {
    if (prop.type !== 'yes-no') continue;
    const words = wordsOf(prop.name).filter((word) => word !== 'is' && word !== 'has');
    if (words.join() === said.join() || (group && words.length === 1 && group.includes(words[0])))
      return prop.name;
  }
  return null;
}

/** Whether a flag says that something is open or shown. */
const isOpenness = (name: string): boolean => {
  const words = wordsOf(name).filter((word) => word !== 'is');
  return words.length === 1 && OPENNESS.includes(words[0]);
};

const choiceFor = (choices: readonly string[], open: ReadonlyMap<string, LibraryProp>): string | null =>
  [...open.values()].find(
    (prop) => prop.type === 'one-of' && choices.every((choice) => prop.choices?.includes(choice)),
  )?.name ?? null;

/** What a prop that is needed is given where nothing that is said goes there. */
function anyValue(prop: LibraryProp, { root }: WholeComponent, texts: readonly Saying[]): TheirValue | null {
  if (prop.type === 'yes-no') return { kind: 'fixed', value: false };
  if (prop.type === 'one-of' && prop.choices?.length) return { kind: 'fixed', value: prop.choices[0] };
  if (prop.type !== 'text' && prop.type !== 'node') return null;
  const label = root.attributes['aria-label'];
  if (/label|title|name|text/i.test(prop.name) && typeof label === 'string')
    return { kind: 'fixed', value: label };
  // The same words a second time, as for what is read aloud.
  const [first] = texts;
  return first && /label|title|name|alt/i.test(prop.name) ? valueOf(first) : null;
}
