import { sheetsWritten, withWrittenSheets } from './written_sheets.ts';

test.each([
  [`document.write('<link rel="stylesheet" id="theme" href="css/app.css">')`, ['css/app.css']],
  [
    `if (dark) document.write("<link rel='stylesheet' href='dark.css'>"); else document.writeln("<link rel='stylesheet' href='light.css'>")`,
    ['dark.css', 'light.css'],
  ],
  [`document.write('<link rel="stylesheet" href="css/app-' + theme + '.css">')`, []],
  [`document.write('<link rel="icon" href="icon.png">')`, []],
  [`const kept = '<link rel="stylesheet" href="never.css">'`, []],
  [`document.write('<p>Hello</p>')`, []],
])('%s writes %j', (script, sheets) => expect(sheetsWritten(script)).toEqual(sheets));

test('a page gets the last sheet that is there, and only one that is', () => {
  const page = `<head><script>document.write('<link rel="stylesheet" href="a.css">'); document.write('<link rel="stylesheet" href="gone.css">')</script></head>`;
  expect(withWrittenSheets(page, (href) => href === 'a.css')).toBe(
    page.replace('</script>', '</script><link rel="stylesheet" href="a.css">'),
  );
  expect(withWrittenSheets(page, () => false)).toBe(page);
});
