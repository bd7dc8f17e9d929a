import { all, applyChange, type Change } from '../../../change/change.ts';
import { findActions } from '../../../data/actions.ts';
import { makeWork } from '../../../data/make_work.ts';
import type { Project } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

const DAYS = ['Mon', 'Tue', 'Wed'];
const day = (name: string): string =>
  `<button class="day" style="color:${name === 'Tue' ? '#fff' : '#222'};background-color:${name === 'Tue' ? '#234' : '#eee'}"><span>${name}</span></button>`;
const screen = pageOfHtml(`<main><h3>Pick it up on</h3><div>${DAYS.map(day).join('')}</div></main>`);

/** With all that is found of the controls taken. */
function working(): Project {
  const project = projectOf(screen);
  const { change } = makeWork(project, { collections: [], forms: [] }, findActions(screen));
  return { ...project, app: applyChange(project.app, all([change].filter((one): one is Change => !!one))) };
}

test('the look of the chosen one goes where the choice goes, and each says whether it is chosen', () => {
  const emitted = emitReact(working(), 'Days');
  const text = emitted.files
    .map((file) => ('text' in file && file.path.endsWith('Test.tsx') ? file.text : ''))
    .join('');
  for (const name of DAYS) {
    expect(text).toContain(`aria-pressed={pickItUpOn === '${name}'}`);
    expect(text).toContain(`setVariable('pickItUpOn', '${name}')`);
    expect(text).toMatch(new RegExp(`pickItUpOn === '${name}' (&&|\\?) `));
  }
  expect(typeErrors([emitted])).toEqual([]);
  expect(vueProblems([emitVue(working(), 'Days')])).toEqual([]);
}, 60_000);

test('where nothing is chosen all stays as it was drawn', () => {
  const { files } = emitReact(projectOf(screen), 'Days');
  expect(files.some((file) => 'text' in file && file.text.includes('aria-pressed'))).toBe(false);
});
