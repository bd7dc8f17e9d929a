import {
  type EmittedAct,
  type EmittedStep,
  isCounted,
  isText,
  type MarkupElement,
  textIn,
} from '../form/markup.ts';
import { fillRoute, parametersOf } from '../../paths/pattern.ts';

/** A press as the emitted test does it. `press` counts links and buttons on the screen, from 0. */
export interface TestedLink {
  readonly from: string;
  readonly press: number;
  readonly label: string;
  readonly kind: 'go' | 'back' | 'external' | 'file' | 'drawer' | 'open';
  /** Address, id or, of `open`, the overlay's name. */
  readonly to: string;
  /** Conditions that must hold for it. */
  readonly given?: Readonly<Record<string, boolean>>;
}

/** What the test presses on a screen: what leads somewhere by pressing, under whatever condition. */
export function testedLinksIn(root: MarkupElement): Omit<TestedLink, 'from'>[] {
  const links: Omit<TestedLink, 'from'>[] = [];
  let press = -1;
  const visit = (node: MarkupElement): void => {
    if (isCounted(node)) press++;
    const label = textIn(node).slice(0, 60) || String(node.attributes['aria-label'] ?? node.tag);
    if (node.link) links.push({ press, label, kind: node.link.kind, to: whereTo(node.link) });
    const pressed = node.acts?.find((act) => act.on === 'press');
    for (const way of pressed ? waysOf(pressed) : []) links.push({ press, label, ...way });
    for (const child of node.children) if (!isText(child)) visit(child);
  };
  visit(root);
  return links;
}

type Goal = Pick<TestedLink, 'kind' | 'to' | 'given'>;

/** The ways of an act that lead somewhere, each with what must hold so that it is the one that is done. */
function waysOf({ ways }: EmittedAct): Goal[] {
  const goals: Goal[] = [];
  const failed: Record<string, boolean> = {};
  for (const { when, steps } of ways) {
    const given = { ...failed, ...(when ? { [when.condition]: when.is } : {}) };
    const isPossible = !when || failed[when.condition] !== !when.is;
    const last = steps.at(-1)!;
    if (isPossible && (last.kind === 'go' || last.kind === 'back' || last.kind === 'open'))
      goals.push({
        kind: last.kind,
        to: whereTo(last),
        ...(Object.keys(given).length ? { given } : {}),
      });
    if (!when) break;
    failed[when.condition] = !when.is;
  }
  return goals;
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
      return '';
  }
}

/** Fills what addresses leave open from the one that the screen is tested at. */
export function settledLink(
  link: Omit<TestedLink, 'from'>,
  from: string,
  route: string,
  params: Readonly<Record<string, string>>,
): TestedLink {
  const isAddress = link.kind === 'go' || link.kind === 'back';
  const to = isAddress
    ? parametersOf(route).reduce(
        (text, name) => (params[name] ? text.replace(`:${name}`, encodeURIComponent(params[name])) : text),
        link.to,
      )
    : link.to;
  return { from, ...link, to };
}

export const testedAddress = (route: string, params: Readonly<Record<string, string>> = {}): string =>
  fillRoute(route, { '*': 'no/such/place', ...params }).replace(/:(\w+)/g, '$1');

export function linksJson(links: readonly TestedLink[]): string {
  if (!links.length) return '[]\n';
  const rows = links.map((link) => {
    const fields = Object.entries(link).map(
      ([name, value]) =>
        `    ${JSON.stringify(name)}: ${JSON.stringify(value)
          .replace(/[{,:](?=["tf])/g, '$& ')
          .replace(/\}$/, ' }')}`,
    );
    return `  {\n${fields.join(',\n')}\n  }`;
  });
  return `[\n${rows.join(',\n')}\n]\n`;
}
