import { placeInto, surveyCodeBase, withPackages } from './existing.ts';

const json = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;

test.each([
  [['src/main.tsx'], { dependencies: { react: '19', 'react-router': '7' } }, 'react', 'src', 'react-router'],
  [['app/page.vue'], { devDependencies: { vue: '3', 'vue-router': '4' } }, 'vue', 'app', 'vue-router'],
  [['index.js'], {}, null, 'src', null],
])('%s with %j', (paths, packages, target, source, router) => {
  expect(surveyCodeBase(paths, json(packages))).toMatchObject({ target, source, router });
});

test('a folder without package.json is no code base; one that cannot be read is refused', () => {
  expect(surveyCodeBase(['a.html'], null)).toBeNull();
  expect(() => surveyCodeBase([], '{')).toThrow(/^package\.json cannot be read: /);
  expect(() => surveyCodeBase([], '[]')).toThrow('package.json cannot be read: it holds no object');
});

test('sources go into a folder of their own, and nothing around them', () => {
  const base = surveyCodeBase(['src/main.tsx'], json({ dependencies: { react: '19' } }))!;
  const files = ['package.json', 'vite.config.ts', 'src/routes.tsx'].map((path) => ({ path, text: '' }));
  expect(placeInto(base, 'Mossgate Tool Library', files).map(({ path }) => path)).toEqual([
    'src/mossgate-tool-library/routes.tsx',
  ]);
});

test('packages that are missing are added, those that are there stay as they are', () => {
  const there = '{\n\t"name": "shop",\n\t"dependencies": {\n\t\t"react": "^18.0.0"\n\t}\n}\n';
  const needed = json({
    dependencies: { react: '^19.2.0', 'react-router': '^7.9.0' },
    devDependencies: { vitest: '^4.0.0' },
  });
  expect(withPackages(there, needed)).toBe(
    '{\n\t"name": "shop",\n\t"dependencies": {\n\t\t"react": "^18.0.0",\n\t\t"react-router": "^7.9.0"\n\t},\n\t"devDependencies": {\n\t\t"vitest": "^4.0.0"\n\t}\n}\n',
  );
  expect(withPackages(withPackages(there, needed)!, needed)).toBeNull();
});
