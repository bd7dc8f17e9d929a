import { addressOfFile, filesIn, ShownFiles } from './shown_files';

const [one, two] = ['a'.repeat(64), 'b'.repeat(64)];
const page = `<img src="${addressOfFile(one)}"><p style="background:url(${addressOfFile(two)})"><img src="${addressOfFile(one)}">`;

let made: string[];
beforeEach(() => {
  made = [];
  let number = 0;
  Object.assign(URL, {
    createObjectURL: () => `blob:http://reader-1.localhost:1/${(number += 1)}`,
    revokeObjectURL: (address: string) => made.push(address),
  });
});

test('the files that a page asks for are known, each once', () => {
  expect(filesIn(page)).toEqual([one, two]);
  expect(filesIn('<p>https://files.invalid/none')).toEqual([]);
});

test('a page is shown with addresses of here, and what is read has those that it came with', () => {
  const files = new ShownFiles();
  files.add(one, new Blob(['1']));
  files.add(one, new Blob(['1']));
  files.add(two, new Blob(['2']));
  const shown = files.shownIn(page);
  expect(shown).not.toContain('files.invalid');
  expect(shown.match(/localhost:1\/\d/g)).toEqual(['localhost:1/1', 'localhost:1/2', 'localhost:1/1']);
  const read = JSON.stringify({ background: 'url("blob:http://reader-1.localhost:1/2")', other: 'blob:x' });
  expect(files.asCame(read)).toBe(
    JSON.stringify({ background: `url("${addressOfFile(two)}")`, other: 'blob:x' }),
  );
  files.dispose();
  expect(made).toHaveLength(2);
});

test('a file that did not come along stays an address of no host', () => {
  expect(new ShownFiles().shownIn(page)).toBe(page);
});
