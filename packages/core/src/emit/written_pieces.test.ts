import fc from 'fast-check';
import ts from 'typescript';
import { attributes, hypertext, tagged } from './hypertext.ts';
import { inTsx, joined, linesOf, named, onLines, remark, script } from './script.ts';

const anyText = fc.oneof(
  fc.string({ unit: 'binary' }),
  fc
    .array(fc.constantFrom("'", '"', '`', '\\', '\n', '${', '*/', '</script>', '{', '}', '\u2028', 'a'), {
      maxLength: 12,
    })
    .map((parts) => parts.join('')),
);

test.each([
  ['a text', script`go(${"it's"})`.text, `go("it's")`],
  ['numbers and yes or no', script`f(${3}, ${true})`.text, 'f(3, true)'],
  ['a list', script`[${['a', 'b', 2]}]`.text, "['a', 'b', 2]"],
  ['a piece within a piece', script`f(${script`g(${'x'})`})`.text, "f(g('x'))"],
  ['a name', script`const ${named('tool')} = 1;`.text, 'const tool = 1;'],
  ['a text of an attribute', script`to=${inTsx('/a"b')}`.text, `to='/a"b'`],
  ['a piece of an attribute', script`to=${inTsx(script`address(${'x'})`)}`.text, "to={address('x')}"],
  ['a remark that would end', script`/* ${remark('a */ b')} */`.text, '/* a * / b */'],
  ['pieces on lines', onLines([script`a`, script`b`]).text, 'a\nb'],
  ['text in HTML', hypertext`<p>${'a < b & "c"'}</p>`.text, '<p>a &lt; b &amp; "c"</p>'],
  ['a value in HTML', hypertext`<a href="${'a"b'}">`.text, '<a href="a&quot;b">'],
  [
    'attributes',
    hypertext`<i${attributes([
      ['id', 'a"'],
      ['hidden', true],
    ])}>`.text,
    '<i id="a&quot;" hidden>',
  ],
])('%s', (_, text, expected) => expect(text).toBe(expected));

test.each(['', 'a b', '1a', 'a;b', "a'", 'a..b', 'a-b', '${x}'])('%j is no name in code', (text) => {
  expect(() => named(text)).toThrow(RangeError);
});

test.each(['', 'a>', 'x onload=y', '1a'])('%j is no name of an element or attribute', (text) => {
  expect(() => tagged(text)).toThrow(RangeError);
  expect(() => attributes([[text, 'x']])).toThrow(RangeError);
});

test('whatever text is put in, it is one literal of that text', () => {
  fc.assert(
    fc.property(anyText, anyText, (a, b) => {
      const { text } = script`f(${a}, [${[b]}]);`;
      const file = ts.createSourceFile('a.ts', text, ts.ScriptTarget.Latest, true);
      const [statement, ...more] = file.statements;
      expect(more).toEqual([]);
      const call = (statement as ts.ExpressionStatement).expression as ts.CallExpression;
      expect((call.arguments[0] as ts.StringLiteral).text).toBe(a);
      expect(((call.arguments[1] as ts.ArrayLiteralExpression).elements[0] as ts.StringLiteral).text).toBe(b);
      expect(linesOf(joined([script`${a}`, script`${b}`]))).toHaveLength(1);
    }),
  );
});
