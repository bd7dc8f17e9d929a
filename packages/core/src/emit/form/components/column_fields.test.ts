import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { walkElements } from '../../../model/project.ts';
import { columnFields } from './column_fields.ts';

/** The fields of the cells of a table, as `text field`. */
function fieldsOf(table: string): string[] {
  const page = pageOfHtml(`<main><h1>All</h1><table>${table}</table></main>`);
  const fields = columnFields(page);
  const said: string[] = [];
  walkElements(page.root, ({ key, text, children }) => {
    if (fields.has(key)) said.push(`${text ?? children[0]?.text ?? ''} ${fields.get(key)}`);
  });
  return said;
}
const head = (...heads: readonly string[]): string =>
  `<thead><tr>${heads.map((one) => `<th>${one}</th>`).join('')}</tr></thead>`;
const row = (...cells: readonly string[]): string =>
  `<tr>${cells.map((one) => `<td>${one}</td>`).join('')}</tr>`;

test.each<[string, string, string[]]>([
  ['its head', head('Tool', 'Due on') + row('Saw', 'Friday'), ['Saw tool', 'Friday dueOn']],
  [
    'what its head is short for',
    head('<abbr title="Goals for">GF</abbr>', 'Team') + row('3', 'Mossgate'),
    ['3 goalsFor', 'Mossgate team'],
  ],
  [
    'its head, where it is linked',
    head('Tool', 'State') + row('<a href="#">Saw</a>', 'free'),
    ['Saw tool', 'free state'],
  ],
  [
    'the head over it, behind a wide cell',
    `${head('Tool', 'Shed', 'Due')}<tr><td colspan="2">Saw</td><td>Friday</td></tr>`,
    ['Saw tool', 'Friday due'],
  ],
  [
    'nothing where two heads say the same',
    head('Hours', 'Hours', 'Day') + row('9', '6', 'Monday'),
    ['Monday day'],
  ],
  [
    'nothing of what fields cannot be called',
    head('ID', '+', '2026', 'Tool') + row('7', '1', '3', 'Saw'),
    ['Saw tool'],
  ],
  [
    'what its head is short for, without its unit',
    head('No.', 'VAT No.', 'Price (EUR)') + row('7', '1', '3'),
    ['7 code', '1 vatNumber', '3 price'],
  ],
  ['nothing where there are no heads', row('Saw', 'Friday') + row('Drill', 'Monday'), []],
])('a cell is called after %s', (_, table, expected) => expect(fieldsOf(table)).toEqual(expected));
