import { applyChange, putBinding, putVariable } from '../../change/change.ts';
import { elementsByKey } from '../../model/project.ts';
import { projectOf } from '../../testing/build.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { EmissionPlan, emitScreenOf } from './plan.ts';
import { isElement, isText, type MarkupElement, type MarkupNode } from './markup.ts';

/** What stands in an element of a page, as tags around texts. */
function written(
  html: string,
  tag = 'code',
  change = (app: ReturnType<typeof projectOf>) => app.app,
): string {
  const project = projectOf(pageOfHtml(html));
  const app = change(project);
  const find = (node: MarkupNode): MarkupElement | undefined => {
    if (!isElement(node)) return undefined;
    if (node.tag === tag) return node;
    return node.children.map(find).find((found) => found !== undefined);
  };
  const says = (node: MarkupNode): string =>
    isText(node)
      ? node.given
        ? '{…}'
        : node.text
      : isElement(node)
        ? `<${node.tag}>${node.children.map(says).join('')}</${node.tag}>`
        : '';
  const found = find(
    emitScreenOf(new EmissionPlan({ ...project, app }), project.design.screens[0].key).root,
  )!;
  return `${found.children.length} ${found.children.map(says).join('')}`;
}

test.each([
  [
    'words that look as what is around them are its text',
    '<pre><code><span>let</span> a = <span>1</span>;</code></pre>',
    '1 let a = 1;',
  ],
  [
    'what looks otherwise is not',
    '<pre><code><span>let</span> a, <span style="color:red">b</span> = 1;</code></pre>',
    '3 let a, <span>b</span> = 1;',
  ],
  ['what is called something is not', '<code><span id="first">let</span> a</code>', '2 <span>let</span> a'],
])('in a listing of code, %s', (_, html, expected) => {
  expect(written(html)).toBe(expected);
});

test('elsewhere words stay what they are, and so does what something is said of', () => {
  expect(written('<p>One <span>of</span> three</p>', 'p')).toBe('3 One <span>of</span> three');
  const bound = written('<code>n = <span>1</span></code>', 'code', ({ app, design }) => {
    const [key] = [...elementsByKey(design.screens[0])].find(([, { tag }]) => tag === 'span')!;
    return [
      putVariable('n', { name: 'N', type: 'number', initial: 1 }),
      putBinding(key, { text: 'n' }),
    ].reduce(applyChange, app);
  });
  expect(bound).toBe('2 n = <span>{…}</span>');
});
