import type { Arrival } from '../model/app.ts';
import { isText, type MarkupElement, type MarkupNode } from './markup.ts';

/** Text with, for each of its lines, the design element that the line writes. */
export interface PrintedCode {
  readonly text: string;
  readonly lines: readonly (string | null)[];
}

export interface TsxOptions {
  readonly component: string;
  readonly hasStyles: boolean;
  /** The import name and path of a picture. */
  readonly assetImport: (hash: string) => { readonly name: string; readonly path: string };
  /** From the screen's file to the folder of the navigation. */
  readonly navigation: string;
}

/** Lines are at most this long, as in the project's formatter settings. */
export const PRINT_WIDTH = 100;

interface Line {
  readonly text: string;
  readonly key: string | null;
}

/** Prints a screen as a React component in the form that Prettier gives it. */
export function printTsx(root: MarkupElement, options: TsxOptions): PrintedCode {
  const used: Used = { go: false, back: false, hook: false, pressable: false, assets: new Map(), options };
  const body = printElement(root, 2, used);
  const navigation = [
    used.back && 'Back',
    used.go && 'Go',
    used.pressable && 'pressable',
    used.hook && 'useGo',
  ].filter((name) => typeof name === 'string');
  const head: Line[] = [];
  const put = (text: string): void => void head.push({ text, key: null });
  if (navigation.length) put(`import { ${navigation.join(', ')} } from '${options.navigation}';`);
  for (const [name, path] of [...used.assets].sort()) put(`import ${name} from '${path}';`);
  if (options.hasStyles) put(`import styles from './${options.component}.module.css';`);
  if (head.length) put('');
  put(`export function ${options.component}() {`);
  if (used.hook) {
    put('  const go = useGo();');
    put('');
  }
  const only = body.length === 1 ? `  return ${body[0].text.trim()};` : '';
  const isOneLine = only !== '' && only.length <= PRINT_WIDTH;
  const lines: Line[] = isOneLine
    ? [...head, { text: only, key: body[0].key }, { text: '}', key: null }]
    : [
        ...head,
        { text: '  return (', key: null },
        ...body.map((line) => ({ ...line, text: `    ${line.text.slice(2)}` })),
        { text: '  );', key: null },
        { text: '}', key: null },
      ];
  return {
    text: `${lines.map((line) => line.text.trimEnd()).join('\n')}\n`,
    lines: lines.map((line) => line.key),
  };
}

interface Used {
  go: boolean;
  back: boolean;
  hook: boolean;
  pressable: boolean;
  readonly assets: Map<string, string>;
  readonly options: TsxOptions;
}

const pad = (depth: number): string => '  '.repeat(depth - 1);
/** Two more than the pad: the component's body stands within `return (`. */
const room = (depth: number): number => PRINT_WIDTH - 2 * depth;

function printElement(node: MarkupElement, depth: number, used: Used): Line[] {
  const { tag, attributes } = openingOf(node, used);
  const key = node.key;
  const line = (text: string): Line => ({ text: pad(depth) + text, key });
  const open = [`<${tag}`, ...attributes].join(' ');
  const parts = partsOf(node.children);
  if (!parts.length) {
    if (`${open} />`.length <= room(depth) || staysOnLine(attributes)) return [line(`${open} />`)];
    return [line(`<${tag}`), ...attributeLines(attributes, depth, key), line('/>')];
  }
  const isPlain = parts.every((part) => typeof part === 'string');
  const flat = isPlain ? `${open}>${parts.join('')}</${tag}>` : null;
  const opening =
    `${open}>`.length <= room(depth) || staysOnLine(attributes)
      ? [line(`${open}>`)]
      : [line(`<${tag}`), ...attributeLines(attributes, depth, key), line('>')];
  // Prettier breaks the children of an element that has several attributes, however short they are.
  if (flat && flat.length <= room(depth) && attributes.length < 2) return [line(flat)];
  return [...opening, ...fill(parts, depth + 1, key, used), line(`</${tag}>`)];
}

/** A single attribute that is a plain string is never put on a line of its own, however long it is. */
const staysOnLine = (attributes: readonly string[]): boolean =>
  attributes.length === 0 || (attributes.length === 1 && /^[\w-]+=["'][^\n]*["']$/.test(attributes[0]));

const attributeLines = (attributes: readonly string[], depth: number, key: string | null): Line[] =>
  attributes.flatMap((attribute) =>
    attribute.split('\n').map((text) => ({ text: pad(depth + 1) + text, key })),
  );

/** Children as text pieces and elements. Text that JSX would change is written as an expression. */
function partsOf(children: readonly MarkupNode[]): (string | MarkupElement)[] {
  const parts: (string | MarkupElement)[] = [];
  for (const child of children) {
    if (!isText(child)) parts.push(child);
    else if (child.text !== '')
      parts.push(needsExpression(child.text) ? `{${quote(child.text)}}` : escapeJsx(child.text));
  }
  return parts;
}

const needsExpression = (text: string): boolean =>
  /\n| {2}|\t/.test(text) || (text.trim() === '' && text !== ' ');

/** Words are put on lines as far as they go; an element among text stays on its line where it fits. */
function fill(
  parts: readonly (string | MarkupElement)[],
  depth: number,
  key: string | null,
  used: Used,
): Line[] {
  const lines: Line[] = [];
  let current = '';
  let currentKey = key;
  const width = room(depth);
  const flush = (): void => {
    if (current.trim()) lines.push({ text: pad(depth) + current.trimEnd(), key: currentKey });
    current = '';
    currentKey = key;
  };
  const addWord = (word: string, hasSpace: boolean): void => {
    const joint = hasSpace && current ? ' ' : '';
    if (current && hasSpace && (current + joint + word).length > width) flush();
    current += (current ? joint : '') + word;
  };
  let pendingSpace = false;
  parts.forEach((part, i) => {
    if (typeof part !== 'string') {
      const printed = printElement(part, depth, used);
      const inline = printed.length === 1 ? printed[0].text.slice(pad(depth).length) : null;
      const touchesText = typeof parts[i - 1] === 'string' || typeof parts[i + 1] === 'string';
      const stands = !part.children.length && !pendingSpace && current !== '';
      if (inline !== null && touchesText) {
        if (stands) flush();
        if (pendingSpace && current && `${current} ${inline}`.length > width) {
          current += "{' '}";
          flush();
          current = inline;
        } else current += (pendingSpace && current ? ' ' : '') + inline;
        if (!current.trim() || current === inline) currentKey = part.key;
      } else {
        const last = lines.at(-1);
        // A space between two elements stands at the end of the first one's line.
        if (pendingSpace && !current && last)
          lines[lines.length - 1] = { ...last, text: `${last.text}{' '}` };
        else if (pendingSpace) current += "{' '}";
        flush();
        lines.push(...printed);
      }
      pendingSpace = false;
      return;
    }
    if (part.startsWith('{')) {
      if (parts.length === 1 && part.length > width) {
        const inner = `${pad(depth + 1)}${part.slice(1, -1)}`;
        lines.push({ text: `${pad(depth)}{`, key }, { text: inner, key }, { text: `${pad(depth)}}`, key });
        return;
      }
      addWord(part, pendingSpace);
      pendingSpace = false;
      return;
    }
    const words = part.split(' ');
    words.forEach((word, w) => {
      if (w > 0) pendingSpace = true;
      if (!word) return;
      const after = parts[i - 1];
      const isFirst = w === 0 || words.slice(0, w).every((before) => !before);
      if (isFirst && !current && pendingSpace && typeof after === 'object') {
        // A space after an element that stands on lines of its own has to be written.
        const last = lines.at(-1);
        if (last) lines[lines.length - 1] = { ...last, text: `${last.text}{' '}` };
        pendingSpace = false;
      }
      // Next to an element without content, text without a space begins a line of its own.
      if (isFirst && !pendingSpace && typeof after === 'object' && !after.children.length && word.length > 1)
        flush();
      addWord(word, pendingSpace);
      pendingSpace = false;
    });
  });
  if (pendingSpace && current) current += "{' '}";
  flush();
  return lines;
}

const escapeJsx = (text: string): string =>
  text.replace(
    /[&<>{}\u00a0]/g,
    (char) =>
      ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '{': '&#123;', '}': '&#125;', '\u00a0': '&nbsp;' })[char]!,
  );

/** A string literal with single quotes, or double ones where that needs fewer escapes. */
export function quote(text: string): string {
  const mark = (text.match(/'/g)?.length ?? 0) > (text.match(/"/g)?.length ?? 0) ? '"' : "'";
  const body = text.replace(/[\\\n\r\u2028\u2029]/g, (c) =>
    c === '\\' ? '\\\\' : c === '\n' ? '\\n' : c === '\r' ? '\\r' : `\\u${c.charCodeAt(0).toString(16)}`,
  );
  return mark + body.replaceAll(mark, `\\${mark}`) + mark;
}

/** An arrival as a literal; null for none, which is the default. */
export function arrivalLiteral(arrival: Arrival): string | null {
  if (arrival.kind === 'none') return null;
  return arrival.kind === 'fade'
    ? `{ kind: 'fade', ms: ${arrival.ms} }`
    : `{ kind: 'slide', from: '${arrival.from}', ms: ${arrival.ms} }`;
}

/** The tag and its attributes as they are written, links included. */
function openingOf(node: MarkupElement, used: Used): { tag: string; attributes: string[] } {
  const attributes: string[] = [];
  let tag = node.tag;
  const { link, form } = node;
  if (node.className) attributes.push(`className={styles.${node.className}}`);
  for (const [name, value] of Object.entries(node.attributes)) {
    const printed = printAttribute(node, name, value, form === 'button' && link?.kind === 'back');
    if (printed) attributes.push(printed);
  }
  if (node.asset) {
    const { name, path } = used.options.assetImport(node.asset);
    used.assets.set(name, path);
    attributes.push(`${node.tag === 'source' ? 'srcSet' : 'src'}={${name}}`);
  }
  if (node.tag === 'form') attributes.push('onSubmit={(event) => event.preventDefault()}');
  // A button that opens a drawer says so in its attributes.
  if (!link || (link.kind === 'drawer' && form === 'button')) return { tag, attributes };
  const arrival = link.kind === 'external' || link.kind === 'drawer' ? null : arrivalLiteral(link.arrival);
  if (form === 'anchor') {
    if (link.kind === 'external') attributes.unshift(`href=${attributeQuote(link.href)}`, 'rel="noreferrer"');
    else {
      used.go = true;
      tag = 'Go';
      attributes.unshift(
        `to=${attributeQuote(link.kind === 'go' ? link.to : link.kind === 'back' ? link.fallback : '')}`,
        ...(arrival ? [`arrival={${arrival}}`] : []),
      );
    }
  } else if (form === 'button' && link.kind === 'back') {
    used.back = true;
    tag = 'Back';
    attributes.unshift(
      `fallback=${attributeQuote(link.fallback)}`,
      ...(arrival ? [`arrival={${arrival}}`] : []),
    );
  } else {
    used.hook ||= link.kind !== 'drawer';
    const call = callOf(link, arrival);
    if (form === 'button') attributes.push(`onClick={() => ${call}}`);
    else {
      used.pressable = true;
      attributes.push(`{...pressable(() => ${call})}`);
    }
  }
  return { tag, attributes };
}

function callOf(link: NonNullable<MarkupElement['link']>, arrival: string | null): string {
  if (link.kind === 'external') return `window.location.assign(${quote(link.href)})`;
  if (link.kind === 'drawer') return `document.getElementById(${quote(link.id)})?.showPopover()`;
  const rest = arrival ? `, ${arrival}` : '';
  return link.kind === 'go' ? `go(${quote(link.to)}${rest})` : `go.back(${quote(link.fallback)}${rest})`;
}

const RENAMED: Readonly<Record<string, string>> = {
  for: 'htmlFor',
  colspan: 'colSpan',
  rowspan: 'rowSpan',
  tabindex: 'tabIndex',
  readonly: 'readOnly',
  maxlength: 'maxLength',
  minlength: 'minLength',
  datetime: 'dateTime',
  autocomplete: 'autoComplete',
  inputmode: 'inputMode',
  class: 'className',
  'xlink:href': 'href',
  crossorigin: 'crossOrigin',
  popovertarget: 'popoverTarget',
};
const NUMBERS = new Set([
  'colspan',
  'rowspan',
  'rows',
  'cols',
  'tabindex',
  'maxlength',
  'minlength',
  'start',
]);

function printAttribute(
  node: MarkupElement,
  name: string,
  value: string | true,
  isBack: boolean,
): string | null {
  if (isBack && name === 'type') return null;
  const isField = ['input', 'textarea', 'select'].includes(node.tag);
  const isValue = isField && (name === 'value' || name === 'checked');
  const isNatural =
    isValue && ['submit', 'button', 'reset'].includes(String(node.attributes.type)) && name === 'value';
  if (node.tag === 'option' && name === 'selected') return null;
  const plain =
    RENAMED[name] ??
    (/^(aria|data)-/.test(name)
      ? name
      : name.replace(/[-:]([a-z])/g, (_, letter: string) => letter.toUpperCase()));
  const written = isValue && !isNatural ? (name === 'checked' ? 'defaultChecked' : 'defaultValue') : plain;
  if (value === true) return written;
  if (NUMBERS.has(name) && /^-?\d+$/.test(value)) return `${written}={${value}}`;
  return `${written}=${attributeQuote(value)}`;
}

function attributeQuote(value: string): string {
  if (/[\n\\]/.test(value)) return `{${quote(value)}}`;
  const escaped = value.replace(/&/g, '&amp;');
  return escaped.includes('"')
    ? escaped.includes("'")
      ? `"${escaped.replace(/"/g, '&quot;')}"`
      : `'${escaped}'`
    : `"${escaped}"`;
}
