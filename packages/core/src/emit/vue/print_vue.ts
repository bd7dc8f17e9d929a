import { type Expression, mapExpression, not } from '../../expression/expression.ts';
import { pascalCase, uniqueCodeName } from '../../model/names.ts';
import { isAttributeName } from '../../vocabulary/attributes.ts';
import { VOID_TAGS } from '../../vocabulary/tags.ts';
import type { Around, PrintedCode } from '../bundled/dialect.ts';
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
import {
  allNamed,
  hookForAll,
  isDrawn,
  liveProps,
  navigationFile,
  givesProps,
  listType,
  propType,
  rowName,
} from '../bundled/wording.ts';
import type { EmittedList } from '../form/components/lists.ts';
import type { Prop } from '../form/components/template.ts';
import { grouped } from '../../json/grouped.ts';
import { withNamedPlaces } from '../form/named_places.ts';
import { partedClasses } from '../form/styles/parted_classes.ts';
import { type EmittedIcon, isOwnOfIcon } from '../form/icons.ts';
import {
  type EmittedLink,
  isElement,
  isText,
  noteSpoken,
  type ListUse,
  type MarkupElement,
  type MarkupNode,
  type PropValue,
  textIn,
  type Variant,
} from '../form/markup.ts';
import { type ExpressionNames, printExpression } from '../print_expression.ts';
import { escapeText, escapeValue, expressionValue, quote, quoteLines } from '../quoting.ts';
import { CHART_TAG } from '../form/live/bindings.ts';
import { SORT_TAG, sortingOf } from '../form/live/controls.ts';
import { isKeptForm, MESSAGE_TAG } from '../form/live/forms.ts';
import { named, printed, script } from '../script.ts';

/** Where a file stands among the others. */
export interface VueFile extends Pick<Around, 'classes' | 'iconOf' | 'assetImport'> {
  /** Name of the sheet beside it, without what it ends in. */
  readonly sheet: string;
  /** From the file to the folder of the source, and to that of the components. */
  readonly source: string;
  readonly components: string;
  /** Components that stand in the same folder. */
  readonly parts?: ReadonlySet<string>;
  /** How people hook in around what is done there. */
  readonly logic?: ViewLogic | null;
  /** Constants that it takes from the file with its data. */
  readonly data?: { readonly path: string; readonly names: readonly string[] };
  /** Of a component: its name and what it is given. */
  readonly props?: { readonly of: string; readonly list: readonly Prop[] };
  /** Names that drawings of its own cannot have. */
  readonly isTaken: (name: string) => boolean;
}

/** A drawing that is given to a component and is in no file yet. */
export interface OwnDrawing {
  readonly name: string;
  readonly root: MarkupElement;
}

interface Line {
  readonly text: string;
  readonly key: string | null;
}

/** What a file turns out to need while it is printed. */
export interface VueUse extends ActUse {
  /** Default imports, by name; and named ones, by path. */
  readonly imports: Map<string, string>;
  readonly named: Map<string, Set<string>>;
  readonly drawings: Map<string, OwnDrawing>;
  /** Constants that are worked out, by name: what cannot stand between braces in the template. */
  readonly worked: Map<string, string>;
  usesRoute: boolean;
  /** Whether the outermost element of the view is in the file. */
  hasRoot: boolean;
  readonly file: VueFile;
}

export function newUse(file: VueFile): VueUse {
  const imports = new Map<string, string>();
  const used: VueUse = {
    ...newActUse(),
    logic: file.logic ?? null,
    hasRoot: false,
    entered: (tag) =>
      `($event.target as ${tag === 'select' ? 'HTMLSelectElement' : 'HTMLInputElement'}).value`,
    imports,
    named: new Map(),
    drawings: new Map(),
    worked: new Map(),
    usesRoute: false,
    variableCode: (name) => `variables.${name}`,
    variableNow: (name) => {
      used.variables.add(name);
      return `variables.${name}`;
    },
    recordNow: (name) => `${name}.value`,
    fileOf: (hash) => {
      const { name, path } = file.assetImport(hash);
      imports.set(name, addressPath(path));
      return name;
    },
    file,
  };
  return used;
}

/** Writes a single-file component: its script, as far as it needs one, and its template. */
export function printVue(
  root: MarkupElement,
  file: VueFile,
): PrintedCode & { readonly drawings: readonly OwnDrawing[] } {
  const used = newUse(file);
  const named = withNamedPlaces(root, new Set(file.props?.list.map(({ name }) => name)));
  for (const { name, expression } of named.places) used.worked.set(name, code(expression, used));
  const { logic } = used;
  if (logic && !logic.root && !named.root.use && !['', 'svg'].includes(root.tag)) logic.root = named.root;
  const template = root.tag === '' ? printChildren(named.root, 1, used) : printElement(named.root, 1, used);
  noteSpoken(named.root, used);
  const script = scriptOf(used);
  const plain = (text: string): Line => ({ text, key: null });
  const lines = [
    ...(script.length ? [plain('<script setup lang="ts">'), ...script, plain('</script>'), plain('')] : []),
    plain('<template>'),
    ...template,
    plain('</template>'),
  ];
  return {
    text: `${lines.map(({ text }) => text).join('\n')}\n`,
    lines: lines.map(({ key }) => key),
    drawings: [...used.drawings.values()],
  };
}

/** Notes that a file takes something by its name from another. */
const takeFrom = ({ named }: VueUse, name: string, path: string): void =>
  void named.set(path, (named.get(path) ?? new Set()).add(name));

function scriptOf(used: VueUse): Line[] {
  const { file } = used;
  const take = (name: string, path: string): void => takeFrom(used, name, path);
  if (used.worked.size) take('computed', 'vue');
  if (used.usesRoute) take('useRoute', 'vue-router');
  if (file.props?.list.some(isDrawn)) take('type Component', 'vue');
  if (used.hook) take('useGo', `${file.source}/navigation/useGo`);
  for (const [path, names] of grouped(
    [...used.helpers],
    (name) => `${file.source}/navigation/${navigationFile(name)}`,
  ))
    names.forEach((name) => take(name, path));
  for (const hook of disclosureConstants(used).hooks) take(hook, `${file.source}/disclosures/${hook}`);
  if (used.overlays) take('useOverlays', `${file.source}/overlays/useOverlays`);
  if (used.setsVariable) take('setVariable', `${file.source}/state/variables`);
  if (used.variables.size) take('variables', `${file.source}/state/variables`);
  if (used.typesVariables) take('type Variables', `${file.source}/state/variables`);
  for (const name of used.records) if (!used.listings.has(name)) take(name, `${file.source}/data/${name}`);
  for (const { of, hook } of used.singles.values()) take(hook, `${file.source}/data/${of}`);
  for (const name of used.all) take(hookForAll(name), `${file.source}/data/${name}`);
  if (used.asksForAll) take('allOf', `${file.source}/records/remote`);
  if (used.takesValues) take('type Values', `${file.source}/forms/check`);
  for (const [name, api] of used.calls) take(name, `${file.source}/api/${api}`);
  if (used.tells) take('notices', `${file.source}/shell/notices`);
  if (used.isAround) take('around', `${file.source}/logic/hooked`);
  if (used.isHooked) take('hooked', `${file.source}/logic/hooked`);
  const takesLogic = used.isAround || used.isHooked || used.hasRoot;
  if (takesLogic) take(used.logic!.hook, used.logic!.path);
  for (const [name, hook] of used.listings) take(hook, `${file.source}/data/${name}`);
  for (const name of file.data?.names ?? []) take(name, file.data!.path);
  const imports = [
    ...[...used.named].map(([path, names]) => [path, `{ ${[...names].sort().join(', ')} }`] as const),
    ...[...used.imports].map(([name, path]) => [path, name] as const),
    ...(used.callsFunctions ? [[`${file.source}/records/functions`, '* as calc'] as const] : []),
  ]
    .sort(([a], [b]) => Number(a.startsWith('.')) - Number(b.startsWith('.')) || (a < b ? -1 : 1))
    .map(([path, what]) => `import ${what} from '${path}';`);
  const constants = [
    ...(takesLogic ? [`const logic = ${used.logic!.hook}();`] : []),
    ...(used.usesRoute ? ['const route = useRoute();'] : []),
    ...[...used.listings].sort().map(([name, hook]) => `const ${name} = ${hook}();`),
    ...[...used.singles].sort().map(([name, { hook }]) => `const ${name} = ${hook}();`),
    ...[...used.all].sort().map((name) => `const ${allNamed(name)} = ${hookForAll(name)}();`),
    ...(used.hook ? ['const go = useGo();'] : []),
    ...(used.overlays ? ['const overlays = useOverlays();'] : []),
    ...[...used.worked].map(([name, code]) => `const ${name} = computed(() => ${code});`),
    ...disclosureConstants(used).constants,
  ];
  const plain = (texts: readonly string[]): Line[] => texts.map((text) => ({ text, key: null }));
  const blocks: Line[][] = [
    plain(imports),
    plain(file.props ? propsLines(file.props.of, file.props.list) : []),
    plain(constants),
    ...[...used.handlers.values()].map(({ lines, key }) => lines.map(({ text }) => ({ text, key }))),
    plain(used.hooks.map(({ text }) => text)),
  ];
  return blocks
    .filter((block) => block.length)
    .flatMap((block, i) => (i ? [{ text: '', key: null }, ...block] : block));
}

function propsLines(name: string, props: readonly Prop[]): string[] {
  if (!props.length) return [];
  const names = props.map(({ name: one, byDefault }) =>
    byDefault === undefined ? one : script`${named(one)} = ${byDefault}`.text,
  );
  return [
    `export interface ${name}Props {`,
    ...props.map((one) => `  ${one.name}${one.isOptional ? '?' : ''}: ${propType(one, 'Component')};`),
    '}',
    '',
    `const { ${names.join(', ')} } = defineProps<${name}Props>();`,
  ];
}

/** An expression as it stands in a template, where props and constants are names. */
function code(expression: Expression, used: VueUse): string {
  const names: ExpressionNames = {
    prop: (name) => name,
    variable: (name) => {
      used.variables.add(name);
      return used.variableCode(name);
    },
    parameter: (where, name) => {
      used.usesRoute = true;
      return where === 'path' ? `route.params.${name}` : `route.query[${quote(name)}]`;
    },
    listing: (of, asks, given) => {
      return `${of}.${asks}${given.length ? `(${given.join(', ')})` : ''}`;
    },
    records: allNamed,
    called: (name) => `calc.${name}`,
    get path() {
      used.usesRoute = true;
      return 'route.path';
    },
  };
  return printExpression(expression, names);
}

const bound = (name: string, value: string): string => `:${name}="${expressionValue(value)}"`;

/** An element and what stands in it, as lines. Breaks stand only where the compiler leaves them out. */
export function printElement(node: MarkupElement, depth: number, used: VueUse): Line[] {
  const indent = '  '.repeat(depth);
  const line = (text: string): Line => ({ text: indent + text, key: node.key });
  if (node.each?.isApart) {
    const { each, ...one } = node;
    const { list, key } = eachOf(each, used, true);
    const inner = printElement(one, 0, used).map(({ text }) => text.trim());
    return [line(`<template ${list} ${key}>{{ i ? ' ' : '' }}${inner.join('')}</template>`)];
  }
  const { tag, attributes } = openingOf(node, used);
  const open = [`<${tag}`, ...attributes].join(' ');
  const children = contentOf(node, used);
  if (!children.length)
    return [
      line(
        VOID_TAGS.has(tag) || tag !== node.tag || /^[A-Z]/.test(tag) || SVG.has(tag)
          ? `${open} />`
          : `${open}></${tag}>`,
      ),
    ];
  if (children.every((child) => !isText(child)))
    return [line(`${open}>`), ...printNodes(children, depth + 1, used), line(`</${tag}>`)];
  return [line(`${open}>${children.map((child) => inLine(child, used)).join('')}</${tag}>`)];
}

/** Parts of drawings, which close themselves where they hold nothing. */
const SVG = new Set(
  'path rect circle ellipse line polyline polygon stop use image g svg defs linearGradient radialGradient clipPath mask pattern'.split(
    ' ',
  ),
);

const printChildren = (node: MarkupElement, depth: number, used: VueUse): Line[] =>
  node.children.every((child) => !isText(child))
    ? printNodes(node.children, depth, used)
    : [
        {
          text: '  '.repeat(depth) + node.children.map((child) => inLine(child, used)).join(''),
          key: node.key,
        },
      ];

const printNodes = (nodes: readonly MarkupNode[], depth: number, used: VueUse): Line[] =>
  nodes.flatMap((node) =>
    isElement(node)
      ? printElement(node, depth, used)
      : [{ text: '  '.repeat(depth) + inLine(node, used), key: 'key' in node ? node.key : null }],
  );

/** What is written within an element: nothing for what is a component of its own or says it in an attribute. */
function contentOf(node: MarkupElement, used: VueUse): readonly MarkupNode[] {
  if (used.file.iconOf(node) || node.tag === 'textarea') return [];
  const { children } = sortingOf(node) ?? node;
  return children.filter((child) => !isText(child) || child.text !== '' || child.given);
}

function inLine(node: MarkupNode, used: VueUse): string {
  if (isText(node)) return node.given ? braced(node.given, used) : textOf(node.text, used);
  if ('slot' in node) return drawn(node.slot, used);
  if ('list' in node) return listOf(node.list, used);
  if ('content' in node) return '<slot />';
  if (!isElement(node)) {
    takeFrom(used, 'RouterView', 'vue-router');
    return '<RouterView />';
  }
  return printElement(node, 0, used)
    .map(({ text }) => text.trim())
    .join('');
}

/** Text that the compiler would change is written as an expression. */
const textOf = (text: string, used: VueUse): string =>
  /[\n\t\r\f]| {2}/.test(text) || text.trim() === ''
    ? bracedCode(quoteLines(text), used)
    : escapeText(text).replaceAll('{{', '&#123;&#123;');

/** An expression between braces; by a name where it holds what would end them. */
const braced = (expression: Expression, used: VueUse): string => bracedCode(code(expression, used), used);

/** Braces hold what stands in a page, too: what would be read as a tag or a sign there is written as one. */
const inPage = (written: string): string =>
  written.replace(/&(?=[a-z#])/gi, '&amp;').replace(/<(?=[a-z/!?])/gi, '&lt;');

function bracedCode(written: string, used: VueUse): string {
  if (!written.includes('}}')) return `{{ ${inPage(written)} }}`;
  const known = [...used.worked].find(([, one]) => one === written)?.[0];
  const name = known ?? uniqueCodeName('said', 'said', (one) => used.worked.has(one));
  used.worked.set(name, written);
  return `{{ ${name} }}`;
}

/** A drawing that is given; it may be without. */
const drawn = (slot: Expression, used: VueUse): string => {
  const written = code(slot, used);
  const isOptional =
    slot.kind !== 'prop' || used.file.props?.list.find(({ name }) => name === slot.name)?.isOptional;
  return `<component ${bound('is', written)}${isOptional ? ` v-if="${expressionValue(written)}"` : ''} />`;
};

function listOf({ component, data, live, givesId, className, isApart }: ListUse, used: VueUse): string {
  if (live) {
    const { listing, given } = live;
    used.listings.set(listing.name, listing.hook);
    const row = rowName(listing.name);
    const isPlaced = Object.values(given).some((one) => 'is' in one);
    const props = liveProps(listing.name, row, given).map(([prop, value]) => bound(kebab(prop), value));
    return `<${componentName(component, used)} v-for="${isPlaced ? `(${row}, i)` : row} in ${listing.name}.rows" ${[`:key="${row}.id"`, ...props].join(' ')} />`;
  }
  const name = rowName(data);
  componentName(component, used);
  const given = [
    ...(className === undefined ? [] : [bound('class', classCode(className, used))]),
    ...(givesId ? [':id="id"'] : []),
    `v-bind="${name}"`,
  ].join(' ');
  if (isApart)
    return `<template v-for="({ id, ...${name} }, i) in ${data}" :key="id">{{ i ? ' ' : '' }}<${component} ${given} /></template>`;
  return `<${component} v-for="{ id, ...${name} } in ${data}" :key="id" ${given} />`;
}

function componentName(component: string, used: VueUse): string {
  const { parts, components } = used.file;
  used.imports.set(
    component,
    parts?.has(component) ? `./${component}.vue` : `${components}/${component}/${component}.vue`,
  );
  return component;
}

/** What says that an element stands once for each of a list. */
function eachOf(
  { item, of, by }: NonNullable<MarkupElement['each']>,
  used: VueUse,
  isCounted = false,
): { readonly list: string; readonly key: string } {
  return {
    list: `v-for="${isCounted ? `(${item}, i)` : item} in ${expressionValue(code(of, used))}"`,
    key: bound('key', by === undefined ? item : `${item}.${by}`),
  };
}

/** The tag and its attributes as they are written, links included. */
function openingOf(
  node: MarkupElement,
  used: VueUse,
): { readonly tag: string; readonly attributes: readonly string[] } {
  const attributes = node.when ? [`v-if="${expressionValue(code(node.when, used))}"`] : [];
  if (node.each) {
    const { list, key } = eachOf(node.each, used);
    attributes.push(list, key);
  }
  if (node.use)
    return {
      tag: componentName(node.use.component, used),
      attributes: [
        ...attributes,
        ...(node.variant
          ? [bound('class', variantClass(node.variant, used))]
          : node.className
            ? [bound('class', classCode(node.className, used))]
            : []),
        ...usedProps(node.use.props, used),
      ],
    };
  const { link, form, slots = {} } = node;
  let { tag } = node;
  if (node.isChecked || node.tag === MESSAGE_TAG) {
    tag = node.isChecked ? 'Form' : MESSAGE_TAG;
    used.imports.set(tag, `${used.file.source}/forms/${tag}.vue`);
  }
  if (node.tag === CHART_TAG) used.imports.set(CHART_TAG, `${used.file.source}/charts/${CHART_TAG}.vue`);
  const sorting = sortingOf(node);
  if (sorting) {
    const { name, hook } = sorting.list;
    used.listings.set(name, hook);
    tag = SORT_TAG;
    used.imports.set(SORT_TAG, `${used.file.source}/records/${SORT_TAG}.vue`);
    attributes.push(bound('list', name), `field="${escapeValue(sorting.field)}"`);
  }
  const icon = used.file.iconOf(node);
  if (icon) {
    tag = iconName(icon, used);
  }
  const to = slots.to && code(slots.to, used);
  const spread = disclosureSpread(
    node,
    used,
    (expression) => code(expression, used),
    // In the script, what was worked out is told by its value, and anew whenever it is asked.
    (isOpen, id) => {
      const said = mapExpression(isOpen, (part) =>
        part.kind === 'prop' && used.worked.has(part.name) ? { ...part, name: `${part.name}.value` } : part,
      );
      return printed(
        `() => ${/^(choice|or)$/.test(said.kind) ? `(${code(said, used)})` : code(said, used)} && ${id}`,
      );
    },
  );
  const spreads: string[] = spread ? [spread] : [];
  const after: string[] = [];
  const arrival = link && 'arrival' in link ? arrivalLiteral(link.arrival) : null;
  const arrives = arrival ? [bound('arrival', arrival.text)] : [];
  if (link && form === 'anchor') {
    if (link.kind === 'external')
      attributes.push(to ? bound('href', to) : `href="${escapeValue(link.href)}"`, 'rel="noreferrer"');
    else if (link.kind === 'file')
      attributes.push(bound('href', used.fileOf(link.asset)), `download="${escapeValue(link.name)}"`);
    else if (link.kind !== 'drawer' && link.kind !== 'disclose') {
      tag = 'Go';
      used.imports.set('Go', `${used.file.source}/navigation/Go.vue`);
      const address = link.kind === 'go' ? link.to : link.fallback;
      attributes.push(to ? bound('to', to) : `to="${escapeValue(address)}"`, ...arrives);
      if (used.logic && isHookedDeed(node)) attributes.push(bound('around', aroundDeed(node, used)));
    }
  } else if (link?.kind === 'back' && form === 'button') {
    tag = 'Back';
    used.imports.set('Back', `${used.file.source}/navigation/Back.vue`);
    attributes.push(to ? bound('fallback', to) : `fallback="${escapeValue(link.fallback)}"`, ...arrives);
  } else if (link && !(form === 'button' && (link.kind === 'drawer' || link.kind === 'disclose'))) {
    const isHooked = used.logic !== null && isHookedLink(node);
    const call = isHooked
      ? handlerOf(node, { on: 'press', ways: [{ steps: [link] }] }, used)
      : callInTemplate(link, callOf(link, used, to), node, used);
    if (form === 'button') after.push(`@click="${expressionValue(call)}"`);
    else {
      used.helpers.add('pressable');
      spreads.push(`pressable(${isHooked ? call : `() => ${call}`})`);
    }
  }
  if (node.aspects) {
    const own = node.className ? classParts(node.className, used) : [];
    attributes.push(bound('class', listed([...own, ...node.aspects.flatMap((one) => chosenOf(one, used))])));
  } else if (node.variant) attributes.push(bound('class', variantClass(node.variant, used)));
  else if (node.className) attributes.push(bound('class', classCode(node.className, used)));
  for (const [name, value] of Object.entries(node.attributes)) {
    const isOwnType = name === 'type' && (tag === 'Back' || tag === SORT_TAG);
    if ((icon && isOwnOfIcon(name)) || isOwnType || isSaidBySpread(node, name)) continue;
    // What is chosen is said by the choices; what an expression says is not said as it was drawn, too.
    if ((tag === 'select' && name === 'value') || slots[`@${name}`]) continue;
    // What a design may hold was checked when it came in; a name that is none must never become code.
    if (!isAttributeName(name)) throw new RangeError(`“${name}” is no name of an attribute`);
    attributes.push(value === true ? name : `${name}="${escapeValue(value)}"`);
  }
  for (const [name, given] of Object.entries(slots))
    if (name.startsWith('@') && !isSaidBySpread(node, name.slice(1)))
      attributes.push(bound(name.slice(1), code(given, used)));
  if (node.asset)
    attributes.push(
      bound(
        node.tag === 'source' ? 'srcset' : 'src',
        slots.asset ? code(slots.asset, used) : used.fileOf(node.asset),
      ),
    );
  if (isKeptForm(node)) after.push('asks');
  if (node.tag === 'form' && !node.isChecked && !node.acts?.some((act) => act.on === 'submit'))
    after.push('@submit.prevent');
  if (node.acts && !sorting) {
    const { events, gestures } = boundActs(node, used);
    for (const { on, handler, isCall, takesText } of events) {
      const act = takesText && !isCall ? `${handler}(${used.entered(node.tag)})` : handler;
      if (on === 'press' && form === 'other') {
        used.helpers.add('pressable');
        spreads.push(`pressable(${isCall ? `() => ${act}` : act})`);
      } else {
        const event =
          on === 'submit' && node.isChecked
            ? 'send'
            : on === 'change' && takesText && node.tag !== 'select'
              ? 'input'
              : EVENTS[on];
        after.push(`@${event}="${expressionValue(act)}"`);
      }
    }
    if (gestures) spreads.push(`gestures(${gestures.text})`);
  }
  if (used.logic?.root === node) {
    used.hasRoot = true;
    spreads.push(ROOT);
  }
  if (spreads.length) {
    const one =
      spreads.length === 1 && spreads[0] !== ROOT
        ? spreads[0]
        : `{ ${spreads.map((spread) => `...${spread}`).join(', ')} }`;
    after.push(`v-bind="${expressionValue(one)}"`);
  }
  return { tag, attributes: [...attributes, ...after] };
}

/** What the outermost element of a view has of its own; there may be nothing. */
const ROOT = 'logic.root';

/** A call as it can stand in a template, which knows nothing of the window: by the name of a function where it asks for that. */
function callInTemplate(link: EmittedLink, call: string, node: MarkupElement, used: VueUse): string {
  if (link.kind !== 'external' && link.kind !== 'drawer') return call;
  const words = pascalCase(textIn(node).split(/\s+/).slice(0, 3).join(' ')).slice(0, 30);
  const name = uniqueCodeName(`open${words || 'Link'}`, 'openLink', (one) => used.handlers.has(one));
  used.handlers.set(name, { lines: [script`const ${named(name)} = () => ${printed(call)};`], key: node.key });
  return `${name}()`;
}

const EVENTS: Readonly<Record<BoundAct['on'], string>> = {
  press: 'click',
  'double-press': 'dblclick',
  hover: 'pointerenter',
  change: 'change',
  submit: 'submit.prevent',
};

/** What is written for a class: it may be a class that all share, with one of its own. */
const classCode = (name: string, used: VueUse): string => listed(classParts(name, used));

const listed = (parts: readonly string[]): string =>
  parts.length === 1 ? parts[0] : parts.length ? `[${parts.join(', ')}]` : 'undefined';

/** The classes that a class is written as, noted as used. */
const classParts = (name: string, used: VueUse): string[] =>
  (used.file.classes.get(name) ?? [{ from: 'own' as const, name }]).map((use) => {
    const from = use.from === 'own' ? 'styles' : 'shared';
    used.imports.set(
      from,
      use.from === 'own' ? `./${used.file.sheet}.module.css` : `${used.file.source}/styles/shared.module.css`,
    );
    return `${from}.${use.name}`;
  });

/** The class of a node whose class depends on what is given. */
const variantClass = (variant: Variant, used: VueUse): string => listed(chosenOf(variant, used));

/** The classes that all of some looks are written as, and what chooses the others. */
function chosenOf({ by, classes }: Variant, used: VueUse): string[] {
  const { common, rest } = partedClasses(classes, (name) => classParts(name, used));
  const values = Object.entries(rest);
  if (values.length === 2 && 'true' in rest) {
    const term = code(by, used);
    const test = /^(choice|or)$/.test(by.kind) ? `(${term})` : term;
    if (common.length && !rest.false.length) return [...common, `${test} && ${listed(rest.true)}`];
    return common.length && !rest.true.length
      ? [...common, `${code(not(by), used)} && ${listed(rest.false)}`]
      : [...common, `${test} ? ${listed(rest.true)} : ${listed(rest.false)}`];
  }
  const table = values.map(([value, parts]) => `${value}: ${listed(parts)}`).join(', ');
  return [...common, `{ ${table} }[${code(by, used)}]`];
}

/** What a component is given where it stands. */
const usedProps = (props: Readonly<Record<string, PropValue>>, used: VueUse): string[] =>
  Object.entries(props).flatMap(([name, value]) => {
    if (value === true) return [kebab(name)];
    if (value === false) return [bound(kebab(name), 'false')];
    if (typeof value === 'string') return [`${kebab(name)}="${escapeValue(value)}"`];
    return [bound(kebab(name), valueCode(value, used))];
  });

/** A prop as templates write it, with dashes; what would be taken for an attribute of every element keeps its capitals. */
const kebab = (name: string): string =>
  /^(aria|data)[A-Z]/.test(name) ? name : name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** A prop's value as an expression. */
export function valueCode(value: PropValue, used: VueUse): string {
  if (typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quote(value);
  if ('given' in value) return code(value.given, used);
  if ('asset' in value) return used.fileOf(value.asset);
  if ('items' in value && value.as !== undefined) return value.as;
  if ('items' in value) return `[${value.items.map((item) => itemCode(item, used)).join(', ')}]`;
  return drawingName(value.node, used);
}

const itemCode = (item: string | Readonly<Record<string, PropValue>>, used: VueUse): string =>
  typeof item === 'string'
    ? quote(item)
    : `{ ${Object.entries(item)
        .map(([name, value]) => `${name}: ${valueCode(value, used)}`)
        .join(', ')} }`;

/** The component of a drawing that stands in a file for all places, noted as used. */
function iconName({ name, isSmall }: EmittedIcon, { imports, file }: VueUse): string {
  imports.set(name, `${file.source}/${isSmall ? 'icons' : 'drawings'}/${name}.vue`);
  return name;
}

/** The component of a drawing that is given whole: that of all places, or one of its own. */
function drawingName(node: MarkupElement, used: VueUse): string {
  const icon = used.file.iconOf(node);
  if (icon && !node.className && Object.keys(node.attributes).every(isOwnOfIcon)) {
    return iconName(icon, used);
  }
  const says = JSON.stringify({ ...node, key: null });
  let drawing = used.drawings.get(says);
  if (!drawing) {
    const taken = new Set([...used.drawings.values()].map(({ name }) => name));
    const name = uniqueCodeName(
      `${used.file.sheet}${icon?.name ?? 'Drawing'}`,
      'Drawing',
      (one) => taken.has(one) || used.file.isTaken(one),
    );
    used.drawings.set(says, (drawing = { name, root: node }));
  }
  used.imports.set(drawing.name, `./${drawing.name}.vue`);
  return drawing.name;
}

/** Writes the records of a screen's lists. */
export function printData(
  lists: readonly EmittedList[],
  file: VueFile,
): PrintedCode & { readonly drawings: readonly OwnDrawing[] } {
  const used = newUse(file);
  const body = lists.flatMap((list) => [
    '',
    `export const ${list.data}: ${listType(list)} = [`,
    ...(list.items ?? list.records).map((item) => `  ${itemCode(item, used)},`),
    '];',
  ]);
  const types = [...new Set(lists.flatMap((list) => (givesProps(list) ? [list.component] : [])))].sort();
  const lines = [
    ...types.map((name) => `import type { ${name}Props } from '${file.components}/${name}/${name}.vue';`),
    ...[...used.imports].map(([name, path]) => `import ${name} from '${path}';`).sort(),
    ...body,
  ];
  while (lines[0] === '') lines.shift();
  return {
    text: `${lines.join('\n')}\n`,
    lines: lines.map(() => null),
    drawings: [...used.drawings.values()],
  };
}
