import type { Declarations, Element, Screen, VectorNode } from '../model/design.ts';
import { kebabCase } from '../model/names.ts';
import { textOf } from '../model/project.ts';
import { labelOfField, textsIn } from './fields.ts';
import type { RoleDetail } from './names.ts';
import { channelsOf, isPale, rootOf, type Sight, sightOf } from './sight.ts';

/** What was decided about the roles of a screen's elements, by element key. */
export type RoleDecisions = ReadonlyMap<string, RoleDetail>;

/**
 * The root of a screen after what was decided about roles: drawn fields are inputs with their label and placeholder,
 * drawn checkboxes real ones, headings headings. An element that nothing was decided about stays the same value.
 */
export function applyRoles(screen: Screen, decisions: RoleDecisions): Element {
  if (!decisions.size) return screen.root;
  const { byKey } = sightOf(screen);
  const labels = labelsOf(decisions, byKey);
  const visit = (element: Element): Element => {
    const children = element.children.map(visit);
    const isSame = children.every((child, i) => child === element.children[i]);
    const inside = isSame ? element : { ...element, children };
    const detail = decisions.get(element.key);
    const labelled = labels.byLabel.get(element.key);
    if (labelled) return withTag(inside, 'label', { for: labelled });
    const sight = byKey.get(element.key);
    return detail && sight && element !== screen.root
      ? asRole(inside, detail, sight, labels.byField.get(element.key) ?? null)
      : inside;
  };
  return visit(screen.root);
}

interface Labels {
  /** Id of the field, by the key of its label. */
  readonly byLabel: ReadonlyMap<string, string>;
  /** Id that a field gets for its label, by the key of the field. */
  readonly byField: ReadonlyMap<string, string>;
}

/** Which texts become labels of which fields. */
function labelsOf(decisions: RoleDecisions, sights: ReadonlyMap<string, Sight>): Labels {
  const byLabel = new Map<string, string>();
  const byField = new Map<string, string>();
  for (const [key, { role }] of decisions) {
    const sight = sights.get(key);
    if (!sight || sight.isAuthored) continue;
    const label = ['textbox', 'combobox', 'slider'].includes(role)
      ? labelOfField(sight)
      : ['checkbox', 'radio', 'switch'].includes(role)
        ? textBeside(sight)
        : null;
    const decided = label && decisions.get(label.element.key)?.role;
    if (!label || byLabel.has(label.element.key) || (decided && decided !== 'label')) continue;
    const id = `field-${kebabCase(sight.element.source.path)}`;
    byLabel.set(label.element.key, id);
    byField.set(key, id);
  }
  return { byLabel, byField };
}

/** The text that stands next to a small control. */
function textBeside(sight: Sight): Sight | null {
  const around = sight.parent?.children ?? [];
  return (
    [around[sight.index + 1], around[sight.index - 1]].find(
      (other) => other?.element.kind === 'text' && !!other.text && other.text.length < 120,
    ) ?? null
  );
}

function withTag(element: Element, tag: string, attributes: Readonly<Record<string, string>> = {}): Element {
  const css: Declarations = INLINE.has(tag) && !('display' in element.style.base) ? { display: 'block' } : {};
  return {
    ...element,
    tag,
    ...(Object.keys(attributes).length ? { attributes: { ...element.attributes, ...attributes } } : {}),
    ...(Object.keys(css).length
      ? { style: { ...element.style, base: { ...css, ...element.style.base } } }
      : {}),
  };
}

const INLINE = new Set(['button', 'label', 'input', 'select', 'textarea']);

const withAttributes = (element: Element, attributes: Readonly<Record<string, string>>): Element => ({
  ...element,
  attributes: { ...element.attributes, ...attributes },
});

function asRole(element: Element, detail: RoleDetail, sight: Sight, labelId: string | null): Element {
  const { role } = detail;
  const label = detail.label || element.attributes?.['aria-label'] || element.name;
  const made: Element = { ...element, role };
  switch (role) {
    case 'button':
      if (element.kind === 'vector' || element.kind === 'image') return pressedPicture(made, label);
      if (sight.isAuthored && ['a', 'button', 'input'].includes(element.tag ?? '')) return made;
      return withTag(made, 'button', textOf(element) ? {} : { 'aria-label': label });
    case 'textbox':
      return sight.isAuthored && isControl(element) ? made : textField(made, detail, sight, labelId, label);
    case 'combobox':
      return sight.isAuthored && isControl(element) ? made : select(made, sight, labelId, label);
    case 'checkbox':
    case 'radio':
    case 'switch':
      return sight.isAuthored && isControl(element) ? made : tick(made, detail, sight, labelId, label);
    case 'slider':
      return sight.isAuthored && isControl(element) ? made : slider(made, sight, labelId, label);
    case 'progressbar':
      return withAttributes(made, {
        role: 'progressbar',
        'aria-valuemin': '0',
        'aria-valuemax': '100',
        'aria-valuenow': String(Math.round(100 * filledShare(sight))),
        'aria-label': label,
      });
    case 'image':
    case 'avatar':
    case 'chart':
      return pictured(made, role === 'chart' ? `${detail.chart ?? 'bar'} chart: ${label}` : label);
    case 'icon':
      return withAttributes(made, element.kind === 'image' ? { alt: '' } : { 'aria-hidden': 'true' });
    case 'heading':
      return element.kind === 'text' || sight.hasOwnText ? withTag(made, `h${detail.level ?? 2}`) : made;
    case 'paragraph':
      return element.kind === 'text' ? withTag(made, 'p') : made;
    case 'list': {
      const isPlain = element.children.every((child) => child.hidden || child.role === 'listitem');
      if (!isPlain) return withAttributes(made, { role: 'list' });
      return withTag({ ...made, children: made.children.map((child) => withTag(child, 'li')) }, 'ul');
    }
    case 'table':
    case 'row':
    case 'cell':
    case 'columnheader':
    case 'tablist':
    case 'separator':
      return withAttributes(made, { role });
    case 'radiogroup':
    case 'dialog':
      return withAttributes(made, { role, 'aria-label': label });
    case 'tab':
      return withTag(made, 'button', { role: 'tab' });
    default:
      return Object.hasOwn(LANDMARKS, role) && element.kind === 'box'
        ? withTag(made, LANDMARKS[role as keyof typeof LANDMARKS])
        : made;
  }
}

const LANDMARKS = { navigation: 'nav', banner: 'header', contentinfo: 'footer', form: 'form' } as const;
const isControl = ({ tag }: Element): boolean => ['input', 'select', 'textarea'].includes(tag ?? '');

/** A picture that can be pressed: the button takes its place, the picture fills it. */
function pressedPicture(element: Element, label: string): Element {
  const { vector: _vector, asset: _asset, attributes: _attributes, ...rest } = element;
  const picture: Element = {
    ...element,
    key: `${element.key}~drawing`,
    role: 'icon',
    attributes: element.kind === 'image' ? { alt: '' } : { 'aria-hidden': 'true' },
    style: { base: { display: 'block', width: '100%', height: '100%' } },
    source: { ...element.source, path: `${element.source.path}~drawing` },
  };
  return {
    ...rest,
    kind: 'box',
    tag: 'button',
    attributes: { 'aria-label': label },
    style: { ...element.style, base: { display: 'block', ...element.style.base } },
    children: [picture],
  };
}

const pictured = (element: Element, label: string): Element =>
  element.kind === 'image'
    ? withAttributes(element, { alt: label })
    : withAttributes(element, { role: 'img', 'aria-label': label });

/** The styles of text that a control has to say itself, since its text is no element any more. */
const TEXT_STYLES = [
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'line-height',
  'letter-spacing',
  'color',
];

const px = (n: number): string => `${Math.round(n * 100) / 100}px`;

/** The look of a drawn control without the layout of what stood in it. */
function shellOf(element: Element, texts: readonly Sight[]): { base: Declarations; text: Sight | null } {
  const [text = null] = texts;
  const base: Record<string, string> = {};
  for (const [name, value] of Object.entries(element.style.base))
    if (!/^(padding|flex-direction|align-items|justify-content|row-gap|column-gap|min-height$)/.test(name))
      base[name] = value;
  if (base.display === 'flex') base.display = 'block';
  if (text) {
    for (const name of TEXT_STYLES) {
      const value = text.element.style.base[name];
      if (value !== undefined) base[name] = value;
    }
    const border = parseFloat(element.style.base['border-left-width'] ?? '0');
    const left = Math.max(0, text.element.box.x - element.box.x - border);
    base['padding-left'] = px(left);
    base['padding-right'] = px(Math.min(16, left));
  }
  if (!base.height && element.box.height) base.height = px(element.box.height);
  return { base: { 'min-width': '0px', ...base }, text };
}

function textField(
  element: Element,
  { input = 'text' }: RoleDetail,
  sight: Sight,
  labelId: string | null,
  label: string,
): Element {
  const { base, text } = shellOf(element, textsIn(sight));
  const isMultiline = input === 'multiline';
  const placeholder = text?.text ?? '';
  const { color, ...rest } = base;
  const dark = sight.parent ? sight.parent.color : '#000';
  const css: Record<string, string> = { ...rest, ...(text ? { color: dark } : color ? { color } : {}) };
  if (isMultiline && text) {
    css['padding-top'] = px(Math.max(0, text.element.box.y - element.box.y));
    css.resize = 'vertical';
  }
  // What lay beneath or beside the text in the drawn field stays beneath the real one.
  const others = element.children.filter((child) => child.kind !== 'text' && !holdsText(child));
  const field: Element = {
    ...withoutPicture(element),
    kind: 'control',
    tag: isMultiline ? 'textarea' : 'input',
    attributes: {
      ...(isMultiline ? {} : { type: input }),
      ...(placeholder ? { placeholder } : {}),
      ...(labelId ? { id: labelId } : { 'aria-label': placeholder || label }),
    },
    style: {
      ...element.style,
      base: css,
      ...(text ? { placeholder: { color: text.color, opacity: '1' } } : {}),
    },
    children: [],
  };
  return others.length ? withBackdrop(element, field, others) : field;
}

const holdsText = (element: Element): boolean => !!element.text?.trim() || element.children.some(holdsText);

function withoutPicture(element: Element): Element {
  const { text: _text, vector: _vector, asset: _asset, ...rest } = element;
  return rest;
}

/** A control whose drawing holds more than text: the drawing stays, the control covers it and is clear. */
function withBackdrop(element: Element, field: Element, others: readonly Element[]): Element {
  const { box } = element;
  const inner: Element = {
    ...field,
    key: `${element.key}~control`,
    source: { ...element.source, path: `${element.source.path}~control` },
    style: {
      ...field.style,
      base: {
        ...Object.fromEntries(Object.entries(field.style.base).filter(([name]) => CONTROL_TEXT.test(name))),
        position: 'absolute',
        top: '0px',
        right: '0px',
        bottom: '0px',
        left: '0px',
        width: '100%',
        height: '100%',
        'background-color': 'transparent',
        ...NO_BORDER,
        'border-top-left-radius': 'inherit',
        'border-top-right-radius': 'inherit',
        'border-bottom-right-radius': 'inherit',
        'border-bottom-left-radius': 'inherit',
      },
    },
  };
  const { padding: _padding, ...base } = element.style.base;
  return {
    ...element,
    role: 'none',
    style: {
      ...element.style,
      base: { ...base, position: base.position ?? 'relative', height: base.height ?? px(box.height) },
    },
    children: [...others.map((other) => withAttributes(other, { 'aria-hidden': 'true' })), inner],
  };
}

const CONTROL_TEXT = /^(font|line-height|letter-spacing|color$|padding|resize|text-align)/;
const NO_BORDER: Declarations = Object.fromEntries(
  ['top', 'right', 'bottom', 'left'].flatMap((side) => [
    [`border-${side}-width`, '0px'],
    [`border-${side}-style`, 'none'],
  ]),
);

function select(element: Element, sight: Sight, labelId: string | null, label: string): Element {
  const { base, text } = shellOf(element, textsIn(sight));
  const shown = (text?.text ?? sight.text).replace(/\s*[▾▼⌄˅]\s*$/, '') || label;
  return {
    ...withoutPicture(element),
    kind: 'control',
    tag: 'select',
    attributes: labelId ? { id: labelId } : { 'aria-label': label },
    style: { ...element.style, base },
    children: [
      {
        key: `${element.key}~option`,
        kind: 'text',
        name: shown,
        tag: 'option',
        text: shown,
        box: element.box,
        style: { base: {} },
        children: [],
        source: { ...element.source, path: `${element.source.path}~option` },
      },
    ],
  };
}

/** A checkbox, a radio button or a switch. What was drawn with a mark in it is on. */
function tick(
  element: Element,
  { role }: RoleDetail,
  sight: Sight,
  labelId: string | null,
  label: string,
): Element {
  const { box } = element;
  const said = element.attributes?.['aria-checked'];
  const isOn = said ? said === 'true' : role === 'switch' ? isKnobAtEnd(sight) : hasMark(element);
  const accent = accentOf(element);
  const place = placeOf(element.style.base);
  const common = {
    type: role === 'radio' ? 'radio' : 'checkbox',
    ...(isOn ? { checked: '' } : {}),
    ...(role === 'radio' ? { name: groupOf(sight) } : {}),
    ...(labelId ? { id: labelId } : { 'aria-label': label }),
  };
  const size = { width: px(box.width), height: px(box.height), 'flex-shrink': '0' };
  const made: Element = {
    ...withoutPicture(element),
    kind: 'control',
    tag: 'input',
    children: [],
    style: {
      base: {
        display: 'block',
        ...place,
        ...size,
        ...MARGINS,
        ...marginsOf(element.style.base),
        ...(accent ? { 'accent-color': accent } : {}),
      },
    },
    attributes: common,
  };
  return role === 'switch' ? asSwitch(made, element, sight, isOn) : made;
}

const MARGINS: Declarations = {
  'margin-top': '0px',
  'margin-right': '0px',
  'margin-bottom': '0px',
  'margin-left': '0px',
};
const marginsOf = (base: Declarations): Declarations =>
  Object.fromEntries(Object.entries(base).filter(([name]) => name.startsWith('margin-')));
const placeOf = (base: Declarations): Declarations =>
  Object.fromEntries(
    Object.entries(base).filter(([name]) =>
      /^(position|top|right|bottom|left|align-self|order|transform)$/.test(name),
    ),
  );

const groupOf = (sight: Sight): string =>
  `choice-${kebabCase((sight.parent?.parent ?? sight.parent ?? sight).element.source.path) || 'one'}`;

const hasMark = (element: Element): boolean =>
  element.children.length > 0 ||
  (element.vector?.children.filter((node) => node.tag !== 'rect' && node.tag !== 'circle').length ?? 0) > 0;

/** The strongest colour of a drawn control. */
function accentOf(element: Element): string | null {
  const fill = element.style.base['background-color'];
  const colors: (string | undefined)[] = [];
  const visit = (node: VectorNode): void => {
    colors.push(node.attributes.fill, node.attributes.stroke);
    node.children.forEach(visit);
  };
  element.vector?.children.forEach(visit);
  const drawn = colors.find(
    (color) => color && color !== 'none' && !/^(#fff(fff)?|white|currentcolor)$/i.test(color),
  );
  return drawn ?? (fill && !/^(#fff(fff)?|white|rgb\(255, 255, 255\))$/i.test(fill) ? fill : null);
}

function isKnobAtEnd({ element, children }: Sight): boolean {
  const knob = children[0]?.element.box;
  if (knob) return knob.x + knob.width / 2 > element.box.x + element.box.width / 2;
  const middles: number[] = [];
  const visit = (node: VectorNode): void => {
    const { cx, x, width } = node.attributes;
    if (node.tag === 'circle') middles.push(Number(cx));
    else if (node.tag === 'rect') middles.push(Number(x ?? 0) + Number(width) / 2);
    node.children.forEach(visit);
  };
  element.vector?.children.forEach(visit);
  return middles.length === 2 && middles[1] > middles[0];
}

/** A switch keeps its drawn pill and knob; the knob goes to the other end when it is switched. */
function asSwitch(made: Element, drawn: Element, sight: Sight, isOn: boolean): Element {
  const knob = sight.children[0]?.element;
  const pill = drawn.style.base['background-color'] ?? accentOf(drawn) ?? '#555';
  const on = isOn || isColored(pill) ? pill : (strongestAround(sight) ?? '#1b6e53');
  const gap = knob ? Math.max(1, knob.box.y - drawn.box.y) : 2;
  const size = knob ? knob.box.height : drawn.box.height - 4;
  const travel = drawn.box.width - size - 2 * gap;
  return {
    ...made,
    attributes: { ...made.attributes, role: 'switch' },
    style: {
      base: {
        ...made.style.base,
        appearance: 'none',
        position: made.style.base.position ?? 'relative',
        'background-color': isOn ? '#b9bfbb' : pill,
        'border-top-left-radius': '999px',
        'border-top-right-radius': '999px',
        'border-bottom-right-radius': '999px',
        'border-bottom-left-radius': '999px',
        cursor: 'pointer',
      },
      before: {
        content: '""',
        position: 'absolute',
        top: px(gap),
        left: px(gap),
        width: px(size),
        height: px(size),
        'background-color': knob?.style.base['background-color'] ?? '#fff',
        'border-top-left-radius': '50%',
        'border-top-right-radius': '50%',
        'border-bottom-right-radius': '50%',
        'border-bottom-left-radius': '50%',
      },
      states: {
        ':checked': { 'background-color': on },
        ':checked::before': { transform: `translateX(${px(travel)})` },
      },
    },
  };
}

/** Whether a colour is more than a grey. */
function isColored(color: string): boolean {
  const [r, g, b, alpha] = channelsOf(color) ?? [0, 0, 0, 0];
  return alpha > 0.5 && Math.max(r, g, b) - Math.min(r, g, b) > LEAST_CHROMA;
}
/** Of 255. */
const LEAST_CHROMA = 24;

/** The colour that most of what is filled on the screen of an element has, greys left out. */
function strongestAround(sight: Sight): string | null {
  const counts = new Map<string, number>();
  const visit = ({ element, children }: Sight): void => {
    const fill = element.style.base['background-color'];
    if (fill && isColored(fill) && !isPale(fill)) counts.set(fill, (counts.get(fill) ?? 0) + 1);
    children.forEach(visit);
  };
  visit(rootOf(sight));
  return (
    [...counts].reduce<[string, number] | null>(
      (best, one) => (!best || one[1] > best[1] ? one : best),
      null,
    )?.[0] ?? null
  );
}

function filledShare({ element, children }: Sight): number {
  const bar = children[0]?.element.box;
  return bar && element.box.width ? Math.min(1, bar.width / element.box.width) : 0;
}

function slider(element: Element, sight: Sight, labelId: string | null, label: string): Element {
  const value = Math.round(100 * filledShare(sight));
  const accent = sight.children[0]?.element.style.base['background-color'];
  return {
    ...withoutPicture(element),
    kind: 'control',
    tag: 'input',
    children: [],
    attributes: {
      type: 'range',
      min: '0',
      max: '100',
      value: String(value),
      ...(labelId ? { id: labelId } : { 'aria-label': label }),
    },
    style: {
      base: {
        display: 'block',
        ...placeOf(element.style.base),
        ...MARGINS,
        ...marginsOf(element.style.base),
        width: element.style.base.width ?? '100%',
        ...(accent ? { 'accent-color': accent } : {}),
      },
    },
  };
}
