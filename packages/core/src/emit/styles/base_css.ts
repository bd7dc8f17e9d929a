import { grouped } from '../../json/grouped.ts';
import { foldShorthands } from './shorthands.ts';
import { reset } from '../../vocabulary/reset.ts';

function bodyOf(tag: string): string {
  const css = tag === 'body' ? { ...reset[tag], 'font-family': 'system-ui, sans-serif' } : reset[tag];
  return Object.entries(foldShorthands(css))
    .map(([name, value]) => `  ${name}: ${value === '0px' ? '0' : value};`)
    .join('\n');
}

/** The style sheet that every emitted app begins with, made from the reset. */
export const baseCss: string =
  [
    '*,\n*::before,\n*::after {\n  box-sizing: border-box;\n}',
    // Elements of which the same is said stand together.
    ...[...grouped(Object.keys(reset), bodyOf)].map(([body, tags]) => `${tags.join(',\n')} {\n${body}\n}`),
    '@media (prefers-reduced-motion: reduce) {\n  *,\n  *::before,\n  *::after {\n    animation-duration: 1ms !important;\n    transition-duration: 1ms !important;\n  }\n}',
    '',
  ]
    .join('\n\n')
    .trimEnd() + '\n';

/** What is closed is not seen, whatever else is said of how it is laid out. */
export const closedCss = '\n[hidden] {\n  display: none !important;\n}\n';
