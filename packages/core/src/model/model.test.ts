import fc from 'fast-check';
import { named, projectOf, screenWith, withApp } from '../testing/build.ts';
import { equalJson, stringifySorted } from '../json/json.ts';
import { camelCase, FileNames, kebabCase, pascalCase, sentenceCase, uniqueName } from './names.ts';
import { isUsed, orderedScreens, screenName, textOf } from './project.ts';
import { findElement } from './places.ts';

test.each([
  ["What’s new, or what's not", 'whats-new-or-whats-not', 'WhatsNewOrWhatsNot', 'whatsNewOrWhatsNot'],
  ['Tool detail', 'tool-detail', 'ToolDetail', 'toolDetail'],
  ['tool_detail-2', 'tool-detail-2', 'ToolDetail2', 'toolDetail2'],
  ['404', '404', 'N404', 'n404'],
  ['Über uns', 'uber-uns', 'UberUns', 'uberUns'],
  ['My/loans?', 'my-loans', 'MyLoans', 'myLoans'],
  ['signIn', 'sign-in', 'SignIn', 'signIn'],
  ['Case à cocher', 'case-a-cocher', 'CaseACocher', 'caseACocher'],
  ['CaseACocher', 'case-a-cocher', 'CaseACocher', 'caseACocher'],
  ['GDPRForm', 'gdpr-form', 'GdprForm', 'gdprForm'],
  ['Our PDFs', 'our-pdfs', 'OurPdfs', 'ourPdfs'],
  ['✓', '', '', ''],
])('%s as kebab, Pascal and camel case', (name, kebab, pascal, camel) => {
  expect([kebabCase(name), pascalCase(name), camelCase(name)]).toEqual([kebab, pascal, camel]);
});

test('every identifier made from a name is one', () => {
  fc.assert(
    fc.property(fc.string(), (name) => expect(pascalCase(name)).toMatch(/^([A-Za-z][A-Za-z0-9]*)?$/)),
  );
});

test('sentence case reads as a person writes', () => {
  expect(sentenceCase('tool-detail_2')).toBe('Tool detail 2');
});

test('a taken name gets the first free number', () => {
  const taken = new Set(['a', 'a-2']);
  expect(uniqueName('a', (name) => taken.has(name))).toBe('a-3');
  expect(uniqueName('b', (name) => taken.has(name))).toBe('b');
});

test('sorted JSON is the same whatever the order of keys', () => {
  expect(stringifySorted({ b: [{ d: 1, c: 2 }], a: null })).toBe('{"a":null,"b":[{"c":2,"d":1}]}');
});

test('equality goes by content', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
      expect(equalJson(a, JSON.parse(JSON.stringify(a)))).toBe(true);
      expect(equalJson(a, b)).toBe(stringifySorted(a) === stringifySorted(b));
    }),
  );
});

describe('a project', () => {
  const project = projectOf(screenWith('home', 'Go'), screenWith('list', 'Back'));
  const go = named(project.design.screens[0], 'Button');

  test('finds elements by key', () => {
    expect(findElement(project.design, go.key)).toBe(go);
    expect(findElement(project.design, 'home:99')).toBeNull();
    expect(findElement(project.design, 'gone:0')).toBeNull();
  });

  test('reads text beneath', () => expect(textOf(go)).toBe('Go'));

  test('knows which screens are used, in their order', () => {
    const { app } = project;
    const skipped = withApp(project, {
      screens: { ...app.screens, list: { ...app.screens.list, use: 'skip', order: -1 } },
    });
    expect(orderedScreens(skipped.app)).toEqual(['list', 'home']);
    expect([isUsed(skipped, 'home'), isUsed(skipped, 'list'), isUsed(skipped, 'gone')]).toEqual([
      true,
      false,
      false,
    ]);
  });

  test('a deleted screen keeps the name it was drawn with', () => {
    const { list: _list, ...rest } = project.app.screens;
    expect(screenName(withApp(project, { screens: rest }), 'list')).toBe('List');
  });
});

test('files whose names differ in large and small letters only are one', () => {
  const names = new FileNames(['Countup']);
  expect(['CountUp', 'Count'].map((name) => names.has(name))).toEqual([true, false]);
  names.add('COUNT');
  expect(names.has('Count')).toBe(true);
});
