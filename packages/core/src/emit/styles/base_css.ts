import { foldShorthands } from './shorthands.ts';
import { reset } from '../../vocabulary/reset.ts';

/** The style sheet that every emitted app begins with, made from the reset. */
export const baseCss: string =
  [
    '*,\n*::before,\n*::after {\n  box-sizing: border-box;\n}',
    ...Object.entries(reset).map(([tag, declarations]) => {
      const css = tag === 'body' ? { ...declarations, 'font-family': 'system-ui, sans-serif' } : declarations;
      const lines = Object.entries(foldShorthands(css)).map(
        ([name, value]) => `  ${name}: ${value === '0px' ? '0' : value};`,
      );
      return `${tag} {\n${lines.join('\n')}\n}`;
    }),
    '@media (prefers-reduced-motion: reduce) {\n  *,\n  *::before,\n  *::after {\n    animation-duration: 1ms !important;\n    transition-duration: 1ms !important;\n  }\n}',
    '',
  ]
    .join('\n\n')
    .trimEnd() + '\n';

/** What is closed is not seen, whatever else is said of how it is laid out. */
export const closedCss = '\n[hidden] {\n  display: none !important;\n}\n';
