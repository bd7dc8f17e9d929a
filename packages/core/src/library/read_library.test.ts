import { readLibrary } from './read_library.ts';

const propsOf = (text: string, name = 'Part', more: Readonly<Record<string, string>> = {}) => {
  const files = [
    { path: 'src/index.tsx', text },
    ...Object.entries(more).map(([path, said]) => ({ path, text: said })),
  ];
  return readLibrary(files, 'parts').library.components.find((one) => one.name === name)?.props;
};
const markup = '=> <i />';

test.each([
  [
    'a text that is needed',
    `export const Part = (p: { label: string }) ${markup}`,
    [{ name: 'label', type: 'text', isRequired: true }],
  ],
  [
    'one of several',
    `type Size = 's' | 'm'; export const Part = (p: { size?: Size }) ${markup}`,
    [{ name: 'size', type: 'one-of', choices: ['s', 'm'] }],
  ],
  [
    'keys of a table',
    `const tones = { calm: 1, 'very-loud': 2 } as const; export const Part = (p: { tone?: keyof typeof tones }) ${markup}`,
    [{ name: 'tone', type: 'one-of', choices: ['calm', 'very-loud'] }],
  ],
  [
    'entries of a list',
    `const sizes = ['s', 'm'] as const; export const Part = (p: { size?: (typeof sizes)[number] }) ${markup}`,
    [{ name: 'size', type: 'one-of', choices: ['s', 'm'] }],
  ],
  [
    'what is shown',
    `export const Part = (p: { icon?: React.ReactNode | string }) ${markup}`,
    [{ name: 'icon', type: 'node' }],
  ],
  [
    'what is called',
    `export const Part = (p: { onPress?: () => void; onOpen?: MouseEventHandler }) ${markup}`,
    [
      { name: 'onPress', type: 'press' },
      { name: 'onOpen', type: 'press' },
    ],
  ],
  [
    'a number or a text',
    `export const Part = (p: { count?: number | string }) ${markup}`,
    [{ name: 'count', type: 'text' }],
  ],
  [
    'a default in the parameters',
    `export function Part({ label = 'Go' }: { label: string }) { return <i>{label}</i>; }`,
    [{ name: 'label', type: 'text', byDefault: 'Go' }],
  ],
  [
    'a default said later',
    `export function Part(p: { isOpen: boolean }) { return <i />; } Part.defaultProps = { isOpen: true };`,
    [{ name: 'isOpen', type: 'yes-no', byDefault: 'true' }],
  ],
  [
    'what extends something',
    `interface Base { label: string } interface Props extends Base { isOpen?: boolean } export const Part = (p: Props) ${markup}`,
    [
      { name: 'label', type: 'text', isRequired: true },
      { name: 'isOpen', type: 'yes-no' },
    ],
  ],
  [
    'what leaves something out',
    `type All = { a?: string; b?: string; c?: string }; export const Part = (p: Omit<All, 'a'> & Pick<All, 'a'>) ${markup}`,
    [
      { name: 'b', type: 'text' },
      { name: 'c', type: 'text' },
      { name: 'a', type: 'text' },
    ],
  ],
  [
    'a forwarded reference',
    `export const Part = React.forwardRef<HTMLElement, { label?: string }>((props, ref) ${markup})`,
    [{ name: 'label', type: 'text' }],
  ],
  [
    'one that is memoized',
    `const Inner = ({ label }: { label?: string }) ${markup}; export const Part = memo(Inner)`,
    [{ name: 'label', type: 'text' }],
  ],
  [
    'a class',
    `export class Part extends React.Component<{ label?: string }> { render() { return null; } }`,
    [{ name: 'label', type: 'text' }],
  ],
  [
    'a type of a component',
    `export const Part: FC<{ label?: string }> = () => null`,
    [{ name: 'label', type: 'text' }],
  ],
  [
    'either of two',
    `type Props = { kind: 'link'; href: string } | { kind: 'button'; label: string }; export const Part = (p: Props) ${markup}`,
    [
      { name: 'kind', type: 'one-of', choices: ['link', 'button'], isRequired: true },
      { name: 'href', type: 'text' },
      { name: 'label', type: 'text' },
    ],
  ],
])('%s', (_, text, props) => {
  expect(propsOf(text)).toEqual(props);
});

test('types are followed from file to file, also through what passes all on', () => {
  const made = propsOf(`export { default as Part } from './part';`, 'Part', {
    'src/part/index.ts': `export { Part as default } from './Part';`,
    'src/part/Part.tsx': `import type { Props } from '../types'; export function Part(p: Props) { return <i />; }`,
    'src/types/index.ts': `export * from './props';`,
    'src/types/props.ts': `export type Props = Base & { to?: string }; type Base = { label?: string };`,
  });
  expect(made?.map(({ name }) => name)).toEqual(['label', 'to']);
});

test('declarations without sources are read, too', () => {
  const { library } = readLibrary(
    [
      {
        path: 'package.json',
        text: '{ "name": "@own/parts", "version": "3.0.1", "types": "dist/all.d.ts" }',
      },
      {
        path: 'dist/all.d.ts',
        text: `import * as React from 'react';
declare const Button: ForwardRefComponent<'button', { look?: 'loud' | 'quiet' }>;
declare function Card(props: { heading: string }): JSX.Element;
declare const notShown: number;
export { Button, Card, notShown };`,
      },
    ],
    'folder',
  );
  expect(library).toMatchObject({ name: '@own/parts', version: '^3.0.1' });
  expect(library.components.map(({ name }) => name)).toEqual(['Button', 'Card']);
  expect(library.components[0].props).toContainEqual({
    name: 'look',
    type: 'one-of',
    choices: ['loud', 'quiet'],
  });
  expect(library.components[0].props.map(({ name }) => name)).toContain('onClick');
});

test('without a file that it begins with each component is imported from its own', () => {
  const { library } = readLibrary([{ path: 'cards/Card.tsx', text: `export default () => <b />;` }], 'parts');
  expect(library.components).toEqual([
    { name: 'Card', from: 'parts/cards/Card', isDefault: true, props: [] },
  ]);
});

test('a folder is imported by its name as packages are called; a file that cannot be, is said', () => {
  const { library, problems } = readLibrary(
    [
      { path: 'Good.tsx', text: `export const Good = () => <b />;` },
      { path: 'not good.tsx', text: `export const Bad = () => <b />;` },
    ],
    'Team Parts',
  );
  expect(library.name).toBe('team-parts');
  expect(library.components.map(({ name, from }) => `${name} ${from}`)).toEqual(['Good team-parts/Good']);
  expect(problems).toEqual([expect.stringMatching(/^not good\.tsx cannot be imported/)]);
});

test('a file that cannot be read is said, and the others are read', () => {
  const { library, problems } = readLibrary(
    [
      { path: 'a.tsx', text: 'export const A = () => <i />;' },
      { path: 'b.tsx', text: 'export const = (' },
      { path: 'a.test.tsx', text: 'this is not read' },
      { path: 'package.json', text: '{' },
    ],
    'parts',
  );
  expect(library.components.map(({ name }) => name)).toEqual(['A']);
  expect(problems).toEqual([
    expect.stringMatching(/^b\.tsx could not be read: .*\(1:\d+\)/),
    expect.stringMatching(/^package\.json could not be read/),
  ]);
});

test.each([
  ['nothing in TypeScript', [{ path: 'a.css', text: '' }], /no TypeScript source/],
  ['no component', [{ path: 'a.ts', text: 'export const a = 1;' }], /No component was found/],
])('%s is said', (_, files, says) => {
  expect(readLibrary(files, 'parts').problems.join(' ')).toMatch(says);
});

test('a type that speaks of itself ends', () => {
  expect(propsOf(`type Loop = Loop & { a?: string }; export const Part = (p: Loop) ${markup}`)).toEqual([
    { name: 'a', type: 'text' },
  ]);
});
