import { camelCase } from '../../model/names.ts';
import type { EmittedFile } from '../emitted.ts';
import { isElement, type MarkupElement } from '../form/markup.ts';
import { actNames } from '../form/act_names.ts';
import { isHooked } from '../form/hooked.ts';

/** What is handed to the functions of a view that do something, by their names. */
export type Acts = Map<string, 'text' | 'values' | null>;

/** How the files of a view let people hook in: what they take, and the functions that can be hooked, noted while they are written. */
export interface ViewLogic {
  /** The function that gives the hooks, and the file that it is in, from the files of the view. */
  readonly hook: string;
  readonly path: string;
  readonly acts: Acts;
  /** What functions are called, by `actId`. */
  readonly names: ReadonlyMap<string, string>;
  /** The outermost element, which is given what people want it to have. */
  root: MarkupElement | null;
}

/** @param before what functions were called, which are called so still */
export const logicOf = (
  component: string,
  root: MarkupElement,
  before: ReadonlyMap<string, string>,
): ViewLogic => ({
  names: actNames(root, before, isHooked),
  hook: `use${component}Logic`,
  path: `./${component}.logic`,
  acts: new Map(),
  root: null,
});

const firstKey = (root: MarkupElement): string | null =>
  root.key ?? root.children.find((child) => isElement(child))?.key ?? null;

const HANDED = { text: '[text: string]', values: '[values: Values]' } as const;

/**
 * The file that says what people do on a view, which is written anew, and the one in which they hook in, which is written once
 * and theirs.
 * @param path of the view, without what the name ends in
 */
export function logicFiles(
  path: string,
  component: string,
  root: MarkupElement,
  { hook, acts }: ViewLogic,
): EmittedFile[] {
  const list = [...acts];
  const types = [
    ...(list.some(([, handed]) => handed === 'values')
      ? ["import type { Values } from '../../forms/check';", '']
      : []),
    `/** What people do here, with what each is given. */`,
    ...(list.length
      ? [
          `export interface ${component}Acts {`,
          ...list.map(([act, handed]) => `  ${act}: ${handed ? HANDED[handed] : '[]'};`),
          '}',
        ]
      : [`export type ${component}Acts = Record<never, never>;`]),
  ];
  const [first] = list.length ? list[0] : [camelCase(`handle ${component}`)];
  const logic = [
    "import type { Logic } from '../../logic/logic';",
    `import type { ${component}Acts } from './${component}.acts';`,
    '',
    '/**',
    ' * Yours: written once, and never again. What is done before, after or instead of what people do',
    ` * here, as in \`{ ${first}: { before: () => window.confirm('Sure?') } }\`,`,
    ' * and what the outermost element has of its own, as `root`.',
    ' */',
    `export function ${hook}(): Logic<${component}Acts> {`,
    '  return {};',
    '}',
  ];
  return [
    { path: `${path}.acts.ts`, text: `${types.join('\n')}\n` },
    {
      path: `${path}.logic.ts`,
      text: `${logic.join('\n')}\n`,
      // By the element it is found again where its screen is called otherwise.
      lines: logic.map(() => firstKey(root)),
      owner: 'yours',
    },
  ];
}
