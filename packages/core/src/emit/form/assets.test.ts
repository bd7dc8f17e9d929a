import { emptyDesign } from '../../model/design.ts';
import { emptyApp } from '../../model/app.ts';
import { assetFile } from './assets.ts';

const hashOf = (i: number): string => i.toString(16).padStart(64, '0');
const filesOf = (...files: readonly string[]): string[] => {
  const assets = files.map((file, i) => ({ hash: hashOf(i), file, type: 'image/png' }));
  const project = { design: { ...emptyDesign, assets }, app: emptyApp };
  return assets.map(({ hash }) => assetFile(project as never, hash));
};

test.each([
  ['a picture is called after its file', ['images/Hedge Trimmer.png'], ['hedge-trimmer.png']],
  [
    'pictures that are called the same are told apart by their folders',
    ['logos/small/jira.png', 'logos/large/jira.png', 'logos/slack.png'],
    ['small-jira.png', 'large-jira.png', 'slack.png'],
  ],
  [
    'where folders do not tell, the second is numbered',
    ['a/jira.png', 'b/a/jira.png'],
    ['a-jira.png', 'a-jira-2.png'],
  ],
  [
    'what is written within another file has no name of its own',
    ['css/site.css#inline', 'css/site.css#inline', '図.png'],
    ['picture.png', 'picture-2.png', 'picture-3.png'],
  ],
])('%s', (_, files, expected) => {
  expect(filesOf(...files)).toEqual(expected);
});
