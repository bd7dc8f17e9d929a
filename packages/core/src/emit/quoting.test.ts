import fc from 'fast-check';
import * as csstree from 'css-tree';
import { parseFragment } from 'parse5';
import ts from 'typescript';
import { HOSTILE } from '../testing/hostile.ts';
import {
  commentText,
  cssText,
  dotText,
  escapeText,
  escapeValue,
  expressionValue,
  jsxText,
  jsxValue,
  quote,
  quoteLines,
} from './quoting.ts';

/** Hostile texts, and any others. */
const text = fc.oneof(fc.constantFrom(...HOSTILE.filter((one) => !/\p{Surrogate}/u.test(one))), fc.string());

const source = (code: string): ts.SourceFile =>
  ts.createSourceFile('a.tsx', code, ts.ScriptTarget.ES2022, true);
const find = <T extends ts.Node>(node: ts.Node, is: (one: ts.Node) => one is T): T | undefined =>
  is(node) ? node : ts.forEachChild(node, (child) => find(child, is));

test('a literal of TypeScript is the text', () => {
  fc.assert(
    fc.property(text, (value) => {
      const literal = find(source(`const a = ${quote(value)};`), ts.isStringLiteral);
      expect(literal?.text).toBe(value);
    }),
  );
});

test('lines that are joined are the text', () => {
  fc.assert(
    fc.property(fc.array(text, { minLength: 1, maxLength: 8 }), (lines) => {
      const value = lines.join('\n');
      const code = quoteLines(value);
      const list = find(source(`const a = ${code};`), ts.isArrayLiteralExpression);
      expect(list !== undefined).toBe(value.split('\n').length > 3);
      if (list)
        expect(list.elements.map((one) => (ts.isStringLiteral(one) ? one.text : null)).join('\n')).toBe(
          value,
        );
      else expect(code).toBe(quote(value));
    }),
  );
});

test('an expression in an attribute of a template is what a parser reads there, and stands as it is written', () => {
  fc.assert(
    fc.property(text, (value) => {
      const plain = value.replace(/[\r\0]/g, '');
      const [node] = parseFragment(`<p title="${expressionValue(plain)}"></p>`).childNodes;
      expect('attrs' in node && node.attrs).toEqual([{ name: 'title', value: plain }]);
    }),
  );
  expect(expressionValue('() => a && b < c')).toBe('() => a && b < c');
});

test('a value of an attribute of TSX is one attribute, and nothing after it is code', () => {
  fc.assert(
    fc.property(text, (value) => {
      const element = find(source(`const a = <a b=${jsxValue(value)} />;`), ts.isJsxSelfClosingElement)!;
      expect(element.attributes.properties).toHaveLength(1);
    }),
  );
});

test('text among children of TSX holds no element and no expression', () => {
  fc.assert(
    fc.property(text, (value) => {
      const element = find(source(`const a = <p>${jsxText(value)}</p>;`), ts.isJsxElement)!;
      expect(element.children.every(ts.isJsxText)).toBe(true);
    }),
  );
});

test('a comment ends where it is ended', () => {
  fc.assert(
    fc.property(text, (value) => {
      expect(source(`/** ${commentText(value)}. */`).statements).toHaveLength(0);
      expect(source(`/** ${commentText(value)}*/ const a = 1;`).statements).toHaveLength(1);
    }),
  );
});

test('a comment that ends in a dash is read to its end', () => {
  expect(source(`/** ${commentText('a-')}*/ const a = 1;`).statements).toHaveLength(1);
});

test('a string of CSS is the text, and ends no sheet within a page', () => {
  fc.assert(
    fc.property(
      text.filter((value) => !value.includes('\0')),
      (value) => {
        const written = cssText(value);
        expect(csstree.string.decode(written)).toBe(value);
        expect(written).not.toContain('</');
      },
    ),
  );
});

test('text and values of HTML are read as they were meant', () => {
  fc.assert(
    fc.property(
      text.filter((value) => !/[\0\r]/.test(value)),
      (value) => {
        const [element] = parseFragment(
          `<p title="${escapeValue(value)}">${escapeText(value)}</p>`,
        ).childNodes;
        if (!('attrs' in element)) throw new Error('no element');
        expect(element.attrs).toEqual([{ name: 'title', value }]);
        expect(
          element.childNodes.map((node) => ('value' in node ? node.value : node.nodeName)).join(''),
        ).toBe(value);
      },
    ),
  );
});

test.each([
  ['a"b', '"a\\"b"'],
  ['a\\b', '"a\\\\b"'],
  ['a\nb', '"a\\nb"'],
])('%j in DOT', (value, written) => expect(dotText(value)).toBe(written));
