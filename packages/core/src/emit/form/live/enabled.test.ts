import { all, applyChange, putBinding, putVariable } from '../../../change/change.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitHtml } from '../../html/emit_html.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

const screen = pageOfHtml(
  '<main><input aria-label="Note"><button>Lend it</button><a href="x.html">Sheds</a></main>',
);

/** All that can be pressed or filled in can be used while this holds. */
function usedWhile(enabled: string): Project {
  const project = projectOf(screen);
  const keys: string[] = [];
  walkElements(screen.root, ({ key, tag }) => {
    if (tag === 'input' || tag === 'button' || tag === 'a') keys.push(key);
  });
  const made = all([
    putVariable('chosen', { name: 'Chosen', type: 'number', initial: 0 }),
    ...keys.map((key) => putBinding(key, { enabled })),
  ]);
  return { ...project, app: applyChange(project.app, made) };
}

const textOf = (files: readonly { readonly path: string }[], ending: string): string =>
  files.flatMap((file) => ('text' in file && file.path.endsWith(ending) ? String(file.text) : '')).join('\n');

test('a button and a field can be used while an expression holds; a link always', () => {
  const project = usedWhile('chosen > 0');
  const react = emitReact(project, 'Desk');
  expect(textOf(react.files, 'Test.tsx').match(/disabled=\{!\(chosen > 0\)\}/g)).toHaveLength(2);
  expect(typeErrors([react])).toEqual([]);
  const vue = emitVue(project, 'Desk');
  expect(textOf(vue.files, 'Test.vue').match(/:disabled="!\(variables\.chosen > 0\)"/g)).toHaveLength(2);
  expect(vueProblems([vue])).toEqual([]);
  const { files } = emitHtml(project, 'Desk');
  expect(textOf(files, '.html').match(/data-enabled="[^"]*" disabled/g)).toHaveLength(2);
  expect(textOf(files, '.js')).toMatch(/enabled\('control', \(now\) => now\.chosen > 0\)/);
}, 60_000);

test('what cannot be read leaves all as it was drawn', () => {
  const { files } = emitReact(usedWhile('chosen >'), 'Desk');
  expect(textOf(files, '.tsx')).not.toContain('disabled');
});
