import { asInCode, classInSheet, scopedSheet } from './class_names.ts';

test.each([
  ['toolRow', 'tool-row'],
  ['row2', 'row2'],
])('%s is called %s in a sheet', (name, inSheet) => expect(classInSheet(name)).toBe(inSheet));

const SHEET = `.tool-row,
.member-row:not(:last-child) {
  color: red;
  background: url("./a.png") 1.5px;
}

tr:not(:first-child) > .tool-cell {
  border-top: 1px solid;
}

li:last-child > .tool-cell {
  margin: 0.5em;
}

@media (width <= 575px) {
  .tool-row:hover {
    margin: -1.5px;
  }
}
`;

test('each class of a sheet is called as in code, and by nobody else', () => {
  const { text, names } = scopedSheet(SHEET, 'Tools');
  expect(text).toBe(
    SHEET.replace('.tool-row,', '.Tools_toolRow,')
      .replace('.member-row', '.Tools_memberRow')
      .replaceAll('> .tool-cell', '> .Tools_toolCell')
      .replace('.tool-row:hover', '.Tools_toolRow:hover'),
  );
  expect(Object.fromEntries(names)).toEqual({
    toolRow: 'Tools_toolRow',
    memberRow: 'Tools_memberRow',
    toolCell: 'Tools_toolCell',
  });
  expect(asInCode(SHEET)).toBe(text.replaceAll('Tools_', ''));
});
