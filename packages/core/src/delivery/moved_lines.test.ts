import fc from 'fast-check';
import { formattedText } from './generated_code.ts';
import { movedLines } from './moved_lines.ts';

const SHORT = `<div>
  <p>One and the same</p>
</div>`;
const CARD = `<div className={styles.card}>
  <h4>
    <span>Header</span>
    One and the same
  </h4>
</div>`;

/** Lines, each about something of its own. */
const about = (text: string): string[] => text.split('\n').map((_, i) => String(i));

describe('what lines are about', () => {
  test.each<[string, string, string, string[]]>([
    ['what did not move', SHORT, SHORT, ['0', '1', '2']],
    ['lines that were joined', CARD, CARD.replace('</span>\n    ', '</span>'), ['0', '1', '2', '4', '5']],
    [
      'a line that was parted',
      SHORT,
      SHORT.replace(/<p>|<\/p>/g, (tag) => (tag === '<p>' ? '<p>\n' : '\n</p>')),
      ['0', '1', '1', '1', '2'],
    ],
    [
      'parentheses that came and quotes that changed',
      'const a = "b";\nreturn <p>x</p>',
      "const a = 'b';\nreturn (\n  <p>x</p>\n);",
      ['0', '1', '1', '1'],
    ],
    ['what somebody wrote', 'a();\nb();\nc();', 'a();\nours(1, 2);\nb();\nc();', ['0', '0', '1', '2']],
    ['what somebody took out', 'a();\nb();\nc(1);\nd(2);\ne();', 'a();\nd(2);\ne();', ['0', '3', '4']],
    ['nothing', '', 'a();', ['0']],
  ])('%s', (_, before, after, expected) => {
    expect(movedLines(before, about(before), after)).toEqual(expected);
  });

  test('the same text many times over does not lead astray', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 2, maxLength: 40 }),
        async (words) => {
          // Each card has a number of its own, its line what it is about; all say the same, at another length.
          const cards = words.map((count) => `<p>${'again '.repeat(count).trim()}</p>`);
          const written = ['const a =', '<div>', ...cards, '</div>', ''].join('\n');
          const pretty = await formattedText('a.tsx', written);
          const moved = movedLines(written, about(written), pretty);
          const starts = pretty.split('\n').flatMap((line, i) => (line.includes('<p>') ? moved[i] : []));
          expect(starts).toEqual(words.map((_, i) => String(i + 2)));
        },
      ),
      { numRuns: 40 },
    );
  });
});
