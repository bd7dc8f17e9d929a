import { PRINT_WIDTH } from '../line_width.ts';
import {
  finish,
  functionLines,
  importLines,
  type Line,
  itemCode,
  newUsed,
  printElement,
  type TsxOptions,
  type Used,
  valueCode,
} from './print_tsx.ts';
import type { PrintedCode } from '../bundled/dialect.ts';
import { givesProps, isDrawn, listType, propType } from '../bundled/wording.ts';
import { named, script } from '../script.ts';
import type { EmittedComponent } from '../form/components/extract.ts';
import type { EmittedList } from '../form/components/lists.ts';
import { holdsContent } from '../form/components/hollow.ts';
import { looksAtAddress, noteSpoken } from '../form/markup.ts';
import { withNamedPlaces } from '../form/named_places.ts';

/** Writes a component with its typed props. */
export function printComponent(component: EmittedComponent, options: TsxOptions): PrintedCode {
  const used = newUsed(options);
  const { root, places } = withNamedPlaces(component.root, new Set(component.props.map((prop) => prop.name)));
  for (const { name, choices } of component.props) if (choices?.every(isYesNo)) used.yesNoProps.add(name);
  const usesPath = looksAtAddress(component.root);
  const body = printElement(root, 2, used);
  noteSpoken(root, used);
  const tables = classTables(used);
  const { props, name } = component;
  const { takesClass } = component.root;
  const takesContent = holdsContent(component.root);
  const lines: Line[] = [];
  const put = (text: string): void => void lines.push({ text, key: null });
  if (takesContent || props.some(isDrawn)) put("import type { ReactNode } from 'react';");
  importLines(used, usesPath).forEach(put);
  if (lines.length) put('');
  if (props.length || takesClass || takesContent) {
    put(`export interface ${name}Props {`);
    if (takesClass) put(`  className${takesClass === 'always' ? '' : '?'}: string;`);
    for (const prop of props)
      put(`  ${prop.name}${prop.isOptional ? '?' : ''}: ${propType(prop, 'ReactNode')};`);
    if (takesContent) put('  children: ReactNode;');
    put('}');
    put('');
  }
  for (const text of tables) put(text);
  return finish([...lines, ...functionLines(name, parametersOf(component), body, used, usesPath, places)]);
}

/** What an attribute of yes and no takes as it is. */
const isYesNo = (value: string): boolean => value === 'true' || value === 'false';

function parametersOf({ name, props, root }: EmittedComponent): string {
  const names = [
    ...(root.takesClass ? ['className'] : []),
    ...props.map(({ name: prop, byDefault }) =>
      byDefault === undefined ? prop : script`${named(prop)} = ${byDefault}`.text,
    ),
    ...(holdsContent(root) ? ['children'] : []),
  ];
  if (!names.length) return '()';
  const flat = `({ ${names.join(', ')} }: ${name}Props)`;
  if (`export function ${name}${flat} {`.length <= PRINT_WIDTH) return flat;
  return `({\n${names.map((prop) => `  ${prop},`).join('\n')}\n}: ${name}Props)`;
}

/** Tables of the classes of choices; flags are written where they are used. */
const classTables = (used: Used): string[] =>
  [...used.tables].flatMap(([name, classes]) => [
    `const ${name} = {`,
    ...Object.entries(classes).map(([value, written]) => `  ${value}: ${written},`),
    '};',
    '',
  ]);

/** Writes the records of a screen's lists, with the elements that they were drawn as. */
export function printData(lists: readonly EmittedList[], options: TsxOptions): PrintedCode {
  const used = newUsed(options);
  const lines: Line[] = [];
  lists.forEach((list, i) => {
    if (i) lines.push({ text: '', key: null });
    lines.push({ text: `export const ${list.data}: ${listType(list, 'className')} = [`, key: null });
    for (const item of list.items ?? []) lines.push({ text: `  ${itemCode(item, 1, used)},`, key: null });
    for (const record of list.records) {
      lines.push({ text: '  {', key: null });
      for (const [name, value] of Object.entries(record)) {
        const code = valueCode(value, 2, used);
        const entry = code.includes('\n')
          ? `    ${name}: (${code.replace(/\n(?=.)/g, '\n    ')}    ),`
          : `    ${name}: ${code},`;
        for (const text of entry.length > PRINT_WIDTH && !entry.includes('\n')
          ? [`    ${name}:`, `      ${code},`]
          : entry.split('\n'))
          lines.push({ text, key: null });
      }
      lines.push({ text: '  },', key: null });
    }
    lines.push({ text: '];', key: null });
  });
  const types = [...new Set(lists.filter(givesProps).map((list) => list.component))].sort();
  const head = [
    ...types.map((name) => `import type { ${name}Props } from '${options.components}/${name}/${name}';`),
    ...importLines({ ...used, components: new Set() }),
  ];
  return finish([
    ...head.map((text): Line => ({ text, key: null })),
    ...(head.length ? [{ text: '', key: null }] : []),
    ...lines,
  ]);
}
