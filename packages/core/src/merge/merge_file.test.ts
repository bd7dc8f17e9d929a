import fc from 'fast-check';
import { mergeFile } from './merge_file.ts';
import { Forms } from './syntax_tree.ts';
import { treeOf } from './tree_of.ts';

const base = `import { Button } from '../../components/Button/Button';
import styles from './Welcome.module.css';

export function Welcome() {
  return (
    <main className={styles.welcome}>
      <h1 className={styles.introTitle}>Borrow the tool</h1>
      <p className={styles.introText}>Mossgate neighbours share 214 tools.</p>
      <Button variant="plain" name="Browse the tools" />
      <button className={styles.button} type="button">
        Sign in
      </button>
    </main>
  );
}
`;

/** A text with some of its words replaced, each of which it has. */
const edited = (text: string, ...edits: readonly (readonly [string, string])[]): string =>
  edits.reduce((now, [from, to]) => {
    expect(now).toContain(from);
    return now.replace(from, () => to);
  }, text);

const flat = (text: string): string => text.replace(/\s+/g, ' ').replace(/> (?=<)/g, '>');

interface Row {
  readonly what: string;
  readonly theirs: readonly (readonly [string, string])[];
  readonly ours: readonly (readonly [string, string])[];
  readonly has: readonly string[];
  readonly hasNot?: readonly string[];
}

const rows: readonly Row[] = [
  {
    what: 'what came instead of a text stands in its place, behind what somebody put before that',
    theirs: [['>Borrow the tool<', '><Badge />Borrow the tool<']],
    ours: [['>Borrow the tool<', '>{title}<']],
    has: ['<h1 className={styles.introTitle}><Badge />{title}</h1>'],
  },
  {
    what: 'and before what somebody put behind it',
    theirs: [['>Borrow the tool<', '>Borrow the tool<Badge /><']],
    ours: [['>Borrow the tool<', '>{title}<']],
    has: ['<h1 className={styles.introTitle}>{title}<Badge /></h1>'],
  },
  {
    what: 'what somebody put first stays first, though the design puts something there, too',
    theirs: [['<main className={styles.welcome}>', '<main className={styles.welcome}><Bar />']],
    ours: [['<main className={styles.welcome}>', '<main className={styles.welcome}>\n      <hr />']],
    has: ['<main className={styles.welcome}><Bar /><hr /><h1'],
  },
  {
    what: 'a handler stays on an element that the design gives another class and text',
    theirs: [
      [
        '<button className={styles.button} type="button">',
        '<button className={styles.button} type="button" onClick={track}>',
      ],
    ],
    ours: [
      ['styles.button', 'styles.signIn'],
      ['Sign in', 'Come in'],
    ],
    has: ['<button className={styles.signIn} type="button" onClick={track}> Come in </button>'],
  },
  {
    what: 'what was returned stands among other content without the parentheses that it was returned in',
    theirs: [['<h1 className', '<h1 data-tour="first" className']],
    ours: [
      ['  return (\n    <main', '  return (\n    <div className={styles.page}>\n      <hr />\n      <main'],
      ['    </main>\n', '      </main>\n      <hr />\n    </div>\n'],
    ],
    has: ['<hr /><main className={styles.welcome}><h1 data-tour="first"', '</main><hr /></div>'],
    hasNot: ['(<main', '/> (', '(\n    <main'],
  },
  {
    what: 'an element that somebody put around another goes where the design moves that',
    theirs: [
      [
        '<h1 className={styles.introTitle}>Borrow the tool</h1>',
        '<Tip><h1 className={styles.introTitle}>Borrow the tool</h1></Tip>',
      ],
    ],
    ours: [
      ['      <h1 className={styles.introTitle}>Borrow the tool</h1>\n', ''],
      [
        'tools.</p>',
        'tools.</p>\n      <header className={styles.head}>\n        <h1 className={styles.introTitle}>Borrow the tool</h1>\n      </header>',
      ],
    ],
    has: [
      '<header className={styles.head}><Tip><h1 className={styles.introTitle}>Borrow the tool</h1></Tip></header>',
    ],
    hasNot: ['<Tip></Tip>', '<Tip/>'],
  },
  {
    what: 'a condition that somebody gave an element goes where the design moves that',
    theirs: [
      [
        '<h1 className={styles.introTitle}>Borrow the tool</h1>',
        '{isOpen && <h1 className={styles.introTitle}>Borrow the tool</h1>}',
      ],
    ],
    ours: [
      ['      <h1 className={styles.introTitle}>Borrow the tool</h1>\n', ''],
      [
        'tools.</p>',
        'tools.</p>\n      <header className={styles.head}>\n        <hr />\n        <h1 className={styles.introTitle}>Borrow the tool</h1>\n      </header>',
      ],
    ],
    has: ['<hr /> {isOpen && <h1 className={styles.introTitle}>Borrow the tool</h1>} </header>'],
  },
  {
    what: 'a hook above the return stays when the screen is wrapped anew',
    theirs: [
      ['import styles', "import { useEffect } from 'react';\nimport styles"],
      ['  return (', '  useEffect(() => {\n    log();\n  }, []);\n\n  return ('],
    ],
    ours: [
      ['<h1 className', '<div className={styles.intro}><h1 className'],
      ['tools.</p>', 'tools.</p></div>'],
      ['import styles', "import { Icon } from '../Icon';\nimport styles"],
    ],
    has: [
      'useEffect(() => { log(); }, []);',
      "import { useEffect } from 'react';",
      "import { Icon } from '../Icon';",
      '<div className={styles.intro}>',
    ],
  },
  {
    what: 'an element that was put around another one stays, and what is in it follows the design',
    theirs: [
      [
        '<Button variant="plain" name="Browse the tools" />',
        '<Tracked><Button variant="plain" name="Browse the tools" /></Tracked>',
      ],
      ['import styles', "import { Tracked } from '../../tracked';\nimport styles"],
    ],
    ours: [['variant="plain" name="Browse the tools"', 'variant="wide" name="See the tools"']],
    has: ['<Tracked><Button variant="wide" name="See the tools" /></Tracked>', "from '../../tracked'"],
  },
  {
    what: 'what was put into an element follows it into the container that the design puts around it',
    theirs: [['Sign in\n', '<LockIcon /> Sign in\n']],
    ours: [
      ['<button className', '<footer><button className'],
      ['</button>', '</button></footer>'],
    ],
    has: ['<footer><button className={styles.button} type="button"> <LockIcon /> Sign in </button></footer>'],
  },
  {
    what: 'a class that somebody added stays beside one with another name',
    theirs: [['className={styles.introText}', 'className={`${styles.introText} lead`}']],
    ours: [['styles.introText', 'styles.text']],
    has: ['className={`${styles.text} lead`}'],
  },
  {
    what: 'lines of somebody say a class by the name that it has now',
    theirs: [['<Button', '<p className={styles.introText}>Mine</p>\n<Button']],
    ours: [['styles.introText', 'styles.lead']],
    has: ['<p className={styles.lead}>Mine</p>', '<p className={styles.lead}>Mossgate'],
  },
  {
    what: 'an import that the design has no use for any more stays where somebody uses it',
    theirs: [['</main>', '<Button variant="plain" name="Mine" /></main>']],
    ours: [
      ["import { Button } from '../../components/Button/Button';\n", ''],
      ['<Button variant="plain" name="Browse the tools" />', ''],
    ],
    has: ["import { Button } from '../../components/Button/Button';", 'name="Mine"'],
    hasNot: ['Browse'],
  },
  {
    what: 'what somebody took out stays out, and what the design moves is moved',
    theirs: [['<p className={styles.introText}>Mossgate neighbours share 214 tools.</p>', '']],
    ours: [
      ['<h1 className={styles.introTitle}>Borrow the tool</h1>', ''],
      ['</main>', '<h1 className={styles.introTitle}>Borrow the tool</h1></main>'],
    ],
    has: ['</button> <h1'],
    hasNot: ['Mossgate neighbours'],
  },
  {
    what: 'a remark stays with what it is about',
    theirs: [['export function', '// Seen first by everybody.\nexport function']],
    ours: [['Borrow the tool', 'Borrow it']],
    has: ['// Seen first by everybody. export function', 'Borrow it'],
  },
  {
    what: 'both add to the same list',
    theirs: [['import styles', "import { a } from 'a';\nimport styles"]],
    ours: [['import styles', "import { b } from 'b';\nimport styles"]],
    has: ["import { a } from 'a';", "import { b } from 'b';"],
  },
];

test.each(rows)('$what', ({ theirs, ours, has, hasNot = [] }) => {
  const merged = mergeFile('Welcome.tsx', {
    base,
    theirs: edited(base, ...theirs),
    ours: edited(base, ...ours),
  });
  expect(merged.conflicts).toEqual([]);
  for (const words of has) expect(flat(merged.text)).toContain(flat(words));
  for (const words of hasNot) expect(flat(merged.text)).not.toContain(flat(words));
});

test.each([
  {
    what: 'both say another text',
    theirs: [['Borrow the tool', 'Lend the tool']],
    ours: [['Borrow the tool', 'Borrow a tool']],
    why: 'both-changed',
    line: 7,
    said: ['Lend the tool', 'Borrow a tool'],
  },
  {
    what: 'the design took away what somebody changed',
    theirs: [['<h1 className', '<h1 onClick={track} className']],
    ours: [['<h1 className={styles.introTitle}>Borrow the tool</h1>', '']],
    why: 'ours-removed',
    line: 7,
    said: ['onClick={track}', null],
  },
  {
    what: 'somebody took away what the design changed',
    theirs: [['<h1 className={styles.introTitle}>Borrow the tool</h1>', '']],
    ours: [['Borrow the tool', 'Borrow a tool']],
    why: 'theirs-removed',
    line: 6,
    said: [null, 'Borrow a tool'],
  },
  {
    what: 'somebody put a condition around what the design took away',
    theirs: [
      ['<h1 className', '{isNew && <h1 className'],
      ['tool</h1>', 'tool</h1>}'],
    ],
    ours: [['<h1 className={styles.introTitle}>Borrow the tool</h1>', '']],
    why: 'ours-removed',
    line: 7,
    said: ['<h1', null],
  },
] as const)('asks where $what', ({ theirs, ours, why, line, said }) => {
  const versions = { base, theirs: edited(base, ...theirs), ours: edited(base, ...ours) };
  const { conflicts, text } = mergeFile('Welcome.tsx', versions);
  expect(conflicts).toMatchObject([{ why, line, side: 'theirs' }]);
  const [mine, designs] = said;
  for (const [side, words] of [
    ['theirs', mine],
    ['ours', designs],
  ] as const) {
    const found = conflicts[0][side];
    if (words === null) expect(found).toBeNull();
    else expect(found).toContain(words);
  }
  // What nobody decided stays as it is there; what is decided for the design is as it is written now.
  if (mine) expect(text).toContain(mine);
  else expect(text).not.toContain(designs);
  const decided = mergeFile('Welcome.tsx', versions, new Map([[conflicts[0].id, 'ours']]));
  if (designs) expect(decided.text).toContain(designs);
  else expect(decided.text).not.toContain(mine);
});

test.each([
  [
    'Row.module.css',
    '.row {\n  color: red;\n  margin: 0;\n}\n',
    '.row {\n  color: red;\n  margin: 0;\n  gap: 4px;\n}\n',
    '.line {\n  color: blue;\n  margin: 0;\n}\n',
    ['.line {', 'color: blue', 'gap: 4px'],
  ],
  [
    'package.json',
    '{ "dependencies": { "react": "^19.2.0" } }',
    '{ "dependencies": { "react": "^19.2.0", "zod": "^4.0.0" } }',
    '{ "dependencies": { "react": "^19.3.0", "chart.js": "^4.0.0" } }',
    ['"react": "^19.3.0"', '"zod": "^4.0.0"', '"chart.js": "^4.0.0"'],
  ],
  [
    'Row.vue',
    '<script setup lang="ts">\nimport A from "./A.vue";\n</script>\n<template>\n  <A class="row">Lend</A>\n</template>\n',
    '<script setup lang="ts">\nimport A from "./A.vue";\nconst track = () => 1;\n</script>\n<template>\n  <A class="row mine" @click="track">Lend</A>\n</template>\n',
    '<script setup lang="ts">\nimport A from "./A.vue";\n</script>\n<template>\n  <section><A class="line">Lend it</A></section>\n</template>\n',
    ['const track', '<section><A class="line mine" @click="track">Lend it</A></section>'],
  ],
  [
    'index.html',
    '<main><p class="a">One</p></main>',
    '<main><p class="a" data-tour="1">One</p></main>',
    '<main><h1>New</h1><p class="a">Two</p></main>',
    ['<h1>New</h1>', '<p class="a" data-tour="1">Two</p>'],
  ],
])('%s', (path, before, theirs, ours, has) => {
  const { text, conflicts, byLines } = mergeFile(path, { base: before, theirs, ours });
  expect({ conflicts, byLines }).toEqual({ conflicts: [], byLines: null });
  for (const words of has) expect(flat(text)).toContain(words);
});

test('a file that cannot be read is merged line by line, and says why', () => {
  const versions = {
    base: 'const a = 1;\nconst b = 2;\n\nconst c = 3;\n',
    theirs: 'const a = 1;\nconst b = ;\n\nconst c = 3;\n',
    ours: 'const a = 1;\nconst b = 2;\n\nconst c = 4;\n',
  };
  const { text, byLines, conflicts } = mergeFile('a.ts', versions);
  expect(text).toBe('const a = 1;\nconst b = ;\n\nconst c = 4;\n');
  expect(byLines).toMatch(/^the file cannot be read: .* \(line 2\)$/);
  expect(conflicts).toEqual([]);
  const both = mergeFile('a.ts', { ...versions, theirs: versions.theirs.replace('c = 3', 'c = 5') });
  expect(both.conflicts).toMatchObject([{ why: 'both-changed', line: 4, theirs: 'const c = 5;' }]);
});

test('elements that the design says are others are never taken for the same', () => {
  const rows = (...texts: readonly string[]): string =>
    `export const List = () => (\n  <ul>\n${texts.map((text) => `    <li>${text}</li>\n`).join('')}  </ul>\n);\n`;
  const lines = (...keys: readonly string[]): (string | null)[] => [
    null,
    'list',
    ...keys,
    'list',
    null,
    null,
  ];
  const versions = {
    base: rows('Buttons', 'Cards'),
    theirs: rows('Buttons', 'Cards').replace('<li>Buttons', '<li onClick={track}>Buttons'),
    ours: rows('Badges', 'Cards'),
  };
  const known = { base: lines('a', 'b'), ours: lines('c', 'b') };
  expect(mergeFile('List.tsx', versions).conflicts).toEqual([]);
  expect(mergeFile('List.tsx', { ...versions, lines: known }).conflicts).toMatchObject([
    { why: 'ours-removed' },
  ]);
});

/** Edits that can be made together, in any order. */
const EDITS: readonly (readonly [string, string])[] = [
  ['Borrow the tool', 'Lend the tool'],
  ['<Button variant="plain"', '<Button variant="wide"'],
  ['type="button"', 'type="button" onClick={track}'],
  ['<p className={styles.introText}>', '<p className={styles.introText} lang="en">'],
  ['<main className={styles.welcome}>', '<main className={styles.welcome} id="top">\n<Bar />'],
  ['  return (', '  const now = today();\n\n  return ('],
  ['import styles', "import { today } from './today';\nimport styles"],
  ['Sign in', 'Come in'],
  ['</main>', '<footer>{now}</footer>\n    </main>'],
];

test('whatever the sides did, each is there, and it is no matter which side did what', () => {
  const subset = fc.uniqueArray(fc.nat(EDITS.length - 1), { maxLength: 6 });
  fc.assert(
    fc.property(subset, subset, (mine, designs) => {
      const ours = designs.filter((one) => !mine.includes(one));
      const of = (chosen: readonly number[]): string => edited(base, ...chosen.map((one) => EDITS[one]));
      const [a, b] = [of(mine), of(ours)];
      const merged = mergeFile('W.tsx', { base, theirs: a, ours: b });
      expect(merged.conflicts).toEqual([]);
      const forms = new Forms();
      const formOf = (text: string): number => treeOf(text, 'W.tsx', forms)!.form;
      expect(formOf(merged.text)).toBe(formOf(of([...mine, ...ours].sort((x, y) => x - y))));
      expect(formOf(mergeFile('W.tsx', { base, theirs: b, ours: a }).text)).toBe(formOf(merged.text));
      expect(mergeFile('W.tsx', { base, theirs: a, ours: a }).text).toBe(a);
      expect(mergeFile('W.tsx', { base, theirs: a, ours: base }).text).toBe(a);
      expect(mergeFile('W.tsx', { base, theirs: base, ours: b }).text).toBe(b);
    }),
  );
});

describe('what was taken out by the design and stays, since somebody changed it', () => {
  const versions = {
    base,
    theirs: edited(base, ['<Button variant', '<Button onPress={track} variant']),
    ours: edited(
      base,
      ["import { Button } from '../../components/Button/Button';\n", ''],
      ['<Button variant="plain" name="Browse the tools" />', ''],
    ),
  };

  test('keeps the import that it needs', () => {
    const { conflicts, text } = mergeFile('Welcome.tsx', versions);
    expect(conflicts).toMatchObject([{ why: 'ours-removed' }]);
    expect(text).toContain("import { Button } from '../../components/Button/Button';");
    expect(text).toContain('<Button onPress={track} variant');
  });

  test('goes with its import once that is decided', () => {
    const [{ id }] = mergeFile('Welcome.tsx', versions).conflicts;
    expect(mergeFile('Welcome.tsx', versions, new Map([[id, 'ours']])).text).not.toContain('Button');
  });
});

/** The element of each line, where one with these words is written for it. */
const linesOf = (text: string, words: string): (string | null)[] =>
  text.split('\n').map((line) => (line.includes(words) ? 'intro' : null));

describe('an element that is a component of its own by now', () => {
  const component = edited(
    base,
    ['<p className={styles.introText}>Mossgate neighbours share 214 tools.</p>', '<Intro />'],
    ['import styles', "import { Intro } from './Intro';\nimport styles"],
  );
  const known = {
    base: linesOf(base, '<p className={styles.introText}>'),
    ours: linesOf(component, '<Intro />'),
  };

  test('is written as it is now where nobody changed what is in it', () => {
    const theirs = edited(base, ['type="button"', 'type="button" onClick={track}']);
    const { conflicts, text } = mergeFile('Welcome.tsx', { base, theirs, ours: component, lines: known });
    expect(conflicts).toEqual([]);
    expect(text).toContain('<Intro />');
    expect(text).not.toContain('Mossgate');
    expect(text).toContain('onClick={track}');
  });

  test('is one decision where somebody did, and nothing is imported for what is not taken', () => {
    const theirs = edited(base, [
      '<p className={styles.introText}>',
      '<p className={styles.introText} lang="en">',
    ]);
    const versions = { base, theirs, ours: component, lines: known };
    const { conflicts, text } = mergeFile('Welcome.tsx', versions);
    expect(conflicts).toMatchObject([{ why: 'both-replaced', ours: '<Intro />', element: 'intro' }]);
    expect(text).toContain('lang="en"');
    expect(text).not.toContain('Intro }');
    const decided = mergeFile('Welcome.tsx', versions, new Map([[conflicts[0].id, 'ours']]));
    expect(decided.text).toContain("import { Intro } from './Intro';");
    expect(decided.text).not.toContain('lang="en"');
  });
});

test('what any element can be told stays where the design writes an element in place of a component', () => {
  const ours = edited(
    base,
    ["import { Button } from '../../components/Button/Button';\n", ''],
    [
      '<Button variant="plain" name="Browse the tools" />',
      '<a className={styles.browse} href="/tools">Browse the tools</a>',
    ],
  );
  const lines = { base: linesOf(base, '<Button variant'), ours: linesOf(ours, '<a className') };
  const merged = (more: string) =>
    mergeFile('Welcome.tsx', { base, theirs: edited(base, ['<Button ', `<Button ${more} `]), ours, lines });
  const { text, conflicts } = merged('data-tour="first" onClick={track}');
  expect(conflicts).toEqual([]);
  expect(flat(text)).toMatch(/<a (?=.*data-tour="first")(?=.*onClick={track})[^>]*className={styles.browse}/);
  expect(text).not.toContain('Button }');
  // What only the component can be told is asked about.
  expect(merged('isLarge').conflicts).toMatchObject([{ why: 'both-replaced' }]);
});

test('a function that is called otherwise by now keeps what somebody put into it', () => {
  const { conflicts, text } = mergeFile('Welcome.tsx', {
    base,
    theirs: edited(base, ['  return (', '  const now = today();\n\n  return (']),
    ours: edited(base, ['function Welcome', 'function Home']),
  });
  expect(conflicts).toEqual([]);
  expect(flat(text)).toContain('export function Home() { const now = today(); return (');
});

describe('boxes that are much alike', () => {
  const inBoxes = (inside: string): string =>
    `export function Stack() {\n  return (\n    <footer>\n      ${inside}\n    </footer>\n  );\n}\n`;
  const before = inBoxes(
    '<div className={styles.inner}><div className={styles.row}><p>Copyright</p><div><b>Privacy</b></div></div></div>',
  );

  test('are not taken for one another where one of them holds less', () => {
    const { conflicts, text } = mergeFile('Stack.tsx', {
      base: before,
      theirs: edited(before, ['<p>Copyright</p>', '']),
      ours: edited(before, ['<b>Privacy</b></div>', '<b>Privacy</b></div><i>Log</i>']),
    });
    expect(conflicts).toEqual([]);
    expect(flat(text)).toContain(
      '<div className={styles.row}><div><b>Privacy</b></div><i>Log</i></div></div>',
    );
  });

  test('are not taken for what is in them where one of them holds more', () => {
    const nested = inBoxes('<div><div><b>10 %</b></div></div>');
    const { conflicts, text } = mergeFile('Stack.tsx', {
      base: nested,
      theirs: edited(nested, ['<div><div>', '<div><Badge kind="ours" /><div>']),
      ours: edited(nested, ['</div></div>', '</div><i /></div>']),
    });
    expect(conflicts).toEqual([]);
    expect(flat(text)).toContain('<div><Badge kind="ours" /><div><b>10 %</b></div><i /></div>');
  });
});

describe('rules of a sheet', () => {
  const base = '.card {\n  padding: 4px;\n}\n\n.note {\n  color: red;\n}\n';
  const theirs = edited(base, ['  padding: 4px;', '  padding: 4px;\n  gap: 2px;']);

  test('that say the same are the same, whatever elements they are written for', () => {
    const { conflicts, text } = mergeFile('a.module.css', {
      base,
      theirs,
      ours: '.grow {\n  padding: 0;\n}\n\n.note {\n  color: red;\n}\n\n.card {\n  padding: 4px;\n}\n',
      lines: { base: ['one'], ours: ['one'] },
    });
    expect(conflicts).toEqual([]);
    expect(flat(text)).toContain('.card { padding: 4px; gap: 2px; }');
  });

  test('that are called otherwise by now are asked about unless it is known what they are written for', () => {
    const ours = edited(base, ['.card', '.panel']);
    const merged = (lines: readonly (string | null)[]): readonly unknown[] =>
      mergeFile('a.module.css', { base, theirs, ours, lines: { base: ['one'], ours: lines } }).conflicts;
    expect(merged(['one'])).toEqual([]);
    expect(merged([null])).toMatchObject([{ why: 'both-changed' }]);
  });
});

test('of several rules that are written for one element their names say which is which', () => {
  const sheet = (...rules: readonly (readonly [name: string, color: string])[]): string =>
    rules.map(([name, color]) => `.${name} {\n  color: ${color};\n  top: 0;\n}\n`).join('\n');
  const of = (text: string): string[] => text.split('\n').map(() => 'home:1');
  const sheetBefore = sheet(['head', 'red'], ['head-blue', 'blue']);
  const ours = sheet(['head-blue', 'navy'], ['row', 'red']);
  const merged = mergeFile('Home.module.css', {
    base: sheetBefore,
    theirs: sheetBefore.replace('color: blue;', 'color: blue;\n  outline: 0;'),
    ours,
    lines: { base: of(sheetBefore), ours: of(ours) },
  });
  expect(merged.conflicts).toEqual([]);
  expect(flat(merged.text)).toMatch(/\.head-blue \{ color: navy; outline: 0; top: 0; \}/);
});
