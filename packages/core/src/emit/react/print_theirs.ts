import { code } from './expression_code.ts';
import { boundActs, callOf } from '../bundled/print_acts.ts';
import type { MarkupElement, TheirUse } from '../form/markup.ts';
import { jsxValue } from '../quoting.ts';
import { givenProps, type Used } from './print_tsx.ts';

/**
 * A component of the team's own as it is written: what it is called in the file, and what it is given.
 * @param placed the attribute by which it is given a class, if it is given one
 */
export function theirOpening(
  node: MarkupElement,
  theirs: TheirUse,
  placed: readonly string[],
  depth: number,
  used: Used,
): { tag: string; attributes: string[] } {
  const props = givenProps(theirs.props, depth, used);
  const done = behaviour(node, theirs, used);
  const idle = theirs.idle.filter((name) => !done.some((one) => one.startsWith(`${name}=`)));
  return {
    tag: nameInFile(theirs, used),
    attributes: [...placed, ...props, ...done, ...idle.map((name) => `${name}={() => {}}`)],
  };
}

/** What it is called in a file, which may itself be of a component that is called so. */
function nameInFile(theirs: TheirUse, used: Used): string {
  const isTaken = theirs.name === used.options.component || used.components.has(theirs.name);
  const name = isTaken ? `Base${theirs.name}` : theirs.name;
  used.theirs.set(name, theirs);
  return name;
}

/** Where it leads and what it does, by the props that it has for that. */
function behaviour(node: MarkupElement, { press, leads }: TheirUse, used: Used): string[] {
  const { link, slots = {}, acts } = node;
  const to = slots.to && code(slots.to);
  if (acts && press) {
    const { events } = boundActs(node, used);
    const done = events.find(({ on }) => on === 'press');
    if (done) return [`${press}={${done.isCall ? `() => ${done.handler}` : done.handler}}`];
  }
  if (!link) return [];
  const address =
    link.kind === 'external'
      ? jsxValue(link.href)
      : link.kind === 'go'
        ? jsxValue(link.to)
        : link.kind === 'back'
          ? jsxValue(link.fallback)
          : null;
  const said = to ? `{${to}}` : address;
  const isAddress = link.kind !== 'disclose' && link.kind !== 'drawer';
  if (leads && isAddress && said && (leads === 'to' || link.kind === 'external')) return [`${leads}=${said}`];
  const act = press && link.kind !== 'external' ? `() => ${callOf(link, used, to)}` : null;
  if (!leads || !isAddress || !said) return act ? [`${press}={${act}}`] : [];
  if (!act) return [`${leads}=${said}`];
  used.helpers.add('leading');
  return [`${leads}=${said}`, `${press}={leading(${act})}`];
}

/** The imports of the team's own components that a file uses, by the names that they have in it. */
export const theirImports = (used: Used): string[] => {
  const byFrom = new Map<string, string[]>();
  const lines: string[] = [];
  for (const [name, theirs] of [...used.theirs].sort(([a], [b]) => (a < b ? -1 : 1)))
    if (theirs.isDefault) lines.push(`import ${name} from '${theirs.from}';`);
    else
      byFrom.set(theirs.from, [
        ...(byFrom.get(theirs.from) ?? []),
        name === theirs.name ? name : `${theirs.name} as ${name}`,
      ]);
  for (const [from, names] of [...byFrom].sort(([a], [b]) => (a < b ? -1 : 1)))
    lines.push(`import { ${names.join(', ')} } from '${from}';`);
  return lines;
};
