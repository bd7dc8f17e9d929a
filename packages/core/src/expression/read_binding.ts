import { type KnownNames, type ParsedExpression, parseExpression, type Type } from './language.ts';
import type { Binding } from '../model/app.ts';

/** What of an element an expression says. */
export type BoundPart = Exclude<keyof Binding, 'like'>;

/** What is bound of an element, each with its expression as it is written. */
export const boundParts = ({ like: _like, ...binding }: Binding): readonly (readonly [BoundPart, string])[] =>
  (Object.entries(binding) as [BoundPart, string | undefined][]).flatMap(([part, source]) =>
    source === undefined ? [] : [[part, source] as const],
  );

/** A binding without one of its parts; null where nothing is left of it. What it looks like goes with when it does. */
export function withoutPart(binding: Binding, part: BoundPart): Binding | null {
  const { [part]: _gone, like, ...others } = binding;
  const rest = like === undefined || part === 'marked' ? others : { ...others, like };
  return Object.keys(rest).length ? rest : null;
}

/** What an expression has to come to for what it says of an element; anything that can be said where nothing stands here. */
const TAKES: Readonly<Partial<Record<BoundPart, readonly [kind: Type['kind'], says: string]>>> = {
  options: ['list', 'a list of texts: map(tools, (tool) => tool.kind)'],
  labels: ['list', 'a list of texts: map(tools, (tool) => tool.name)'],
  values: ['list', 'a list of what to draw: map(tools, (tool) => tool.loans)'],
  rows: ['records', 'records: filter(tools, (tool) => …)'],
};

/** Reads what an expression says of an element; what comes to something else than that takes is a problem, too. */
export function readBinding(part: BoundPart, source: string, known: KnownNames): ParsedExpression {
  const parsed = parseExpression(source, known);
  if (parsed.problem) return parsed;
  const takes = TAKES[part];
  const { kind } = parsed.type;
  const isThere = part === 'shown' || part === 'enabled' || part === 'marked';
  const wrong = takes
    ? kind !== takes[0] && `it has to be ${takes[1]}`
    : !isThere && /^(records?|list)$/.test(kind) && SAYS[kind as keyof typeof SAYS];
  return wrong ? { problem: { message: wrong, start: 0, end: source.length } } : parsed;
}

const SAYS = {
  records: 'records are many; count(…) says how many',
  record: 'say which field of it',
  list: "write join(…, ', ') for a list as one text",
} as const;
