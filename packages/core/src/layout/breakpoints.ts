import type { Screen } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { onceFor } from '../json/once_for.ts';

/** A window width, in px, at which something of a screen changes. */
export interface Breakpoint {
  readonly width: number;
  /** Whether it holds up to this width or from it. */
  readonly kind: 'upTo' | 'from';
  /** How many elements have a rule for it. */
  readonly elements: number;
}

/** The breakpoints of a screen, the narrowest first; computed once per screen value. */
export const breakpointsOf = onceFor((screen: Screen): readonly Breakpoint[] => {
  const counts = new Map<string, Breakpoint>();
  const count = (kind: Breakpoint['kind'], width: string): void => {
    const key = `${kind} ${width}`;
    counts.set(key, { kind, width: Number(width), elements: (counts.get(key)?.elements ?? 0) + 1 });
  };
  walkElements(screen.root, ({ style }) => {
    for (const width of Object.keys(style.at ?? {})) count('upTo', width);
    for (const width of Object.keys(style.from ?? {})) count('from', width);
  });
  return [...counts.values()].sort((a, b) => a.width - b.width || (a.kind < b.kind ? -1 : 1));
});
