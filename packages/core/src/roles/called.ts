import { type Element, nameInCode } from '../model/design.ts';
import { camelCase } from '../model/names.ts';
import { textOf } from '../model/project.ts';

/** Words of classes that say how something looks or is laid out, and not what it is; of no library in particular. */
const LOOKS = new Set(
  'active align antialiased area between bolder bold lighter semibold medium thin italic underline decoration none start end evenly around lead wrapper auto aria absolute bg block bold border bottom box btn center clear clearfix col collapse color column container content current d dark default display div down fade fixed flex float fluid fw full gap grid group gutter gutters h has height hidden hide hover in inline inner is item items js justify large layout left lg light m main margin max mb md me min ml mr ms mt mx my no none offset open order outer overflow p pad padding pb pe pl position pr primary ps pt pull push px py relative responsive right rounded row s secondary selected self shadow show shown shrink sm small spaced spacer spacing static sticky text top uppercase lowercase valign visible w white black width wrap wrapper x xl xs xxl y z ng v el success danger warning info mute muted gray grey red blue green first last odd even expand unstyled smooth truncate transition ring divide blur only full screen gradient'.split(
    ' ',
  ),
);
/** First words of classes that set one property each. */
export const SETS_ONE_PROPERTY: ReadonlySet<string> = new Set(
  'accent align animate around backdrop bg border caret clear col d decoration divide display end flex float font fs fw g gap grid h has hyphens img indent inset is italic items js justify leading m max mb me min ml mr ms mt mx my no nowrap object offset opacity order overflow p pb pe pl peer place position pr ps pt px py ring rotate rounded row saturate self sepia shadow shrink size skew snap space sr stretched subpixel text top touch tracking transition translate truncate underline visible w whitespace z'.split(
    ' ',
  ),
);
/** First words of classes that set one property where all that follows is one of its values: `cursor-pointer`, but `list-item`. */
const PROPERTIES = new Set(
  'appearance aspect basis blur box break columns contrast cursor delay drop duration ease fill from group grow invert isolation line list mix object origin outline pointer resize scale scroll select stroke tabular to transform via will whitespace word'.split(
    ' ',
  ),
);
const VALUES = new Set(
  'all auto black blend border both change clamp colors content current decimal default disc events full hidden hover in inside linear move none normal nowrap nums opacity out outside pointer shadow smooth solid square text through transform transparent unstyled video wait white words'.split(
    ' ',
  ),
);
/** Last words of classes that say from which width on they count, or how large something is. */
const WIDTHS = new Set('expand xs sm md lg xl xxl'.split(' '));
const isDeclaration = ([first, ...rest]: readonly string[]): boolean =>
  PROPERTIES.has(first) && rest.length > 0 && rest.every((word) => VALUES.has(word));

/** Whether classes call what has them a button, whatever its tag is. */
export const saysButton = (classes = ''): boolean => /(^|[\s_-])(btn|button|cta)([\s_-]|$)/i.test(classes);

/** Names that drawing programs give by themselves. */
export const GIVEN = new Set(
  'group frame rectangle rect ellipse circle path vector layer line shape box image bitmap text instance component union subtract mask clip g svg copy'.split(
    ' ',
  ),
);

/** The word of the author for what an element is, if any of its classes has one. */
export function wordOfClasses(classes: string): string {
  let word = wordsKnown.get(classes);
  if (word === undefined) wordsKnown.set(classes, (word = findWord(classes)));
  return word;
}

const wordsKnown = new Map<string, string>();

function findWord(classes: string): string {
  for (const written of classes.split(/\s+/)) {
    // Before a colon stands when it counts: `focus:outline-none`.
    const one = written.replace(/^.*:/, '');
    // What machines make up holds digits and letters in turn.
    if (!one || one.length > 32 || /\d/.test(one)) continue;
    const words = one
      .replace(/([a-z])([A-Z])/g, '$1-$2')
      .toLowerCase()
      .split(/[^a-z]+/)
      .filter(Boolean);
    if (SETS_ONE_PROPERTY.has(words[0]) || isDeclaration(words)) continue;
    const telling = words.filter((word) => word.length > 2 && !LOOKS.has(word) && /[aeiouy]/.test(word));
    if (!telling.length) continue;
    const said = words.filter((word) => word.length > 1);
    // At which width something happens is no part of what it is: `navbar-expand-lg`.
    while (said.length > 1 && WIDTHS.has(said.at(-1)!)) said.pop();
    const kept = said.slice(-3);
    if (kept.some((word) => telling.includes(word))) return camelCase(kept.join(' '));
  }
  return '';
}

/** Largest side of an icon, in px. */
const ICON = 64;
export const isSmall = ({ box }: Element): boolean => box.width <= ICON && box.height <= ICON;

/** Whether all that is in an element is an icon, or would be one if its font were there. */
export const holdsIcon = ({ kind, tag, children }: Element): boolean =>
  kind === 'box' &&
  (tag === 'i' || tag === 'span') &&
  (children.length === 1
    ? children[0].kind === 'vector' && isSmall(children[0])
    : tag === 'i' && !children.length);

/** What a layer is called without the text that it shows. */
export function wordOfLayer(element: Element): string {
  const text = element.drawnText ?? textOf(element);
  const shown = new Set(wordsIn(text));
  const kept = wordsIn(nameInCode(element)).filter((word) => !shown.has(word) && !GIVEN.has(word));
  // What is called after its text is called after nothing else.
  if (!kept.length || kept.every((word) => word.length < 3)) return '';
  if (element.kind === 'text' && element.name === text) return '';
  return camelCase(kept.slice(0, 3).join(' ')).slice(0, 32);
}

/** The words of a text in small letters, without digits and signs. */
export const wordsIn = (text: string): string[] =>
  text
    .normalize('NFKD')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter(Boolean);

/** Whether two elements share a class, or have none. */
export function areCalledAlike(a: Element, b: Element): boolean {
  const of = ({ classes }: Element): string[] => classes?.split(/\s+/) ?? [];
  const others = new Set(of(b));
  return of(a).some((name) => others.has(name)) || (!a.classes && !b.classes);
}
