import type { Declarations } from '../../../model/design.ts';
import { reset } from '../../../vocabulary/reset.ts';
import { drawnUpTo } from '../../../vocabulary/style_values.ts';
import type { StyleRule } from '../markup.ts';

type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;

/** Elements that browsers give a border by themselves. */
const BORDERED = new Set(['input', 'select', 'textarea', 'hr', 'iframe', 'dialog']);
/** The properties of the border on each side. */
const BORDERS = ['top', 'right', 'bottom', 'left'].map((side) => ({
  width: `border-${side}-width`,
  style: `border-${side}-style`,
  color: `border-${side}-color`,
}));
/** Of these `initial` is what they are anyway. */
const NOT_INHERITED = /^(background|border-image|text-decoration|transform|box-shadow|opacity|clip)/;
/** What elements are where nothing says otherwise. */
const INITIALLY: ReadonlyMap<string, RegExp> = new Map(
  Object.entries({
    opacity: /^1$/,
    transform: /^none$/,
    filter: /^none$/,
    'box-shadow': /^none$/,
    'background-image': /^none$/,
    'background-color': /^(transparent|rgba\(0, 0, 0, 0\))$/,
  }),
);
const CURRENT = /^(currentcolor|initial)$/i;

/** Parts that browsers fill with a colour and a gradient, which another colour lies beneath. */
const FILLED_PARTS = /^::-webkit-(meter|progress)/;
const withoutFill = (block: Declarations): Declarations => ({
  ...block,
  ...(block['background-image'] === 'initial' ? { 'background-image': 'none' } : {}),
  ...(block['background-color'] === 'initial' ? { 'background-color': 'transparent' } : {}),
});

/** Elements that browsers fill by themselves. */
const FILLED = new Set(['button', 'input', 'select', 'textarea', 'dialog', 'mark', 'progress', 'meter']);

/** What browsers say of such elements by themselves: they fill them, and what cannot be used is faint. */
const OF_BROWSER = new Set(['background-color', 'opacity']);

const isFocus = (state: string): boolean => state.includes(':focus');
/** Of the element itself, and not of one in it. */
const isOwnFocus = (state: string): boolean => /:focus(-visible)?(?![\w-])/.test(state);

/** Elements that the focus can come to by themselves. */
const FOCUSABLE = new Set(
  'a area audio button details iframe input select summary textarea video'.split(' '),
);

/** Whether all that is said of a property is what holds anyway. */
const isAlways = (blocks: readonly Declarations[], name: string, value: RegExp): boolean =>
  blocks.every((block) => block[name] === undefined || value.test(block[name]));

/**
 * A look without what changes nothing: the width and colour of borders that are never drawn, the colour of lines that are
 * that of the text or are not there, and what the base style sheet says of every element.
 * @param tag of the element that has it
 * @param canFocus whether the focus can come to it whatever its tag is
 */
export function withoutIdle(look: Look, tag: string, canFocus = false): Look {
  const blocks = [look.base, ...[look.at, look.from, look.states].flatMap((table) => Object.values(table))];
  const said = new Set(blocks.flatMap((block) => Object.keys(block)));
  const drops = new Set<string>();
  const isImage = blocks.some((block) => /^url|gradient/.test(block['border-image-source'] ?? ''));
  for (const { width, style, color } of BORDERS) {
    if (!said.has(width) && !said.has(style) && !said.has(color)) continue;
    const widths = blocks.flatMap((block) => block[width] ?? []);
    const first = look.base[width] ?? reset[tag]?.[width];
    const isThin = first === '0px' && widths.every((one) => one === '0px');
    const isDrawn = !isThin && blocks.some((block) => !/^(none|initial)?$/.test(block[style] ?? ''));
    // Where a browser draws one by itself, that it does not is said, and no more.
    const isSaid = BORDERED.has(tag) && look.base[style] !== 'none' && !isThin;
    if (isDrawn || isImage || isSaid) continue;
    const idle = !BORDERED.has(tag) ? [width, style, color] : isThin ? [style, color] : [width, color];
    for (const name of idle) drops.add(name);
  }
  if (!isImage)
    for (const part of ['source', 'slice', 'width', 'outset', 'repeat']) drops.add(`border-image-${part}`);
  const isDecorated = blocks.some((block) => !/^(none|initial)?$/.test(block['text-decoration-line'] ?? ''));
  const isCurrent = blocks.every(
    (block) =>
      block['text-decoration-color'] === undefined ||
      CURRENT.test(block['text-decoration-color']) ||
      block['text-decoration-color'] === block.color,
  );
  if (!isDecorated || isCurrent) drops.add('text-decoration-color');
  if (!isDecorated) for (const part of ['style', 'thickness']) drops.add(`text-decoration-${part}`);
  for (const name of said) {
    const initial = INITIALLY.get(name);
    if (initial && !(FILLED.has(tag) && OF_BROWSER.has(name)) && isAlways(blocks, name, initial))
      drops.add(name);
  }
  // Around what has the focus browsers draw a line by themselves, and around nothing else.
  const calm = Object.keys(look.states).filter((state) => !isFocus(state));
  const unfocused = [look.base, ...calm.map((state) => look.states[state])];
  const hasNoLine =
    [...said].some((name) => name.startsWith('outline-')) &&
    (isAlways(unfocused, 'outline-style', /^none$/) || isAlways(unfocused, 'outline-width', /^0(px)?$/));
  if (hasNoLine) {
    const isDrawn = Object.entries(look.states).some(
      ([state, block]) => isFocus(state) && Object.keys(block).some((name) => name.startsWith('outline-')),
    );
    const isReached = canFocus || FOCUSABLE.has(tag);
    // A line that is not there has no colour; around what the focus never comes to it never is.
    for (const part of !isDrawn && !isReached
      ? ['width', 'style', 'color', 'offset']
      : isDrawn
        ? []
        : ['color', 'offset'])
      drops.add(`outline-${part}`);
  }
  /** @param own whether a block is of an element of its own, of which the base says nothing */
  const keep = (block: Declarations, own = false, state = ''): Declarations => {
    const names = Object.keys(block);
    const isIdle = (name: string): boolean =>
      drops.has(name) ||
      (state !== '' && !isFocus(state) && hasNoLine && name.startsWith('outline-')) ||
      (own && name === 'box-sizing' && block[name] === 'border-box') ||
      (block[name] === 'initial' &&
        NOT_INHERITED.test(name) &&
        (own || block === look.base || !(name in look.base)));
    return names.some(isIdle)
      ? Object.fromEntries(Object.entries(block).filter(([name]) => !isIdle(name)))
      : block;
  };
  const all = (table: Readonly<Record<string, Declarations>>, areStates = false) =>
    Object.fromEntries(
      Object.entries(table).flatMap(([key, block]) => {
        if (areStates && isOwnFocus(key) && !canFocus && !FOCUSABLE.has(tag)) return [];
        // In narrow windows all that is said is said otherwise than before.
        if (drawnUpTo(key)) return [[key, block]];
        const kept = keep(
          FILLED_PARTS.test(key) ? withoutFill(block) : block,
          areStates && key.startsWith('::'),
          areStates ? key : '',
        );
        return Object.keys(kept).length ? [[key, kept]] : [];
      }),
    );
  return { base: keep(look.base), at: all(look.at), from: all(look.from), states: all(look.states, true) };
}
