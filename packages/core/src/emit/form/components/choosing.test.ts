import { applyChange } from '../../../change/change.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { takeIn } from '../../../project/take_in.ts';
import { projectOf } from '../../../testing/build.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

const SHELVES = ['Saws', 'Drills', 'Ladders', 'Rakes'];

/** Tabs of which the first is chosen, which looks otherwise. */
const page = (): string => {
  const tabs = SHELVES.map(
    (name, i) =>
      `<li class="shelf" style="padding:4px"><button role="tab" class="shelf-tab" aria-selected="${i === 0}" aria-controls="${name}" style="padding:8px;border:1px solid #333;color:${i ? 'gray' : 'red'}"><span class="mark" style="width:8px">•</span><span class="name" style="font-size:14px">${name}</span></button></li>`,
  );
  const panels = SHELVES.map(
    (name, i) =>
      `<div role="tabpanel" id="${name}" ${i ? 'hidden' : ''}><p>${name} are lent for ${i + 2} days.</p></div>`,
  );
  return `<main><h1>Shelves</h1><ul role="tablist" class="shelves">${tabs.join('')}</ul>${panels.join('')}</main>`;
};

const taken = (): Project => withShelves(projectOf(pageOfHtml(page(), 'shelves')), 'Shelf tab');

/** A project whose shelves are a component. */
function withShelves(bare: Project, name = 'Shelf'): Project {
  const app = applyChange(bare.app, takeIn(bare, bare.design.screens));
  const places: string[] = [];
  walkElements(bare.design.screens[0].root, ({ classes, key }) => {
    if (classes === 'shelf') places.push(key);
  });
  return { ...bare, app: { ...app, components: { shelf: { name, kind: 'component', places } } } };
}

test('controls that choose among parts are one component that is given which part, and looks whether it is shown', () => {
  const made = emitReact(taken(), 'Shelves');
  expect(typeErrors([made])).toEqual([]);
  const file = made.files.find(({ path }) => path.endsWith('/ShelfTab.tsx'));
  const code = file && 'text' in file ? file.text : '';
  expect(code.match(/<button/g)).toHaveLength(1);
  expect(code).toMatch(/isOpen\(part\)/);
  expect(code).toMatch(/\.tab\(part\)/);
  expect(vueProblems([emitVue(taken(), 'Shelves')])).toEqual([]);
});

test('a menu that not every place has stands only where what it is known by is given', () => {
  const menu = (shelf: string): string =>
    `<button class="more" id="${shelf}-more" aria-haspopup="true" aria-expanded="false" aria-controls="${shelf}-menu" style="padding:4px">More</button><div class="menu" id="${shelf}-menu" aria-labelledby="${shelf}-more" hidden><a href="#">Lend ${shelf}</a><a href="#">Mend ${shelf}</a></div>`;
  const bare = projectOf(
    pageOfHtml(
      `<main><h1>Shelves</h1>${SHELVES.map((shelf, i) => `<div class="shelf" style="padding:4px"><h2>${shelf}</h2><p>Row ${i}</p><i>Open</i><b>Lent</b><u>Kept</u><s>Gone</s>${i ? menu(shelf) : ''}</div>`).join('')}</main>`,
      'shelves',
    ),
  );
  const made = withShelves(bare);
  const [first] = Object.values(made.app.components);
  expect(first.places).toHaveLength(4);
  const emitted = emitReact(made, 'Shelves');
  expect(emitted.files.some(({ path }) => path.endsWith('/Shelf.tsx'))).toBe(true);
  expect(typeErrors([emitted])).toEqual([]);
  expect(vueProblems([emitVue(made, 'Shelves')])).toEqual([]);
});
