import { roleOf } from '../roles/role.ts';
import { type Change, putAdded } from '../change/change.ts';
import type { Added, AddedKind, App } from '../model/app.ts';
import type { Declarations, Design, Element } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { onceFor } from '../json/once_for.ts';

/** A screen's root with what a person put on it. What stands nowhere any more stands at the end. */
export function withAdded(
  root: Element,
  added: readonly (readonly [key: string, added: Added])[],
  styles: ControlStyles,
): Element {
  if (!added.length) return root;
  const made = added.map(([key, value]) => ({ value, element: build(key, value, styles, root) }));
  const placed = new Set<Element>();
  const visit = (element: Element): Element => {
    const own = made.filter(({ value }) => value.within === element.key);
    let children: readonly Element[] = element.children.map(visit);
    for (const { value, element: inner } of own) {
      const at = value.after ? children.findIndex((child) => child.key === value.after) + 1 : 0;
      children = children.toSpliced(at, 0, inner);
      placed.add(inner);
    }
    const isSame =
      children.length === element.children.length && children.every((c, i) => c === element.children[i]);
    return isSame ? element : { ...element, children };
  };
  const result = visit(root);
  const left = made.filter(({ element }) => !placed.has(element)).map(({ element }) => element);
  return left.length ? { ...result, children: [...result.children, ...left] } : result;
}

/** How the controls of a design look: the most frequent look of each kind. */
export interface ControlStyles {
  readonly button: Declarations;
  readonly field: Declarations;
  readonly text: Declarations;
  readonly rule: string;
}

/** How the controls of a design look; found once a design. */
export const controlStyles = onceFor(findStyles);

const LOOK =
  /^(background-color|color|font-(family|size|weight)|line-height|letter-spacing|border-|box-shadow|text-transform)/;

const PLAIN: ControlStyles = {
  button: {
    'background-color': '#22302b',
    color: '#ffffff',
    'font-size': '16px',
    'font-weight': '600',
    ...sides('border', '-radius', '6px'),
  },
  field: { 'background-color': '#ffffff', 'font-size': '16px', ...border('#87938c') },
  text: { 'font-size': '16px' },
  rule: '#c6cdc4',
};

function sides(prefix: string, suffix: string, value: string): Declarations {
  return Object.fromEntries(
    ['top-left', 'top-right', 'bottom-right', 'bottom-left'].map((corner) => [
      `${prefix}-${corner}${suffix}`,
      value,
    ]),
  );
}

function border(color: string): Declarations {
  return Object.fromEntries(
    ['top', 'right', 'bottom', 'left'].flatMap((side) => [
      [`border-${side}-width`, '1px'],
      [`border-${side}-style`, 'solid'],
      [`border-${side}-color`, color],
    ]),
  );
}

function findStyles(design: Design): ControlStyles {
  const votes = {
    button: new Map<string, number>(),
    field: new Map<string, number>(),
    text: new Map<string, number>(),
  };
  const vote = (table: Map<string, number>, css: Declarations): void => {
    const look = Object.fromEntries(Object.entries(css).filter(([name]) => LOOK.test(name)));
    if (Object.keys(look).length < 2) return;
    const words = JSON.stringify(look);
    table.set(words, (table.get(words) ?? 0) + 1);
  };
  for (const screen of design.screens)
    walkElements(screen.root, (element) => {
      const role = roleOf(element);
      const { base } = element.style;
      if (role === 'button' && base['background-color']) {
        const text = element.children.find((child) => child.kind === 'text')?.style.base ?? {};
        vote(votes.button, { ...text, ...base, ...(text.color ? { color: text.color } : {}) });
      } else if (role === 'textbox') {
        const frame = base['border-top-width']
          ? element
          : element.children.find((c) => c.style.base['border-top-width']);
        if (frame)
          vote(votes.field, {
            ...frame.children.find((c) => c.kind === 'text')?.style.base,
            ...frame.style.base,
            color: '',
          });
      } else if (element.kind === 'text' && (element.text?.length ?? 0) > 30) vote(votes.text, base);
    });
  const best = (table: Map<string, number>, otherwise: Declarations): Declarations => {
    const [first] = [...table].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
    if (!first) return otherwise;
    const { color, ...look } = JSON.parse(first[0]) as Record<string, string>;
    return color ? { ...look, color } : look;
  };
  const field = best(votes.field, PLAIN.field);
  return {
    button: best(votes.button, PLAIN.button),
    field,
    text: best(votes.text, PLAIN.text),
    rule: field['border-top-color'] ?? PLAIN.rule,
  };
}

/** Names of what can be added, in people's words. */
export const ADDED_KINDS: Readonly<Record<AddedKind, { readonly label: string; readonly text: string }>> = {
  button: { label: 'Button', text: 'Button' },
  field: { label: 'Text field', text: 'Label' },
  select: { label: 'Select', text: 'First\nSecond' },
  list: { label: 'List', text: 'One\nTwo\nThree' },
  table: { label: 'Table', text: 'Name | Date\nFirst | Monday\nSecond | Tuesday' },
  divider: { label: 'Divider', text: '' },
  message: { label: 'Message', text: 'Something to say' },
};

function build(key: string, { kind, text }: Added, styles: ControlStyles, root: Element): Element {
  let count = 0;
  const path = `~${key}`;
  const width = Math.max(80, root.box.width - 48);
  const make = (
    tag: string,
    base: Declarations,
    content: string | readonly Element[],
    attributes?: Readonly<Record<string, string>>,
  ): Element => {
    const isOuter = count === 0;
    const part = isOuter ? '' : `~${count}`;
    count++;
    return {
      key: key + part,
      kind:
        tag === 'input' || tag === 'select'
          ? 'control'
          : typeof content === 'string' && content
            ? 'text'
            : 'box',
      name: typeof content === 'string' && content ? content : ADDED_KINDS[kind].label,
      tag,
      box: { x: 24, y: root.box.height, width, height: 44 },
      style: { base },
      children: typeof content === 'string' ? [] : content,
      ...(typeof content === 'string' && content ? { text: content } : {}),
      ...(attributes ? { attributes } : {}),
      source: { file: root.source.file, path: path + part },
    };
  };
  /** The outermost is made first, since it takes the key as it is. */
  const outer = (
    tag: string,
    base: Declarations,
    inner: () => readonly Element[],
    attributes?: Readonly<Record<string, string>>,
  ): Element => ({
    ...make(tag, base, [], attributes),
    children: inner(),
  });
  const pad = {
    'padding-top': '10px',
    'padding-right': '16px',
    'padding-bottom': '10px',
    'padding-left': '16px',
  };
  const lines = text.split('\n').filter((line) => line.trim());
  switch (kind) {
    case 'button':
      return {
        ...make(
          'button',
          { display: 'block', 'text-align': 'center', ...styles.button, ...pad },
          text || 'Button',
        ),
        role: 'button',
      };
    case 'field':
      return outer('div', { display: 'flex', 'flex-direction': 'column', 'row-gap': '6px' }, () => {
        const id = `field-${path.replace(/\W+/g, '')}`;
        return [
          make('label', { ...styles.text, 'font-size': '14px' }, text || 'Label', { for: id }),
          make('input', { ...styles.field, ...pad, width: '100%' }, [], { type: 'text', id }),
        ];
      });
    case 'select':
      return outer(
        'select',
        { display: 'block', ...styles.field, ...pad },
        () => lines.map((line) => make('option', {}, line)),
        { 'aria-label': lines[0] ?? 'Choice' },
      );
    case 'list':
      return outer('ul', { ...styles.text, 'list-style-type': 'disc', 'padding-left': '20px' }, () =>
        lines.map((line) => make('li', {}, line)),
      );
    case 'table':
      return outer('table', { ...styles.text, width: '100%' }, () => [
        outer('tbody', {}, () =>
          lines.map((line, i) =>
            outer('tr', { ...bottomLine(styles.rule) }, () =>
              line.split('|').map((cell) =>
                make(
                  i ? 'td' : 'th',
                  {
                    'text-align': 'left',
                    'padding-top': '8px',
                    'padding-right': '12px',
                    'padding-bottom': '8px',
                    ...(i ? {} : { 'font-weight': '600' }),
                  },
                  cell.trim() || ' ',
                ),
              ),
            ),
          ),
        ),
      ]);
    case 'divider':
      return make(
        'hr',
        {
          ...bottomLine(styles.rule),
          'border-top-width': '0px',
          'border-left-width': '0px',
          'border-right-width': '0px',
          'margin-top': '12px',
          'margin-right': '0px',
          'margin-bottom': '12px',
          'margin-left': '0px',
          width: '100%',
        },
        [],
      );
    case 'message':
      return make(
        'p',
        {
          ...styles.text,
          ...pad,
          'border-left-width': '3px',
          'border-left-style': 'solid',
          'border-left-color': styles.button['background-color'] ?? styles.rule,
        },
        text || 'Message',
        { role: 'status' },
      );
  }
}

const bottomLine = (color: string): Declarations => ({
  'border-bottom-width': '1px',
  'border-bottom-style': 'solid',
  'border-bottom-color': color,
});

/** The change that takes an added control away again; null for what was drawn. */
export function addedControl(app: App, elementKey: string): Change | null {
  const key = addedWith(app, elementKey);
  return key ? putAdded(key, null) : null;
}

/** The added control that an element is, or is a part of: parts are kept under its key and a number. */
export const addedWith = (app: App, elementKey: string): string | undefined =>
  Object.hasOwn(app.added, elementKey)
    ? elementKey
    : Object.keys(app.added).find((added) => elementKey.startsWith(`${added}~`));

/** A key for a control that is added to a screen, which no other has. */
export function freeAddedKey(app: App, screen: string): string {
  for (let n = 1; ; n++) if (!app.added[`${screen}:+${n}`]) return `${screen}:+${n}`;
}
