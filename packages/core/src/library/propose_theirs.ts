import { colorsApart, lchOf } from '../alternatives/lch.ts';
import type { EmittedComponent, Extraction, WholeComponent } from '../emit/form/components/extract.ts';
import { isElement, type MarkupElement } from '../emit/form/markup.ts';
import type { App, Library, LibraryComponent, LibraryLook, Theirs } from '../model/app.ts';
import { calledAlike, wordsOf } from './called_alike.ts';
import { type Filling, fillProps } from './fill_props.ts';

/** One of the team's own components that a drawn one may be. */
export interface TheirProposal {
  /** Id of the drawn component. */
  readonly component: string;
  readonly theirs: Theirs;
  readonly lost: Filling['lost'];
  /** Of what theirs needs, what it is not given: it cannot be taken before somebody says what. */
  readonly missing: Filling['missing'];
  /** 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

/** What is at least so sure is taken when all that is sure is taken. */
export const SURE_THEIRS = 0.75;
/** Below this nothing is proposed. */
const LEAST = 0.35;
const MOST_EACH = 5;

/** For each drawn component the team's own that it may be, the likeliest first. Those of which none is any are left out. */
export function proposeTheirs(
  { components, wholes }: Pick<Extraction, 'components' | 'wholes'>,
  { libraries, components: known }: Pick<App, 'libraries' | 'components'>,
): Map<string, readonly TheirProposal[]> {
  const found = new Map<string, readonly TheirProposal[]>();
  for (const drawn of components) {
    const whole = wholes.get(drawn.id);
    if (!whole || !Object.hasOwn(known, drawn.id)) continue;
    const proposals = Object.entries(libraries)
      .flatMap(([id, library]) => fromLibrary(drawn, whole, id, library))
      .sort((a, b) => b.confidence - a.confidence || (a.theirs.component < b.theirs.component ? -1 : 1))
      .slice(0, MOST_EACH);
    if (proposals.length) found.set(drawn.id, proposals);
  }
  return found;
}

const fromLibrary = (
  drawn: Pick<EmittedComponent, 'id' | 'name'>,
  whole: WholeComponent,
  library: string,
  { components }: Library,
): TheirProposal[] =>
  components.flatMap((component) => {
    const named = Math.max(calledAlike(drawn.name, component.name), byRoot(whole, component.name));
    if (named < LEAST) return [];
    const proposal = proposed(drawn, whole, library, component, named);
    return proposal.confidence < LEAST ? [] : [proposal];
  });

/**
 * The proposal of one component for another, whatever they are called: what it would be given, and what of it would be lost.
 * @param named how far both are called alike, 0 to 1
 */
export function proposed(
  drawn: Pick<EmittedComponent, 'id' | 'name'>,
  whole: WholeComponent,
  library: string,
  component: LibraryComponent,
  named = calledAlike(drawn.name, component.name),
): TheirProposal {
  const filling = fillProps(whole, component);
  const looks = component.looks ?? [];
  const look = nearestLook(whole, looks.some((one) => !isPlain(one)) ? looks : []);
  const props = { ...filling.props };
  for (const [name, value] of Object.entries(look?.look.given ?? {}))
    if (!Object.hasOwn(filling.props, name) || filling.props[name].kind === 'fixed')
      props[name] = { kind: 'fixed', value: asSaid(component, name, value) };
  const likely =
    (fitsThere(whole, component) ? 1 : 0) *
    named *
    (0.4 + 0.6 * filling.placed) *
    (look ? 0.6 + 0.4 * look.alike : 0.85) *
    (filling.missing.length ? 0.5 : 1);
  return {
    component: drawn.id,
    theirs: { library, component: component.name, props },
    lost: filling.lost,
    missing: filling.missing,
    confidence: Math.round(likely * 100) / 100,
    reason: reasonFor(drawn.name, component.name, named, filling, look?.alike ?? null),
  };
}

const asSaid = (component: LibraryComponent, name: string, value: string): string | boolean =>
  component.props.find((prop) => prop.name === name)?.type === 'yes-no' ? value === 'true' : value;

function reasonFor(
  drawn: string,
  theirs: string,
  named: number,
  { placed, props }: Filling,
  alike: number | null,
): string {
  const isAround = Object.values(props).some(({ kind }) => kind === 'drawn');
  const said = [
    named === 1
      ? wordsOf(drawn).join() === wordsOf(theirs).join()
        ? 'it is called the same'
        : `it is called ${wordsOf(theirs).join(' ')}, which is the same`
      : named > 0.7
        ? `${drawn} is a kind of ${wordsOf(theirs).join(' ')}`
        : `both are called ${wordsOf(theirs).at(-1)}`,
    isAround
      ? 'what is drawn within it can stand within it'
      : placed === 1
        ? 'all that it says finds a place'
        : `${Math.round(placed * 100)} % of what it says finds a place`,
    ...(alike === null
      ? []
      : [alike > 0.8 ? 'it looks the same' : alike > 0.5 ? 'it looks much alike' : 'it looks otherwise']),
  ];
  return said.join(', ');
}

/** A look that a browser gives an element by itself: the sheet of the library was not there, and it tells nothing. */
const isPlain = ({ background, radius, fontWeight }: LibraryLook): boolean =>
  (lchOf(background)?.alpha === 0 || background === 'rgb(239, 239, 239)') &&
  radius === 0 &&
  fontWeight === 400;

/** Elements that stand only within certain others. */
const BOUND = new Set(['tr', 'td', 'th', 'tbody', 'thead', 'li', 'option', 'dt', 'dd']);

/** Whether theirs can stand where a drawn one does: in the place of a row of a table only one. */
function fitsThere({ root }: WholeComponent, { name, looks = [] }: LibraryComponent): boolean {
  const [look] = looks;
  if (!BOUND.has(root.tag)) return !look || !BOUND.has(look.tag);
  if (look) return look.tag === root.tag;
  return root.tag === 'li' || wordsOf(name).some((word) => word === 'table' || word === root.tag);
}

/** What kind of thing an element is by its tag, where that tells as much as a name. */
const TAG_NAMES: Readonly<Record<string, string>> = {
  button: 'button',
  input: 'field',
  textarea: 'field',
  select: 'select',
  nav: 'nav',
  header: 'header',
  footer: 'footer',
  aside: 'sidebar',
  hr: 'divider',
  progress: 'progress',
};

/** A drawn component whose only element of note is a button is a button, however it is called. */
const BY_TAG = 0.7;
const byRoot = ({ root }: WholeComponent, name: string): number =>
  Object.hasOwn(TAG_NAMES, root.tag) ? BY_TAG * calledAlike(TAG_NAMES[root.tag], name) : 0;

/** Of the looks of one of the team's components the one that is nearest to a drawn one, and how near, 0 to 1. */
function nearestLook(
  whole: WholeComponent,
  looks: readonly LibraryLook[],
): { readonly look: LibraryLook; readonly alike: number } | null {
  const drawn = lookOf(whole);
  let best: { look: LibraryLook; alike: number } | null = null;
  for (const look of looks) {
    const alike = lookAlike(drawn, look);
    if (!best || alike > best.alike) best = { look, alike };
  }
  return best;
}

type Style = Readonly<Record<string, string>>;

/** What a drawn component looks like on the whole: its own look, and that of the text in it. */
function lookOf({ root, rules }: WholeComponent): { readonly own: Style; readonly text: Style } {
  const styleOf = (node: MarkupElement): Style => {
    const name = node.className ?? Object.values(node.variant?.classes ?? {}).find((one) => one !== null);
    return rules.find(({ className }) => className === name)?.base ?? {};
  };
  const text: Record<string, string> = {};
  const visit = (node: MarkupElement): void => {
    const style = styleOf(node);
    for (const property of ['color', 'font-size', 'font-weight'])
      if (style[property] && !text[property]) text[property] = style[property];
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  return { own: styleOf(root), text };
}

const pixels = (value: string | undefined): number | null => {
  const found = /^(-?[\d.]+)(px|rem)?$/.exec(value ?? '');
  return found ? Number(found[1]) * (found[2] === 'rem' ? 16 : 1) : null;
};

/** How far a drawn look and one of the team's are alike: colours by how far apart they look, lengths by their ratio. */
function lookAlike({ own, text }: ReturnType<typeof lookOf>, look: LibraryLook): number {
  const told: number[] = [];
  const colors = (a: string | undefined, b: string, weight: number): void => {
    const [x, y] = [lchOf(a ?? 'transparent'), lchOf(b)];
    if (!x || !y) return;
    const alike =
      x.alpha < 0.1 && y.alpha < 0.1
        ? 1
        : x.alpha < 0.1 !== y.alpha < 0.1
          ? 0
          : Math.exp(-colorsApart(x, y) / 25);
    for (let i = 0; i < weight; i++) told.push(alike);
  };
  const lengths = (a: number | null, b: number): void => {
    if (a !== null) told.push(1 - Math.min(1, Math.abs(a - b) / Math.max(a, b, 1)));
  };
  colors(own['background-color'] ?? own.background, look.background, 3);
  colors(text.color, look.color, 2);
  lengths(Math.min(pixels(own['border-radius']) ?? 0, 24), Math.min(look.radius, 24));
  lengths(pixels(text['font-size']), look.fontSize);
  lengths(pixels(own.height ?? own['min-height']), look.height);
  lengths(pixels(text['font-weight']), look.fontWeight);
  return told.length ? told.reduce((sum, one) => sum + one, 0) / told.length : 0;
}
