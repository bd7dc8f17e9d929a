import * as csstree from 'css-tree';
import fc from 'fast-check';
import { parseCss } from './parse_css.ts';

test('a broken sheet ends, whatever was parsed before it', () => {
  const piece = fc.constantFrom(
    '{',
    '}',
    '(',
    ')',
    '[',
    ']',
    ':',
    ';',
    'a',
    '/*',
    '*/',
    '"',
    'url(',
    '@media ',
    ' ',
  );
  const sheet = fc.array(piece, { maxLength: 40 }).map((pieces) => pieces.join(''));
  fc.assert(
    fc.property(sheet, sheet, (before, broken) => {
      parseCss(before);
      const first = csstree.generate(parseCss(broken));
      parseCss('{([{(['.repeat(before.length));
      expect(csstree.generate(parseCss(broken))).toBe(first);
    }),
    { numRuns: 300 },
  );
});

test('a whole sheet is what it says', () => {
  expect(csstree.generate(parseCss('.a > b { color: red }'))).toBe('.a>b{color:red}');
});
