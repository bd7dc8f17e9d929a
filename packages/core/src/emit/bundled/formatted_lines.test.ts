import { formattedLines } from './formatted_lines.ts';

test.each<[string, string[], number]>([
  ['short lines are as many', ['<p>', '  Saw', '</p>'], 3],
  ['what is too long is parted at its attributes', [`<p ${'title="some" '.repeat(9)}/>`], 3],
  [
    'objects have a line for each thing that they hold',
    [`items={[${"{ id: 'saw', name: 'Saw', to: '/tools/saw' }, ".repeat(3)}]}`],
    15,
  ],
])('%s', (_, texts, lines) => expect(formattedLines(texts.map((text) => ({ text })))).toBe(lines));
