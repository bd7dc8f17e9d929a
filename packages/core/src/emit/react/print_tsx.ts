import { printed } from '../script.ts';
import { type EmittedIcon, isOwnOfIcon } from '../form/icons.ts';
import { grouped } from '../../json/grouped.ts';
import { PRINT_WIDTH } from '../line_width.ts';
import type { PrintedCode } from '../bundled/dialect.ts';
import { type NamedPlace, withNamedPlaces } from '../form/named_places.ts';
import { partedClasses } from '../form/styles/parted_classes.ts';
import type { ClassUse } from '../form/styles/places.ts';
import { type Expression, literal, mapExpression, not } from '../../expression/expression.ts';
import { quote, quoteLines, jsxText, jsxValue } from '../quoting.ts';
import { isAttributeName, jsxAttribute } from '../../vocabulary/attributes.ts';
import { uniqueCodeName } from '../../model/names.ts';
import { TAGS } from '../../vocabulary/tags.ts';
import { CHART_TAG } from '../form/live/bindings.ts';
import { SORT_TAG, sortingOf } from '../form/live/controls.ts';
import { isKeptForm, MESSAGE_TAG } from '../form/live/forms.ts';
import { jsxVectorName } from '../../vocabulary/vectors.ts';
import { code, variableCode } from './expression_code.ts';
import { theirImports, theirOpening } from './print_theirs.ts';
import {
  type ActUse,
  addressPath,
  aroundDeed,
  arrivalLiteral,
  type BoundAct,
  boundActs,
  callOf,
  handlerOf,
  newActUse,
} from '../bundled/print_acts.ts';
import type { ViewLogic } from '../bundled/logic_files.ts';
import { isHookedDeed, isHookedLink } from '../form/hooked.ts';
import { disclosureConstants, disclosureSpread, isSaidBySpread } from '../bundled/print_disclosures.ts';
import { allNamed, hookForAll, liveProps, navigationFile, rowName } from '../bundled/wording.ts';
import {
  isElement,
  isText,
  noteSpoken,
  looksAtAddress,
  type LiveUse,
  type MarkupElement,
  type MarkupList,
  type MarkupNode,
  type MarkupOutlet,
  type PropValue,
  type TheirUse,
  type Variant,
} from '../form/markup.ts';

export interface TsxOptions {
  readonly component: string;
  /** The import name and path of a picture. */
  readonly assetImport: (hash: string) => { readonly name: string; readonly path: string };
  /** From the file to the folder of the source. */
  readonly source: string;
  /** From the file to the folder of the components. */
  readonly components?: string;
  /** Where classes went that are written in parts, or in the sheet that all share. */
  readonly classes?: ReadonlyMap<string, readonly ClassUse[]>;
  /** Drawings that are written once, in a file of their own. */
  readonly iconOf?: (node: MarkupElement) => EmittedIcon | null;
  /** Components that stand in the same folder. */
  readonly parts?: ReadonlySet<string>;
  /** Name of the sheet beside it, where that is not called as the component is. */
  readonly sheet?: string;
  /** Whether it holds the screens of a layout. */
  readonly hasOutlet?: boolean;
  /** Constants that the file takes from the one with its data. */
  readonly data?: { readonly path: string; readonly names: readonly string[] };
  /** How people hook in around what is done there. */
  readonly logic?: ViewLogic | null;
}

export interface Line {
  readonly text: string;
  readonly key: string | null;
}

/** Prints a screen as a React component in the form that Prettier gives it. */
export function printTsx(root: MarkupElement, options: TsxOptions): PrintedCode {
  const used = newUsed(options);
  const usesPath = looksAtAddress(root);
  const named = withNamedPlaces(root, new Set());
  if (used.logic && !used.logic.root && takesProps(named.root)) used.logic.root = named.root;
  const body = printElement(named.root, 2, used);
  noteSpoken(named.root, used);
  const head = importLines(used, usesPath).map((text): Line => ({ text, key: null }));
  if (head.length) head.push({ text: '', key: null });
  return finish([...head, ...functionLines(options.component, '()', body, used, usesPath, named.places)]);
}

/** Whether an element is one of the page, which can have any props that such have. */
const takesProps = ({ tag, use }: MarkupElement): boolean => !use && tag !== '' && tag !== 'svg';

/** A component's function, given what is written of its parameters. */
export function functionLines(
  name: string,
  parameters: string,
  body: readonly Line[],
  used: Used,
  usesPath = false,
  places: readonly NamedPlace[] = [],
): Line[] {
  const lines: Line[] = parameters.split('\n').map((text, i, all) => ({
    text: `${i ? '' : `export function ${name}`}${text}${i === all.length - 1 ? ' {' : ''}`,
    key: null,
  }));
  const indented = (text: string, key: string | null = null): Line => ({ text: `  ${text}`, key });
  const taken = [
    usesPath && 'const { pathname } = useLocation();',
    ...places.map(({ name: place, expression }) => `const ${place} = ${code(expression)};`),
    ...[...used.listings].sort().map(([name, hook]) => `const ${name} = ${hook}();`),
    ...[...used.singles].sort().map(([name, { hook }]) => `const ${name} = ${hook}();`),
    ...[...used.all].sort().map((name) => `const ${allNamed(name)} = ${hookForAll(name)}();`),
    takesLogic(used) && `const logic = ${used.logic!.hook}();`,
    used.hook && 'const go = useGo();',
    used.overlays && 'const overlays = useOverlays();',
    ...disclosureConstants(used).constants,
    used.variables.size > 0 && `const { ${[...used.variables].sort().join(', ')} } = useVariables();`,
  ].filter((text) => typeof text === 'string');
  const blocks: Line[][] = [
    taken.map((text) => indented(text)),
    ...[...used.handlers.values()].map((handler) =>
      handler.lines.map(({ text }) => indented(text, handler.key)),
    ),
    used.hooks.map(({ text }) => indented(text)),
  ];
  for (const block of blocks) if (block.length) lines.push(...block, { text: '', key: null });
  const only = body.length === 1 ? `  return ${body[0].text.trim()};` : '';
  if (only !== '' && only.length <= PRINT_WIDTH)
    return [...lines, { text: only, key: body[0].key }, { text: '}', key: null }];
  return [
    ...lines,
    { text: '  return (', key: null },
    ...body.map((line) => ({ ...line, text: `    ${line.text.slice(2)}` })),
    { text: '  );', key: null },
    { text: '}', key: null },
  ];
}

/** Whether a file looks at the hooks of its view. */
const takesLogic = ({ isHooked, isAround, hasRoot }: Used): boolean => isHooked || isAround || hasRoot;

export const finish = (lines: readonly Line[]): PrintedCode => ({
  text: `${lines.map((line) => line.text.trimEnd()).join('\n')}\n`,
  lines: lines.map((line) => line.key),
});

export function newUsed(options: TsxOptions): Used {
  const assets = new Map<string, string>();
  const used: Used = {
    ...newActUse(),
    readsVariables: false,
    go: false,
    back: false,
    pressable: false,
    charts: false,
    sorts: false,
    styles: false,
    shared: false,
    joinsClasses: false,
    fragments: false,
    logic: options.logic ?? null,
    hasRoot: false,
    yesNoProps: new Set(),
    tables: new Map(),
    assets,
    components: new Set(),
    theirs: new Map(),
    icons: new Map(),
    forms: new Set(),
    entered: () => 'event.target.value',
    variableCode: (name) => name,
    variableNow: (name) => {
      used.readsVariables = true;
      return `variables().${name}`;
    },
    fileOf: (hash) => {
      const { name, path } = options.assetImport(hash);
      assets.set(name, addressPath(path));
      return name;
    },
    options,
  };
  return used;
}

/** The imports of what was used, one a line. */
export function importLines(used: Used, usesPath = false): string[] {
  const { options } = used;
  const lines: string[] = [];
  if (used.fragments) lines.push("import { Fragment } from 'react';");
  const ofRouter = [...(options.hasOutlet ? ['Outlet'] : []), ...(usesPath ? ['useLocation'] : [])];
  lines.push(...theirImports(used));
  if (ofRouter.length) lines.push(`import { ${ofRouter.join(', ')} } from 'react-router';`);
  for (const name of [...used.components].sort())
    lines.push(
      options.parts?.has(name)
        ? `import { ${name} } from './${name}';`
        : `import { ${name} } from '${options.components}/${name}/${name}';`,
    );
  for (const [name, folder] of [...used.icons].sort())
    lines.push(`import { ${name} } from '${options.source}/${folder}/${name}';`);
  const navigation = [
    ...(used.back ? ['Back'] : []),
    ...(used.go ? ['Go'] : []),
    ...(used.pressable ? ['pressable'] : []),
    ...(used.hook ? ['useGo'] : []),
    ...used.helpers,
  ];
  for (const [file, names] of [...grouped(navigation, navigationFile)].sort())
    lines.push(`import { ${names.toSorted().join(', ')} } from '${options.source}/navigation/${file}';`);
  for (const name of [...used.forms].sort())
    lines.push(`import { ${name} } from '${options.source}/forms/${name}';`);
  if (used.charts) lines.push(`import { ${CHART_TAG} } from '${options.source}/charts/${CHART_TAG}';`);
  if (used.sorts) lines.push(`import { ${SORT_TAG} } from '${options.source}/records/${SORT_TAG}';`);
  if (used.takesValues) lines.push(`import type { Values } from '${options.source}/forms/check';`);
  for (const hook of disclosureConstants(used).hooks)
    lines.push(`import { ${hook} } from '${options.source}/disclosures/${hook}';`);
  if (used.overlays) lines.push(`import { useOverlays } from '${options.source}/overlays/useOverlays';`);
  const state = [
    used.setsVariable && 'setVariable',
    used.variables.size > 0 && 'useVariables',
    used.typesVariables && 'type Variables',
    used.readsVariables && 'variables',
  ].filter((name) => typeof name === 'string');
  if (state.length) lines.push(`import { ${state.join(', ')} } from '${options.source}/state/variables';`);
  if (used.callsFunctions) lines.push(`import * as calc from '${options.source}/records/functions';`);
  const taken = [
    ...[...used.singles.values()].map(({ of, hook }) => ({ name: hook, of })),
    ...[...used.all].map((name) => ({ name: hookForAll(name), of: name })),
    ...[...used.listings].map(([name, hook]) => ({ name: hook, of: name })),
    ...[...used.records].flatMap((name) => (used.listings.has(name) ? [] : [{ name, of: name }])),
  ];
  for (const [of, names] of [...grouped(taken, (one) => one.of)].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const listed = [...new Set(names.map(({ name }) => name))].sort();
    lines.push(`import { ${listed.join(', ')} } from '${options.source}/data/${of}';`);
  }
  if (used.asksForAll) lines.push(`import { allOf } from '${options.source}/records/remote';`);
  for (const [api, names] of grouped([...used.calls.keys()].sort(), (name) => used.calls.get(name)!))
    lines.push(`import { ${names.join(', ')} } from '${options.source}/api/${api}';`);
  if (used.tells) lines.push(`import { notices } from '${options.source}/shell/notices';`);
  if (used.joinsClasses) lines.push(`import { classList } from '${options.source}/styles/classList';`);
  const hooks = [used.isAround && 'around', used.isHooked && 'hooked'].filter((name) => name !== false);
  if (hooks.length) lines.push(`import { ${hooks.join(', ')} } from '${options.source}/logic/hooked';`);
  if (takesLogic(used)) lines.push(`import { ${used.logic!.hook} } from '${used.logic!.path}';`);
  for (const [name, path] of [...used.assets].sort()) lines.push(`import ${name} from '${path}';`);
  if (options.data?.names.length)
    lines.push(`import { ${options.data.names.join(', ')} } from '${options.data.path}';`);
  if (used.shared) lines.push(`import shared from '${options.source}/styles/shared.module.css';`);
  if (used.styles) lines.push(`import styles from './${options.sheet ?? options.component}.module.css';`);
  return lines;
}

/** What a file turns out to need while it is printed. */
export interface Used extends ActUse {
  /** Whether what variables are at a moment is asked. */
  readsVariables: boolean;
  go: boolean;
  back: boolean;
  pressable: boolean;
  charts: boolean;
  /** Whether a button sorts a list. */
  sorts: boolean;
  /** Whether a class of its own sheet is written, or one of the sheet that all share. */
  styles: boolean;
  shared: boolean;
  joinsClasses: boolean;
  /** Whether something stands in a fragment that has a key. */
  fragments: boolean;
  /** Whether the outermost element of the view is in the file. */
  hasRoot: boolean;
  /** Props that are typed as nothing but `'true'` and `'false'`. */
  readonly yesNoProps: Set<string>;
  /** What is taken of the forms of the runtime. */
  readonly forms: Set<string>;
  /** Drawings that are used, with the folder that each is in. */
  icons: Map<string, string>;
  /** Tables of the classes of choices, by name. */
  readonly tables: Map<string, Readonly<Record<string, string>>>;
  readonly assets: Map<string, string>;
  readonly components: Set<string>;
  /** Components of the team's own, by what they are called in the file. */
  readonly theirs: Map<string, TheirUse>;
  readonly options: TsxOptions;
}

const pad = (depth: number): string => '  '.repeat(depth - 1);
/** Two more than the pad: the component's body stands within `return (`. */
const room = (depth: number): number => PRINT_WIDTH - 2 * depth;

/** An element as lines, `depth` levels in. */
export function printElement(node: MarkupElement, depth: number, used: Used): Line[] {
  if (node.when) return printOptional(node, depth, used);
  if (node.each) return printEach(node, node.each, depth, used);
  const { tag, attributes } = openingOf(node, depth, used);
  const { children } = sortingOf(node) ?? node;
  const key = node.key;
  const line = (text: string): Line => ({ text: pad(depth) + text, key });
  const open = [`<${tag}`, ...attributes].join(' ');
  const parts = used.options.iconOf?.(node) ? [] : partsOf(children);
  if (!parts.length) {
    const breaks = attributes.some((attribute) => attribute.includes('\n'));
    if (!breaks && (`${open} />`.length <= room(depth) || staysOnLine(attributes)))
      return [line(`${open} />`)];
    return [line(`<${tag}`), ...attributeLines(attributes, depth, key), line('/>')];
  }
  const isPlain = parts.every((part) => typeof part === 'string');
  const flat = isPlain ? `${open}>${parts.join('')}</${tag}>` : null;
  const isMultiline = attributes.some((attribute) => attribute.includes('\n'));
  const opening =
    !isMultiline && (`${open}>`.length <= room(depth) || staysOnLine(attributes))
      ? [line(`${open}>`)]
      : [line(`<${tag}`), ...attributeLines(attributes, depth, key), line('>')];
  const [only] = parts;
  if (
    parts.length === 1 &&
    typeof only !== 'string' &&
    isElement(only) &&
    only.when &&
    attributes.length < 2
  ) {
    const inner = printElement(only, depth, used);
    const whole = inner.length === 1 ? `${open}>${inner[0].text.trim()}</${tag}>` : '';
    if (whole && whole.length <= room(depth)) return [line(whole)];
  }
  // Prettier breaks the children of an element that has several attributes, however short they are.
  if (flat && flat.length <= room(depth) && attributes.length < 2) return [line(flat)];
  return [...opening, ...fill(parts, depth + 1, key, used), line(`</${tag}>`)];
}

/** `{hasIcon && <i />}`, on one line where it fits. */
function printOptional({ when, ...node }: MarkupElement, depth: number, used: Used): Line[] {
  const inner = printElement(node, depth + 1, used);
  const line = (text: string): Line => ({ text: pad(depth) + text, key: node.key });
  const term = variableCode(when!);
  const only = inner.length === 1 ? `{${term} && ${inner[0].text.trim()}}` : '';
  if (only && only.length <= room(depth)) return [line(only)];
  return [line(`{${term} && (`), ...inner, line(')}')];
}

/** An element for each text or record of a list. */
function printEach(
  { each: _each, ...node }: MarkupElement,
  { item, of, by, isApart }: NonNullable<MarkupElement['each']>,
  depth: number,
  used: Used,
): Line[] {
  const line = (text: string): Line => ({ text: pad(depth) + text, key: node.key });
  const key = `key={${by === undefined ? item : `${item}.${by}`}}`;
  if (isApart) {
    used.fragments = true;
    return [
      line(`{${code(of)}.map((${item}, i) => (`),
      line(`  <Fragment ${key}>`),
      line("    {i > 0 && ' '}"),
      ...printElement(node, depth + 2, used),
      line('  </Fragment>'),
      line('))}'),
    ];
  }
  const [first, ...rest] = printElement(node, depth + 1, used);
  const keyed = { ...first, text: first.text.replace(/<[\w.]+/, (tag) => `${tag} ${key}`) };
  return [line(`{${code(of)}.map((${item}) => (`), keyed, ...rest, line('))}')];
}

function printList({ list, key }: MarkupList, depth: number, used: Used): Line[] {
  const { component, data, records, live, className, isApart } = list;
  used.components.add(component);
  if (live) return printLiveList(component, live, key, depth, used);
  const line = (text: string): Line => ({ text: pad(depth) + text, key });
  const name = rowName(data);
  const look = className === undefined ? '' : ` className={${joined(classParts(className, used))}}`;
  // A component without props takes nothing, not even a record's id.
  const given = records.some((record) => Object.keys(record).length > 1) ? ` {...${name}}` : '';
  if (isApart) {
    used.fragments = true;
    return [
      line(`{${data}.map((${name}, i) => (`),
      line(`  <Fragment key={${name}.id}>`),
      line("    {i > 0 && ' '}"),
      line(`    <${component}${look}${given} />`),
      line('  </Fragment>'),
      line('))}'),
    ];
  }
  return [
    line(`{${data}.map((${name}) => (`),
    line(`  <${component} key={${name}.id}${look}${given} />`),
    line('))}'),
  ];
}

/** A list of the records that are seen now, a row each. */
function printLiveList(
  component: string,
  { listing, given }: LiveUse,
  key: string | null,
  depth: number,
  used: Used,
): Line[] {
  used.listings.set(listing.name, listing.hook);
  const line = (text: string): Line => ({ text: pad(depth) + text, key });
  const row = rowName(listing.name);
  const props = [
    `key={${row}.id}`,
    ...liveProps(listing.name, row, given).map(([name, value]) => `${name}={${value}}`),
  ];
  const isPlaced = Object.values(given).some((one) => 'is' in one);
  const flat = `  <${component} ${props.join(' ')} />`;
  return [
    line(`{${listing.name}.rows.map((${isPlaced ? `${row}, i` : row}) => (`),
    ...(flat.length <= room(depth)
      ? [line(flat)]
      : [line(`  <${component}`), ...props.map((prop) => line(`    ${prop}`)), line('  />')]),
    line('))}'),
  ];
}

/** A single attribute that is a plain string is never put on a line of its own, however long it is. */
const staysOnLine = (attributes: readonly string[]): boolean =>
  attributes.length === 0 || (attributes.length === 1 && /^[\w-]+=["'][^\n]*["']$/.test(attributes[0]));

const attributeLines = (attributes: readonly string[], depth: number, key: string | null): Line[] =>
  attributes.flatMap((attribute) =>
    attribute.split('\n').map((text) => ({ text: pad(depth + 1) + text, key })),
  );

/** What stands among children: text and expressions as they are written, elements, lists and the outlet. */
type Part = string | MarkupElement | MarkupList | MarkupOutlet;

/** Whether what is written of a part has nothing in it. */
const isEmpty = (part: Exclude<Part, string>): boolean => !isElement(part) || !part.children.length;
const keyOf = (part: Exclude<Part, string>): string | null => ('outlet' in part ? null : part.key);

function printPart(part: Exclude<Part, string>, depth: number, used: Used): Line[] {
  if (isElement(part)) return printElement(part, depth, used);
  if ('list' in part) return printList(part, depth, used);
  return [{ text: `${pad(depth)}<Outlet />`, key: null }];
}

/** Children as text pieces and elements. Text that JSX would change is written as an expression. */
function partsOf(children: readonly MarkupNode[]): Part[] {
  const parts: Part[] = [];
  for (const child of children) {
    if ('slot' in child) parts.push(`{${code(child.slot)}}`);
    else if ('content' in child) parts.push('{children}');
    else if (!isText(child)) parts.push(child);
    else if (child.given) parts.push(`{${code(child.given)}}`);
    else if (child.text !== '')
      parts.push(needsExpression(child.text) ? `{${quoteLines(child.text)}}` : jsxText(child.text));
  }
  return parts;
}

const needsExpression = (text: string): boolean =>
  /\n| {2}|\t/.test(text) || (text.trim() === '' && text !== ' ');

/** Words are put on lines as far as they go; an element among text stays on its line where it fits. */
function fill(parts: readonly Part[], depth: number, key: string | null, used: Used): Line[] {
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
    if (current && hasSpace && (current + joint + word).length > width) {
      // Only between words of one text does a new line stand for a space.
      if (/[>}]$/.test(current) || /^[<{]/.test(word)) current += "{' '}";
      flush();
    }
    current += (current ? joint : '') + word;
  };
  let pendingSpace = false;
  parts.forEach((part, i) => {
    if (typeof part !== 'string') {
      const inner = printPart(part, depth, used);
      const inline = inner.length === 1 ? inner[0].text.slice(pad(depth).length) : null;
      const touchesText = typeof parts[i - 1] === 'string' || typeof parts[i + 1] === 'string';
      const stands = isEmpty(part) && !pendingSpace && current !== '';
      // A space between two elements stands at the end of the first one's last line.
      const last = lines.at(-1);
      if (last && pendingSpace && !current) lines[lines.length - 1] = { ...last, text: `${last.text}{' '}` };
      if (inline !== null && touchesText) {
        if (stands) flush();
        if (pendingSpace && current && `${current} ${inline}`.length > width) {
          current += "{' '}";
          flush();
          current = inline;
        } else current += (pendingSpace && current ? ' ' : '') + inline;
        if (!current.trim() || current === inline) currentKey = keyOf(part);
      } else {
        if (pendingSpace && current) current += "{' '}";
        flush();
        lines.push(...inner);
      }
      pendingSpace = false;
      return;
    }
    // An expression among elements stands on a line of its own.
    const isAmongElements =
      part.startsWith('{') && [parts[i - 1], parts[i + 1]].every((other) => typeof other !== 'string');
    if (isAmongElements && parts.length > 1 && !pendingSpace) {
      flush();
      lines.push({ text: pad(depth) + part, key });
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
      if (isFirst && !current && pendingSpace) {
        // A space after an element that stands on lines of its own has to be written.
        const last = lines.at(-1);
        if (last) lines[lines.length - 1] = { ...last, text: `${last.text}{' '}` };
        pendingSpace = false;
      }
      // Next to an element without content, text without a space begins a line of its own.
      if (isFirst && !pendingSpace && typeof after === 'object' && isEmpty(after) && word.length > 1) flush();
      addWord(word, pendingSpace);
      pendingSpace = false;
    });
  });
  const last = lines.at(-1);
  if (pendingSpace && current) current += "{' '}";
  else if (pendingSpace && last) lines[lines.length - 1] = { ...last, text: `${last.text}{' '}` };
  flush();
  return lines;
}

/** The tag and its attributes as they are written, links included. */
function openingOf(node: MarkupElement, depth: number, used: Used): { tag: string; attributes: string[] } {
  const attributes: string[] = [];
  let tag = node.tag;
  const { link, form } = node;
  const { slots = {} } = node;
  const to = slots.to && code(slots.to);
  if (node.use) {
    used.components.add(node.use.component);
    return {
      tag: node.use.component,
      attributes: [...classAttribute(node, used), ...givenProps(node.use.props, depth, used)],
    };
  }
  if (node.theirs) return theirOpening(node, node.theirs, classAttribute(node, used), depth, used);
  if (node.isChecked || node.tag === MESSAGE_TAG) {
    tag = node.isChecked ? 'Form' : MESSAGE_TAG;
    used.forms.add(tag);
  }
  if (node.tag === CHART_TAG) used.charts = true;
  const sorting = sortingOf(node);
  if (sorting) {
    const { name, hook } = sorting.list;
    used.listings.set(name, hook);
    used.sorts = true;
    tag = SORT_TAG;
    attributes.push(`list={${name}}`, `field=${jsxValue(sorting.field)}`);
  }
  const icon = used.options.iconOf?.(node);
  if (icon) {
    used.icons.set(icon.name, icon.isSmall ? 'icons' : 'drawings');
    tag = icon.name;
  }
  attributes.push(...classAttribute(node, used));
  for (const [name, value] of Object.entries(node.attributes)) {
    // What an expression says is not said as it was drawn, too.
    if ((icon && isOwnOfIcon(name)) || isSaidBySpread(node, name) || slots[`@${name}`]) continue;
    if (sorting && name === 'type') continue;
    const written = printAttribute(node, name, value, form === 'button' && link?.kind === 'back');
    if (written) attributes.push(written);
  }
  for (const [name, prop] of Object.entries(slots))
    if (name.startsWith('@') && !isSaidBySpread(node, name.slice(1)))
      attributes.push(slotAttribute(node, name.slice(1), prop, used));
  if (node.asset) {
    const value = slots.asset ? code(slots.asset) : assetName(node.asset, used);
    attributes.push(`${node.tag === 'source' ? 'srcSet' : 'src'}={${value}}`);
  }
  if (isKeptForm(node)) attributes.push('asks');
  if (node.isChecked && !node.acts?.some((act) => act.on === 'submit')) attributes.push('onSend={() => {}}');
  else if (node.tag === 'form' && !node.acts?.some((act) => act.on === 'submit'))
    attributes.push('onSubmit={(event) => event.preventDefault()}');
  if (node.acts && !sorting) attributes.push(...actAttributes(node, used));
  // A button that opens a drawer says so in its attributes.
  if (used.logic?.root === node) {
    used.hasRoot = true;
    attributes.push('{...logic.root}');
  }
  const spread = disclosureSpread(node, used, code, (isOpen, id) =>
    printed(`${variableCode(isOpen)} && ${id}`),
  );
  if (spread) attributes.push(`{...${spread}}`);
  if (!link || (form === 'button' && (link.kind === 'drawer' || link.kind === 'disclose')))
    return { tag, attributes };
  const arrival = 'arrival' in link ? arrivalLiteral(link.arrival) : null;
  if (form === 'anchor') {
    if (link.kind === 'external')
      attributes.unshift(to ? `href={${to}}` : `href=${jsxValue(link.href)}`, 'rel="noreferrer"');
    else if (link.kind === 'file')
      attributes.unshift(`href={${used.fileOf(link.asset)}}`, `download=${jsxValue(link.name)}`);
    else {
      used.go = true;
      tag = 'Go';
      attributes.unshift(
        to
          ? `to={${to}}`
          : `to=${jsxValue(link.kind === 'go' ? link.to : link.kind === 'back' ? link.fallback : '')}`,
        ...(arrival ? [`arrival={${arrival.text}}`] : []),
      );
      if (used.logic && isHookedDeed(node)) attributes.push(`around={${aroundDeed(node, used)}}`);
    }
  } else if (form === 'button' && link.kind === 'back') {
    used.back = true;
    tag = 'Back';
    attributes.unshift(
      to ? `fallback={${to}}` : `fallback=${jsxValue(link.fallback)}`,
      ...(arrival ? [`arrival={${arrival.text}}`] : []),
    );
  } else {
    const isHooked = used.logic !== null && isHookedLink(node);
    const act = isHooked
      ? handlerOf(node, { on: 'press', ways: [{ steps: [link] }] }, used)
      : `() => ${callOf(link, used, to)}`;
    if (form === 'button') attributes.push(`onClick={${act}}`);
    else {
      used.pressable = true;
      attributes.push(`{...pressable(${act})}`);
    }
  }
  return { tag, attributes };
}

/** The import that gives a picture, noted as used. */
export function assetName(hash: string, used: Used): string {
  const { name, path } = used.options.assetImport(hash);
  used.assets.set(name, path);
  return name;
}

/** The class of an element as it is written, where it has one. */
function classAttribute(node: MarkupElement, used: Used): string[] {
  const classes = classValue(node, used);
  return classes === null ? [] : [`className={${classes}}`];
}

/** What is written for the class of an element; null where it has none. */
function classValue(node: MarkupElement, used: Used): string | null {
  const { className, variant, aspects = [], takesClass } = node;
  const given = takesClass ? ['className'] : [];
  if (!variant) {
    const own = className === null ? [] : classParts(className, used);
    const chosen = aspects.flatMap((one) => chosenOf(one, used, { table: tableOf(one) }));
    if (aspects.length) return classList([...own, ...chosen, ...given], used);
    const parts = [...own, ...given];
    if (!parts.length) return null;
    return takesClass === 'sometimes' && parts.length > 1 ? classList(parts, used) : joined(parts);
  }
  const parted = partedClasses(variant.classes, (name) => classParts(name, used));
  const { common, rest } = parted;
  if (!common.length && !given.length)
    return isFlagged(rest)
      ? `${variableCode(variant.by)} ? ${joinedOr(rest.true)} : ${joinedOr(rest.false)}`
      : `${classTable(rest, variant.classes, used)}[${code(variant.by)}]`;
  return classList([...chosenOf(variant, used, { parted }), ...given], used);
}

const isFlagged = (rest: Readonly<Record<string, unknown>>): boolean =>
  'true' in rest && Object.keys(rest).length === 2;

/** What the table of an aspect is called: after the prop that tells which. */
const tableOf = ({ by }: Variant): string | undefined =>
  by.kind === 'prop' ? `${by.name}Classes` : undefined;

/** The classes that all of some looks are written as, and what chooses the others. */
function chosenOf(
  { by, classes }: Variant,
  used: Used,
  {
    parted = partedClasses(classes, (name) => classParts(name, used)),
    table,
  }: { readonly parted?: ReturnType<typeof partedClasses>; readonly table?: string } = {},
): string[] {
  const { common, rest } = parted;
  const chosen = !isFlagged(rest)
    ? `${classTable(rest, classes, used, table)}[${code(by)}]`
    : rest.true.length && rest.false.length
      ? `${variableCode(by)} ? ${joined(rest.true)} : ${joined(rest.false)}`
      : rest.true.length
        ? `${variableCode(by)} && ${joined(rest.true)}`
        : `${variableCode(not(by))} && ${joined(rest.false)}`;
  return [...common, chosen];
}

function classList(parts: readonly string[], used: Used): string {
  used.joinsClasses = true;
  return `classList(${parts.join(', ')})`;
}

/** The classes that a class is written as, noted as used: it may be one that all share, with one of its own. */
const classParts = (name: string, used: Used): string[] =>
  (used.options.classes?.get(name) ?? [{ from: 'own', name }]).map((use) => {
    if (use.from === 'own') used.styles = true;
    else used.shared = true;
    return `${use.from === 'own' ? 'styles' : 'shared'}.${use.name}`;
  });

const joined = (parts: readonly string[]): string =>
  parts.length === 1 ? parts[0] : `\`${parts.map((part) => `\${${part}}`).join(' ')}\``;
const joinedOr = (parts: readonly string[]): string => (parts.length ? joined(parts) : 'undefined');

/** Name of the table of a choice's classes, noted as used: that of the first of them, where no other is called so. */
function classTable(
  rest: Readonly<Record<string, readonly string[]>>,
  classes: Readonly<Record<string, string | null>>,
  used: Used,
  wanted = `${Object.values(classes).find((one) => one) ?? 'no'}Classes`,
): string {
  const table = Object.fromEntries(Object.entries(rest).map(([value, parts]) => [value, joinedOr(parts)]));
  const says = JSON.stringify(table);
  const known = [...used.tables].find(([, other]) => JSON.stringify(other) === says);
  if (known) return known[0];
  const name = uniqueCodeName(wanted, 'classes', (candidate) => used.tables.has(candidate));
  used.tables.set(name, table);
  return name;
}

/** What a component is given where it stands. */
export const givenProps = (
  props: Readonly<Record<string, PropValue | number>>,
  depth: number,
  used: Used,
): string[] =>
  Object.entries(props).map(([name, value]) => {
    if (value === true) return name;
    if (typeof value === 'string') return `${name}=${jsxValue(value)}`;
    return `${name}={${valueCode(value, depth + 1, used)}}`;
  });

const EVENTS: Readonly<Record<Exclude<BoundAct['on'], 'press'>, string>> = {
  'double-press': 'onDoubleClick',
  hover: 'onPointerEnter',
  change: 'onChange',
  submit: 'onSubmit',
};

/** The attributes by which an element does what it does, with what they need noted as used. */
function actAttributes(node: MarkupElement, used: Used): string[] {
  const { events, gestures } = boundActs(node, used);
  const attributes = events.map(({ on, handler, isCall, takesText }) => {
    const parameter = takesText ? 'event' : '';
    const act = isCall
      ? `(${parameter}) => ${handler}`
      : takesText
        ? `(event) => ${handler}(${used.entered(node.tag)})`
        : handler;
    if (on === 'press' && node.form === 'other') {
      used.pressable = true;
      return `{...pressable(${act})}`;
    }
    if (on === 'submit' && node.isChecked) return `onSend={${act}}`;
    if (on === 'submit') used.helpers.add('submitting');
    return `${on === 'press' ? 'onClick' : EVENTS[on]}={${on === 'submit' ? `submitting(${act})` : act}}`;
  });
  return gestures ? [...attributes, `{...gestures(${gestures.text})}`] : attributes;
}

/** A prop's value as an expression. */
export function valueCode(value: PropValue | number, depth: number, used: Used): string {
  if (typeof value === 'boolean' || typeof value === 'number') return String(value);
  if (typeof value === 'string') return quote(value);
  if ('given' in value) return code(value.given);
  if ('asset' in value) return assetName(value.asset, used);
  if ('items' in value && value.as !== undefined) return value.as;
  if ('items' in value) return `[${value.items.map((item) => itemCode(item, depth + 1, used)).join(', ')}]`;
  const lines = printElement(value.node, depth + 1, used);
  if (lines.length === 1) return lines[0].text.trim();
  const inner = lines.map((line) => line.text.slice(pad(depth).length)).join('\n');
  return `\n${inner}\n`;
}

export function itemCode(
  item: string | Readonly<Record<string, PropValue>>,
  depth: number,
  used: Used,
): string {
  if (typeof item === 'string') return quote(item);
  const entries = Object.entries(item).map(([name, value]) => {
    const written = valueCode(value, depth, used);
    return `${name}: ${written.includes('\n') ? `(${written})` : written}`;
  });
  return `{ ${entries.join(', ')} }`;
}

const FIELD_TAGS = new Set(['input', 'textarea', 'select']);

/** The name that JSX has for an attribute of an element, and whether its value is a number there. */
function jsxNameOf(node: MarkupElement, name: string): { readonly name: string; readonly isNumber: boolean } {
  if (FIELD_TAGS.has(node.tag) && !node.isFollowing) {
    if (name === 'value' && !isPressedInput(node)) return { name: 'defaultValue', isNumber: false };
    if (name === 'checked') return { name: 'defaultChecked', isNumber: false };
  }
  return TAGS.has(node.tag) && node.tag !== 'svg'
    ? jsxAttribute(node.tag, name)
    : { name: jsxVectorName(name), isNumber: false };
}

/** An input that is pressed shows its value as its label. */
const isPressedInput = ({ attributes }: MarkupElement): boolean =>
  ['submit', 'button', 'reset'].includes(String(attributes.type));

/** What React types as yes or no, and pages say as a text. */
const YES_NO =
  /^(aria-(expanded|hidden|selected|disabled|busy|modal|multiline|multiselectable|readonly|required|atomic)|contentEditable|draggable|spellCheck)$/;

/**
 * Whether an expression gives what a component is given, or what an item of a list says: that is text, but for props
 * that are typed as yes or no.
 */
const givesText = (given: Expression, yesNoProps: ReadonlySet<string>): boolean =>
  given.kind === 'choice'
    ? givesText(given.yes, yesNoProps) || givesText(given.no, yesNoProps)
    : given.kind === 'item' ||
      given.kind === 'field' ||
      (given.kind === 'prop' && !yesNoProps.has(given.name));

/** An attribute that a prop gives. Props are text, and some attributes are numbers. */
function slotAttribute(node: MarkupElement, name: string, given: Expression, used: Used): string {
  const written = jsxNameOf(node, name);
  const isText = givesText(given, used.yesNoProps);
  const said = given.kind === 'choice' ? `(${code(given)})` : code(given);
  if (isText && YES_NO.test(written.name))
    return `${written.name}={${said} ? ${said} === 'true' : undefined}`;
  if (!written.isNumber) return `${written.name}={${code(given)}}`;
  if (isText) return `${written.name}={${said} ? Number(${said}) : undefined}`;
  const asNumber = (part: Expression): Expression =>
    part.kind === 'literal' && typeof part.value === 'string' && /^-?\d+(\.\d+)?$/.test(part.value)
      ? literal(Number(part.value))
      : part;
  return `${written.name}={${code(mapExpression(given, asNumber))}}`;
}

function printAttribute(
  node: MarkupElement,
  name: string,
  value: string | true,
  isBack: boolean,
): string | null {
  if (isBack && name === 'type') return null;
  if (node.tag === 'option' && name === 'selected') return null;
  const written = jsxNameOf(node, name);
  // What a design may hold was checked when it came in; a name that is none must never become code.
  if (!isAttributeName(written.name)) throw new RangeError(`“${name}” is no name of an attribute`);
  if (value === true) return written.name;
  if (written.isNumber && /^-?\d+(\.\d+)?$/.test(value)) return `${written.name}={${value}}`;
  return `${written.name}=${jsxValue(value)}`;
}

/** Writes a drawing as a component that takes what any `svg` takes. */
export function printIcon({ name, node }: EmittedIcon, options: TsxOptions): PrintedCode {
  const used = newUsed(options);
  const { attributes } = openingOf(node, 2, used);
  const flat = `<svg ${[...attributes, '{...props}'].join(' ')}>`;
  const open =
    flat.length <= room(2)
      ? [pad(2) + flat]
      : [`${pad(2)}<svg`, ...[...attributes, '{...props}'].map((text) => pad(3) + text), `${pad(2)}>`];
  const body = fill(partsOf(node.children), 3, null, used).map(({ text }) => text);
  const lines = [
    "import type { SVGProps } from 'react';",
    '',
    `export function ${name}(props: SVGProps<SVGSVGElement>) {`,
    '  return (',
    ...open,
    ...body,
    `${pad(2)}</svg>`,
    '  );',
    '}',
  ];
  return finish(lines.map((text): Line => ({ text, key: node.key })));
}
