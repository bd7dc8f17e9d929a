import { applyChange, putComponent } from '../../../change/change.ts';
import { walkElements } from '../../../model/project.ts';
import { makeForms, sendable } from '../../../data/make_forms.ts';
import { proposeData } from '../../../data/propose.ts';
import { projectOf } from '../../../testing/build.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

test('fields of one look are one component, whether their form is checked or not', () => {
  const field = (label: string, y: number, more: string): string =>
    `<div class="f" style="margin-top: 10px" data-box="20 ${y} 400 60"><label for="${label}" style="display: block" data-box="20 ${y} 200 20">${label}</label><input id="${label}" style="padding-left: 8px" ${more} data-box="20 ${y + 22} 400 36"></div>`;
  const page = (key: string, title: string, fields: string, end: string) =>
    pageOfHtml(
      `<nav data-box="0 0 900 30"><a href="settings.html" data-box="0 0 90 30">Settings</a><a href="visit.html" data-box="100 0 90 30">Visit</a></nav><main data-box="0 40 900 600"><h1 data-box="20 40 300 30">${title}</h1><form data-box="20 80 400 400">${fields}${end}</form></main>`,
      key,
    );
  const project = projectOf(
    page(
      'settings',
      'Settings',
      field('Clinic', 90, 'value="Hollin" required') +
        field('Mail', 160, 'type="email" value="a@example.org"'),
      '<button type="submit" data-box="20 240 140 36">Save settings</button>',
    ),
    page('visit', 'Visit', field('Patient', 90, 'required') + field('Day', 160, 'type="date" required'), ''),
    page('time', 'Time', field('From', 90, 'type="time" required') + field('To', 160, 'type="time"'), ''),
  );
  const found = proposeData(project.design);
  const { app: working, made } = makeForms(project, found, sendable(found.forms));
  expect(made).toHaveLength(1);
  const places: string[] = [];
  for (const { root } of project.design.screens)
    walkElements(root, ({ key, classes }) => void (classes === 'f' && places.push(key)));
  const app = applyChange(working, putComponent('block', { name: 'Block', kind: 'component', places }));
  const react = emitReact({ ...project, app }, 'Clinic');
  const blocks = react.files.flatMap((file) =>
    'text' in file && /components\/.*\.tsx$/.test(file.path) && file.text.includes('<input')
      ? [file.text]
      : [],
  );
  expect(blocks).toHaveLength(1);
  expect(blocks[0]).toMatch(/\{(\w+) && <FieldMessage of=\{\1\} \/>\}/);
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([emitVue({ ...project, app }, 'Clinic')])).toEqual([]);
}, 60_000);
