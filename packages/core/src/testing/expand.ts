import type { Expression } from '../expression/expression.ts';
import { type Scope, valueOf } from '../expression/value_of.ts';
import type { Extraction } from '../emit/form/components/extract.ts';
import { extractionOf } from '../emit/form/components/extraction.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import type { Project } from '../model/project.ts';
import {
  isElement,
  isOpenAtFirst,
  isText,
  type MarkupElement,
  type MarkupNode,
  type PropValue,
  openAt,
  type StyleRule,
  type Variant,
} from '../emit/form/markup.ts';

type Props = Readonly<Record<string, PropValue | undefined>>;

/** What a class says: by itself, at widths up to some, from some on, and in states. */
type Look = readonly [
  Readonly<Record<string, string>>,
  ...(readonly Readonly<Record<string, Readonly<Record<string, string>>>>[]),
];

/** What two classes of one element say together. */
const both = (own: Look | null, placed: Look): unknown =>
  own
    ? own.map((table, i) => {
        const more = placed[i];
        if (!i) return { ...table, ...more };
        return Object.fromEntries(
          [...new Set([...Object.keys(table), ...Object.keys(more)])].map((name) => [
            name,
            { ...(table[name] as object), ...(more[name] as object) },
          ]),
        );
      })
    : placed;

/**
 * What an extracted screen draws: its components written out again, with each class replaced by what it says. Equal to
 * the same of the screen that nothing was taken out of.
 */
export function drawn(
  root: MarkupElement,
  rules: readonly StyleRule[],
  extraction: Extraction | null,
  pathname: string,
): unknown {
  const components = new Map(extraction?.components.map((component) => [component.name, component]));
  const look = (of: readonly StyleRule[], name: string | null | undefined): unknown => {
    const rule = name ? of.find((candidate) => candidate.className === name) : undefined;
    return rule ? [rule.base, rule.at, rule.from, rule.states] : null;
  };
  let items: Record<string, unknown> = {};
  const evaluate = (term: Expression, props: Props): unknown =>
    valueOf(term, { props: props as Scope['props'], items: items as Scope['items'], path: pathname });
  const given = (value: PropValue | undefined, props: Props): PropValue | undefined =>
    typeof value === 'object' && 'given' in value
      ? (evaluate(value.given, props) as PropValue | undefined)
      : value;
  const draw = (
    node: MarkupNode,
    of: readonly StyleRule[],
    props: Props,
    content: readonly unknown[] = [],
  ): unknown[] => {
    if (isText(node)) {
      const value = node.given ? evaluate(node.given, props) : node.text;
      return value === undefined ? [] : [value];
    }
    if ('slot' in node) {
      const value = evaluate(node.slot, props) as { readonly node: MarkupElement } | undefined;
      return value === undefined ? [] : draw(value.node, rules, {});
    }
    if ('content' in node) return [...content];
    if ('list' in node)
      return node.list.records.flatMap(({ id: _id, ...record }, i) => [
        ...(node.list.isApart && i ? [' '] : []),
        ...use(node.list.component, record, {}, look(of, node.list.className) as Look | null),
      ]);
    if (isElement(node) && node.each) {
      const { each, ...one } = node;
      const before = items;
      const { items: all } = evaluate(each.of, props) as { readonly items: readonly unknown[] };
      const made = all.flatMap((item, i) => {
        items = { ...before, [each.item]: item };
        return [...(each.isApart && i ? [' '] : []), ...draw(one, of, props, content)];
      });
      items = before;
      return made;
    }
    if (!isElement(node) || (node.when && !evaluate(node.when, props))) return [];
    if (node.use) {
      const held = node.children.flatMap((child) => draw(child, of, props, content));
      return use(node.use.component, node.use.props, props, look(of, node.className) as Look | null, held);
    }
    const { slots = {} } = node;
    const attributes: Record<string, unknown> = { ...node.attributes };
    for (const [name, term] of Object.entries(slots))
      if (name.startsWith('@')) attributes[name.slice(1)] = evaluate(term, props);
    for (const name of Object.keys(attributes)) if (attributes[name] === undefined) delete attributes[name];
    const chosen = ({ by, classes }: Variant): string | null =>
      classes[String(evaluate(by, props) || ('true' in classes ? false : ''))];
    const looks = [
      node.variant ? chosen(node.variant) : node.className,
      ...(node.aspects ?? []).map(chosen),
    ].flatMap((name) => {
      const said = look(of, name) as Look | null;
      return said ? [said] : [];
    });
    const to = slots.to ? evaluate(slots.to, props) : undefined;
    const asset = slots.asset ? (evaluate(slots.asset, props) as { asset: string }).asset : node.asset;
    const open = openAt(node);
    const isOpen = open ? !!evaluate(open, props) : isOpenAtFirst(node);
    const link = node.link && {
      ...node.link,
      ...('isOpen' in node.link ? { isOpen: undefined } : {}),
      ...(to === undefined
        ? {}
        : node.link.kind === 'go'
          ? { to }
          : node.link.kind === 'back'
            ? { fallback: to }
            : node.link.kind === 'disclose'
              ? { id: to }
              : node.link.kind === 'external'
                ? { href: to }
                : {}),
    };
    return [
      {
        tag: node.tag,
        look: looks.length ? looks.reduce<unknown>((all, one) => both(all as Look | null, one), null) : null,
        attributes: Object.fromEntries(Object.entries(attributes).sort(([a], [b]) => (a < b ? -1 : 1))),
        asset,
        link,
        ...(isOpen === undefined ? {} : { isOpen }),
        children: node.children.flatMap((child) => draw(child, of, props, content)),
      },
    ];
  };
  const use = (
    name: string,
    values: Readonly<Record<string, PropValue>>,
    outer: Props,
    placed: Look | null,
    content: readonly unknown[] = [],
  ): unknown[] => {
    const component = components.get(name)!;
    const defaults = component.props.flatMap((prop) =>
      prop.byDefault === undefined ? [] : [[prop.name, prop.byDefault] as const],
    );
    const props = Object.entries(values).map(([key, value]) => [key, given(value, outer)] as const);
    const made = draw(component.root, component.rules, Object.fromEntries([...defaults, ...props]), content);
    if (!placed) return made;
    const [root, ...others] = made as { readonly look: Look | null }[];
    return [{ ...root, look: both(root.look, placed) }, ...others];
  };
  return placed(draw(root, rules, {})[0]);
}

/** What is drawn, with what looks say of where elements stand said by those themselves. */
function placed(node: unknown, own = ':only-child', outer = '', tag = ''): unknown {
  if (typeof node !== 'object' || node === null || !('children' in node)) return node;
  const { children, look, tag: named } = node as Drawn;
  const elements = children.filter((child) => typeof child === 'object');
  return {
    ...node,
    look: look && atPlace(look, own, outer, tag),
    children: children.map((child) => {
      const at = elements.indexOf(child as object);
      const ends = `${at === 0 ? ':first-child' : ''}${at === elements.length - 1 ? ':last-child' : ''}`;
      return typeof child === 'string' ? child : placed(child, ends, own, named);
    }),
  };
}

interface Drawn {
  readonly tag: string;
  readonly look: Look | null;
  readonly children: readonly (object | string)[];
}

/** Null for what says nothing, as no class does. */
function atPlace([base, at, from, states = {}]: Look, own: string, outer: string, tag: string): Look | null {
  const holds = (state: string): boolean | null => {
    const [, of, isNot, end] =
      /^(?::is\((\w+))?(:not\()?(:(?:first|last)-child)\)?(?: > \*\))?$/.exec(state) ?? [];
    if (!end) return null;
    return (of === undefined || of === tag) && (of === undefined ? own : outer).includes(end) !== !!isNot;
  };
  const told = Object.entries(states).map(([state, block]) => [state, block, holds(state)] as const);
  const made = [
    Object.assign({}, base, ...told.flatMap(([, block, is]) => (is ? [block] : []))) as Look[0],
    at,
    from,
    Object.fromEntries(told.flatMap(([state, block, is]) => (is === null ? [[state, block]] : []))),
  ] as const;
  return made.some((table) => Object.keys(table).length) ? made : null;
}

/** What each screen of a project draws with its components taken out of it, and what it draws by itself: the same. */
export function drawnBothWays(project: Project): { readonly made: unknown; readonly plain: unknown }[] {
  const plan = new EmissionPlan(project);
  const extraction = extractionOf(plan);
  return plan.screens.map((key) => {
    const { root, rules } = emitScreenOf(plan, key);
    const route = plan.routeOf(key)!;
    return {
      made: drawn(extraction.roots.get(key)!, extraction.rules.get(key)!, extraction, route),
      plain: drawn(root, rules, null, route),
    };
  });
}
