import type { App, LibraryComponent, LibraryProp, Theirs, TheirValue } from '../../../model/app.ts';
import { isElement, type MarkupElement, type MarkupNode, type PropValue, type TheirUse } from '../markup.ts';
import { literal, propNamed } from '../../../expression/expression.ts';
import type { WholeComponent } from './extract.ts';
import type { Prop } from './template.ts';

/** A component of the team's own that a drawn one is, with what its library says of it. */
export interface TheirComponent {
  readonly component: LibraryComponent;
  /** What it is imported from. */
  readonly from: string;
  readonly props: Theirs['props'];
}

/** The team's own components that drawn ones are, by the ids of those; what a library no longer has is left out. */
export function theirComponents({
  components,
  libraries,
}: Pick<App, 'components' | 'libraries'>): Map<string, TheirComponent> {
  const found = new Map<string, TheirComponent>();
  for (const [id, { theirs }] of Object.entries(components)) {
    const library =
      theirs && Object.hasOwn(libraries, theirs.library) ? libraries[theirs.library] : undefined;
    const component = library?.components.find(({ name }) => name === theirs!.component);
    if (library && component)
      found.set(id, { component, from: component.from ?? library.name, props: theirs!.props });
  }
  return found;
}

const PRESSES = ['onClick', 'onPress', 'onSelect', 'onAction', 'onActivate'];

/** The prop of a component that is called when it is pressed. */
export const pressProp = (props: readonly LibraryProp[]): string | null =>
  PRESSES.find((name) => props.some((prop) => prop.name === name && prop.type === 'press')) ?? null;

/** The prop that says where a component leads: `to`, as links of a router take it, or `href`. */
export const leadsBy = (props: readonly LibraryProp[]): 'to' | 'href' | null =>
  (['to', 'href'] as const).find((name) =>
    props.some((prop) => prop.name === name && (prop.type === 'text' || prop.type === 'other')),
  ) ?? null;

/** Whether a component takes a class for where it stands. */
export const takesClassName = (props: readonly LibraryProp[]): boolean =>
  props.some(({ name }) => name === 'className');

/** The first element in markup, from the outside in, that does something when it is pressed or leads somewhere. */
export function actingIn(root: MarkupElement): MarkupElement | null {
  if (isActing(root)) return root;
  for (const child of root.children) {
    const found = isElement(child) ? actingIn(child) : null;
    if (found) return found;
  }
  return null;
}

const isActing = ({ link, acts, slots }: MarkupElement): boolean => !!(link ?? acts ?? slots?.to);

/** The team's own component in markup, where there is one. */
export function theirsOf(root: MarkupElement): TheirUse | null {
  if (root.theirs) return root.theirs;
  for (const child of root.children) {
    const found = isElement(child) ? theirsOf(child) : null;
    if (found) return found;
  }
  return null;
}

/** A component that shows one of the team's own: what differs from place to place, and what is done, goes to that. */
export function asTheirs(drawn: WholeComponent, { component, from, props }: TheirComponent): WholeComponent {
  const { root } = drawn;
  const isAround = Object.values(props).some(({ kind }) => kind === 'drawn');
  // What is drawn within does itself what it does.
  const acting = isAround ? (isActing(root) ? root : null) : actingIn(root);
  const given: Record<string, PropValue | number> = {};
  let children: readonly MarkupNode[] = [];
  for (const [name, value] of Object.entries(props)) {
    const prop = component.props.find((one) => one.name === name);
    if (!prop) continue;
    if (name === 'children') children = childrenOf(value, drawn);
    else {
      const said = valueOf(value, drawn, prop.isRequired === true);
      if (said !== null) given[name] = said;
    }
  }
  const node: MarkupElement = {
    tag: component.name,
    key: root.key,
    className: null,
    attributes: {},
    children,
    ...(acting?.link ? { link: acting.link } : {}),
    ...(acting?.form ? { form: acting.form } : {}),
    ...(acting?.acts ? { acts: acting.acts } : {}),
    ...(acting?.slots?.to ? { slots: { to: acting.slots.to } } : {}),
    theirs: {
      name: component.name,
      from,
      isDefault: component.isDefault ?? false,
      props: given,
      press:
        Object.entries(props).find(([, value]) => value.kind === 'deed')?.[0] ?? pressProp(component.props),
      idle: component.props.flatMap(({ name, type, isRequired }) =>
        type === 'press' && isRequired ? [name] : [],
      ),
      leads: leadsBy(component.props),
    },
  };
  const { takesClass } = root;
  const rules = isAround ? drawn.rules : [];
  if (!takesClass) return { root: node, props: drawn.props, rules };
  if (takesClassName(component.props)) return { root: { ...node, takesClass }, props: drawn.props, rules };
  // It takes no class, so that an element around it stands where it stood.
  const around: MarkupElement = {
    tag: 'div',
    key: root.key,
    className: null,
    attributes: {},
    children: [node],
    takesClass,
  };
  return { root: around, props: drawn.props, rules };
}

/**
 * What is given for a value; null where the drawn component no longer has that. What may be missing in the drawn one and is needed
 * by theirs is empty then.
 */
function valueOf(value: TheirValue, { props }: WholeComponent, isNeeded: boolean): PropValue | number | null {
  if (value.kind === 'fixed') return value.value;
  const prop = value.kind === 'prop' ? props.find(({ name }) => name === value.name) : undefined;
  if (!prop) return null;
  const given = propNamed(prop.name);
  const isMissing = (prop.isOptional || prop.canBeUnsaid === true) && prop.byDefault === undefined;
  if (!isNeeded || !isMissing || prop.kind === 'drawing') return { given };
  return { given: { kind: 'or', of: [given, literal(prop.kind === 'flag' ? false : '')] } };
}

function childrenOf(value: TheirValue, { root, props }: WholeComponent): readonly MarkupNode[] {
  if (value.kind === 'content') return [{ content: true }];
  if (value.kind === 'deed') return [];
  if (value.kind === 'drawn') return root.children;
  if (value.kind === 'fixed') return [{ text: String(value.value) }];
  const prop = props.find(({ name }) => name === value.name);
  if (!prop) return [];
  const given = propNamed(prop.name);
  return prop.kind === 'drawing' ? [{ slot: given }] : [{ text: '', given }];
}

/** Whether what a prop of a drawn component gives is what a prop of theirs takes. */
export function suits({ kind, choices }: Prop, { type, choices: theirs = [] }: LibraryProp): boolean {
  switch (type) {
    case 'text':
      return kind === 'text' || kind === 'link' || kind === 'image';
    case 'node':
      return kind === 'text' || kind === 'drawing';
    case 'yes-no':
      return kind === 'flag';
    case 'one-of':
      return kind === 'choice' && (choices ?? []).every((choice) => theirs.includes(choice));
    default:
      return type === 'other';
  }
}
