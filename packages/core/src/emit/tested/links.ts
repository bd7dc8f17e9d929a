import { type EmittedAct, type EmittedStep, findMarkup, type MarkupElement } from '../form/markup.ts';
import { fillRoute, parametersOf } from '../../paths/pattern.ts';
import { type Pressed, pressesIn, waysOf } from './presses.ts';

/** A press as the emitted test does it: of what has this role and name, as a person looks for it. */
export interface TestedLink extends Pressed {
  readonly from: string;
  readonly kind: 'go' | 'back' | 'external' | 'file' | 'drawer' | 'open';
  /** Address, id or, of `open`, the overlay's name. */
  readonly to: string;
  /** Variables that must hold for it. */
  readonly given?: Readonly<Record<string, boolean>>;
}

/** What the test presses on a screen: what leads somewhere by pressing, under whatever condition. */
export function testedLinksIn(root: MarkupElement, unsure?: ReadonlySet<string>): Omit<TestedLink, 'from'>[] {
  return pressesIn(root, unsure).flatMap(({ node, pressed }) => {
    const { link } = node;
    const act = node.acts?.find(({ on }) => on === 'press');
    return [
      // What opens in its place leads nowhere.
      ...(link && link.kind !== 'disclose' ? [{ ...pressed, kind: link.kind, to: whereTo(link) }] : []),
      ...(act ? goalsOf(act).map((way) => ({ ...pressed, ...way })) : []),
    ];
  });
}

/** Whether a screen leads elsewhere as soon as it is shown, so that nobody does anything on it. */
export function isLeftAtOnce(root: MarkupElement): boolean {
  const isLeaving = ({ kind }: EmittedStep): boolean =>
    kind === 'go' || kind === 'back' || kind === 'external';
  return (
    findMarkup(root, ({ acts = [] }) =>
      acts.some(({ on, ways }) => on === 'load' && ways.some(({ steps }) => steps.some(isLeaving))),
    ) !== null
  );
}

type Goal = Pick<TestedLink, 'kind' | 'to' | 'given'>;

/** The ways of an act that lead somewhere, each with what must hold so that it is the one that is done. */
function goalsOf(act: EmittedAct): Goal[] {
  return waysOf(act).flatMap(({ given, steps }): Goal[] => {
    const last = steps.at(-1)!;
    return last.kind === 'go' || last.kind === 'back' || last.kind === 'open'
      ? [{ kind: last.kind, to: whereTo(last), ...(Object.keys(given).length ? { given } : {}) }]
      : [];
  });
}

function whereTo(step: EmittedStep): string {
  switch (step.kind) {
    case 'go':
      return step.to;
    case 'back':
      return step.fallback;
    case 'external':
      return step.href;
    case 'file':
      return step.name;
    case 'drawer':
      return `#${step.id}`;
    case 'open':
      return step.overlay;
    case 'close':
    case 'set':
    case 'say':
    case 'browser':
    case 'disclose':
    case 'turn':
    case 'list':
    case 'record':
    case 'call':
      return '';
  }
}

/** An address as it is from the one that a screen is tested at: what it leaves open is filled, places of the own page get theirs. */
export function settledAddress(
  to: string,
  from: string,
  route: string,
  params: Readonly<Record<string, string>>,
): string {
  const filled = parametersOf(route).reduce(
    (text, name) => (params[name] ? text.replace(`:${name}`, encodeURIComponent(params[name])) : text),
    to,
  );
  return filled.startsWith('#') ? from + filled : filled;
}

/** A link as it is from the address that its screen is tested at. */
export function settledLink(
  link: Omit<TestedLink, 'from'>,
  from: string,
  route: string,
  params: Readonly<Record<string, string>>,
): TestedLink {
  const isAddress = link.kind === 'go' || link.kind === 'back';
  return { from, ...link, to: isAddress ? settledAddress(link.to, from, route, params) : link.to };
}

/** What more screens than these have alike is tried on the first of them. */
const MOST_ALIKE = 3;

/**
 * What is tested without what is tested already: what most screens of a layout have is around them, and what many screens
 * have is the same everywhere; both are tried on the first of them.
 * @param layouts the addresses of the screens of each
 */
export function triedOnce<T extends { readonly from: string }>(
  all: readonly T[],
  layouts: readonly (readonly string[])[],
): readonly T[] {
  const around = new Map(layouts.flatMap((addresses) => addresses.map((from) => [from, addresses] as const)));
  const signOf = ({ from: _from, ...rest }: T): string => JSON.stringify({ ...rest, at: undefined });
  const screens = new Map<string, Set<string>>();
  for (const one of all) screens.set(signOf(one), (screens.get(signOf(one)) ?? new Set()).add(one.from));
  return all.filter((one) => {
    const alike = [...screens.get(signOf(one))!];
    if (alike.length > MOST_ALIKE) return alike[0] === one.from;
    const layout = around.get(one.from);
    const near = alike.filter((from) => layout?.includes(from));
    return !layout || near[0] === one.from || near.length * 2 <= layout.length;
  });
}

export const testedAddress = (route: string, params: Readonly<Record<string, string>> = {}): string =>
  fillRoute(route, { '*': 'no/such/place', ...params }).replace(/:(\w+)/g, '$1');
