import { all, applyChange, type Change } from '../../../change/change.ts';
import { findActions } from '../../../data/actions.ts';
import { makeWork } from '../../../data/make_work.ts';
import type { Screen } from '../../../model/design.ts';
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
const days = pageOfHtml(`<main><h3>Pick it up on</h3><div>${DAYS.map(day).join('')}</div></main>`);

/** With all that is found of the controls taken. */
function working(screen: Screen): Project {
  const project = projectOf(screen);
  const { change } = makeWork(project, { collections: [], forms: [] }, findActions(screen));
  return { ...project, app: applyChange(project.app, all([change].filter((one): one is Change => !!one))) };
}

test('the look of the chosen one goes where the choice goes, and each says whether it is chosen', () => {
  const emitted = emitReact(working(days), 'Days');
  const text = emitted.files
    .map((file) => ('text' in file && file.path.endsWith('Test.tsx') ? file.text : ''))
    .join('');
  for (const name of DAYS) {
    expect(text).toContain(`aria-pressed={pickItUpOn === '${name}'}`);
    expect(text).toContain(`setVariable('pickItUpOn', '${name}')`);
    expect(text).toMatch(new RegExp(`pickItUpOn === '${name}' (&&|\\?) `));
  }
  expect(typeErrors([emitted])).toEqual([]);
  expect(vueProblems([emitVue(working(days), 'Days')])).toEqual([]);
}, 60_000);

test('where nothing is chosen all stays as it was drawn', () => {
  const { files } = emitReact(projectOf(days), 'Days');
  expect(files.some((file) => 'text' in file && file.text.includes('aria-pressed'))).toBe(false);
});

test('stars look chosen up to the one that is, as many as are drawn so at first', () => {
  const star = (n: number): string =>
    `<button class="star" style="color:${n <= 2 ? '#fa0' : '#ccc'}" aria-label="${n} of 4">★</button>`;
  const rated = working(
    pageOfHtml(`<main><h3>How was it</h3><div class="stars">${[1, 2, 3, 4].map(star).join('')}</div></main>`),
  );
  expect(Object.values(rated.app.variables)).toEqual([{ name: 'How was it', type: 'number', initial: 2 }]);
  const emitted = emitReact(rated, 'Stars');
  const text = emitted.files
    .map((file) => ('text' in file && file.path.endsWith('Test.tsx') ? file.text : ''))
    .join('');
  for (const n of [1, 2, 3, 4]) {
    expect(text).toContain(`setVariable('howWasIt', ${n})`);
    expect(text).toMatch(new RegExp(`howWasIt >= ${n} (&&|\\?) `));
    expect(text).toContain(`aria-pressed={howWasIt === ${n}}`);
  }
  expect(typeErrors([emitted])).toEqual([]);
  expect(vueProblems([emitVue(rated, 'Stars')])).toEqual([]);
}, 60_000);
