import { Forms, nodesOf, textOf, Unreadable } from './syntax_tree.ts';
import { treeOf } from './tree_of.ts';

const readAgain = (
  path: string,
  text: string,
): { readonly text: string; readonly names: (string | null)[] } => {
  const tree = treeOf(text, path, new Forms())!;
  return {
    text: tree.before + textOf(tree) + tree.after,
    names: [...nodesOf(tree)].map(({ name }) => name).filter((name) => name !== null),
  };
};

test.each([
  [
    'Row.tsx',
    `import { useState } from 'react';
import type { Row } from './row';

/** One row. */
export function Row({ title, to }: RowProps) {
  const [isOpen, setOpen] = useState(false);
  // Closed at first.
  return (
    <li className={\`\${styles.row} wide\`} onClick={() => setOpen(!isOpen)}>
      {/* what it is called */}
      <b>{title}</b> and more
      {isOpen && <Details to={to} />}
    </li>
  );
}
`,
    ['type ./row', 'Row', 'className', 'onClick', 'to'],
  ],
  [
    'a.ts',
    'export type Side = "left" | "right"; // two\nconst list = [1, 2, /* last */ 3];\n',
    ['Side', 'list'],
  ],
  ['empty.ts', '', []],
  ['remark.ts', '// nothing yet\n', []],
  ['links.json', '{\n  "from": "/",\n  "to": ["/a", "/b"]\n}\n', ['"from"', '"to"']],
  [
    'a.css',
    '/* bars */\n.bar > a:hover {\n  color: red;\n  margin: 0 /* none */ auto;\n}\n\n@media (width < 600px) {\n  .bar { display: none; }\n}\n',
    ['.bar > a:hover', 'color', '@media (width < 600px)', '.bar', 'display'],
  ],
  [
    'Row.vue',
    '<script setup lang="ts">\nimport Bar from "./Bar.vue";\n</script>\n\n<template>\n  <Bar v-if="isOpen" class="row wide" @click="go">\n    Mine {{ count }}\n  </Bar>\n</template>\n',
    ['script', './Bar.vue', 'template', 'v-if', 'class', '@click'],
  ],
  [
    'index.html',
    '<!doctype html>\n<html lang="en">\n  <head><title>Desk</title></head>\n  <body><!-- all --><p class="a b">Hello<br>you</p></body>\n</html>\n',
    ['html', 'lang', 'head', 'title', 'body', 'class'],
  ],
])('%s is written as it was read', (path, text, names) => {
  const again = readAgain(path, text);
  expect(again.text).toBe(text);
  expect(again.names).toEqual(expect.arrayContaining(names));
});

test.each([
  ['a.tsx', 'const a = 1;\nreturn <p>;\n', 2],
  ['a.json', '{\n  "a": \n}', 3],
  ['a.css', '.a {\n  color red;\n}', 2],
  ['a.vue', '<template>\n  <p>\n</template>', 2],
])('%s that cannot be read says the line', (path, text, line) => {
  let said: unknown;
  try {
    treeOf(text, path, new Forms());
  } catch (error) {
    said = error;
  }
  expect(said).toBeInstanceOf(Unreadable);
  expect((said as Unreadable).line).toBe(line);
});

test('what has no language that is read is no tree', () => {
  expect(treeOf('# Read me', 'README.md', new Forms())).toBeNull();
});
