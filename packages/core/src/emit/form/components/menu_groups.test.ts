import { applyChange, putComponent } from '../../../change/change.ts';
import type { Screen } from '../../../model/design.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { partedAtFirst } from '../../../project/part_first.ts';
import { takeIn } from '../../../project/take_in.ts';
import { projectOf } from '../../../testing/build.ts';
import { drawn } from '../../../testing/expand.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitHtml } from '../../html/emit_html.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import { EmissionPlan } from '../plan.ts';
import { shownScreenOf } from '../shown_screen.ts';
import { extractionOf } from './extraction.ts';

const GROUPS: Readonly<Record<string, readonly string[]>> = {
  Reports: ['Loans', 'Returns'],
  Members: ['People', 'Families', 'Schools'],
  Tools: ['Saws', 'Drills', 'Ladders', 'Rakes'],
};
const icon = (n: number): string =>
  `<svg viewBox="0 0 9 9" width="9" style="opacity:0.8"><path d="M0 ${n}h9"></path></svg>`;

/** The menu as a page shows it: the group that the page is in is open, and looks otherwise. */
function menu(page: string): string {
  const groups = Object.entries(GROUPS).map(([group, entries], i) => {
    const isIn = entries.includes(page);
    const links = entries.map(
      (entry) =>
        `<li class="menu-item"><a class="menu-link" href="${entry.toLowerCase()}.html" style="padding:4px;color:${entry === page ? 'red' : isIn ? 'silver' : 'gray'}">${entry}</a></li>`,
    );
    return `<li class="menu-item" style="padding:2px;background-color:${isIn ? 'navy' : 'white'}"><a class="menu-link" href="#" aria-expanded="${isIn}" style="padding:8px;color:${isIn ? 'white' : 'black'}">${icon(i)}<span>${group}</span></a><ul class="menu-sub" style="padding:9px" ${isIn ? '' : 'hidden'}>${links.join('')}</ul></li>`;
  });
  return `<aside class="side" style="width:200px"><ul class="menu">${groups.join('')}</ul></aside>`;
}

function taken(): Project {
  const pages = Object.values(GROUPS)
    .flat()
    .map((page): Screen =>
      pageOfHtml(
        `${menu(page)}<main><h1>${page}</h1><p>All about ${page.toLowerCase()}.</p></main>`,
        page.toLowerCase(),
      ),
    );
  const bare = projectOf(...pages);
  const app = applyChange(bare.app, takeIn(bare, bare.design.screens));
  return { ...bare, app };
}

const whole = taken();
const project = { ...whole, app: applyChange(whole.app, partedAtFirst(whole)) };
const textOf = (files: ReturnType<typeof emitReact>['files'], name: string): string =>
  files.flatMap((file) => ('text' in file && file.path.endsWith(name) ? [file.text] : [])).join();

test('groups of a menu are one component that holds entries, however many, and is told where it is active', () => {
  const react = emitReact(project, 'Made');
  const group = textOf(react.files, '/MenuGroup.tsx');
  expect(group).toMatch(/isActive\?: boolean;[^}]*children: ReactNode;/);
  expect(group).toContain('useDisclosure(isActive && part)');
  expect(group).toMatch(/<ul [^>]*disclosure\.section\(part\)[^>]*>\s*\{children\}\s*<\/ul>/);
  const all = react.files.map((file) => ('text' in file ? file.text : '')).join('\n');
  const uses = [...all.matchAll(/<MenuGroup\b[\s\S]*?<\/MenuGroup>/g)].map(([use]) => use);
  expect(uses).toHaveLength(3);
  expect(uses[1]).toMatch(/isActive=\{/);
  // An entry knows by itself where it leads, and is told whether the page is in its group.
  expect(textOf(react.files, '/MenuItem.tsx')).toMatch(/pathname === to \? '\w+' : isInGroup \? /);
  expect(uses.map((use) => use.match(/<MenuItem\b/g)?.length)).toEqual([2, 3, 4]);
});

test('each screen shows what it showed', () => {
  const plan = new EmissionPlan(project);
  const extraction = extractionOf(plan);
  expect([...extraction.failed.keys()].filter((id) => project.app.components[id])).toEqual([]);
  for (const key of plan.screens) {
    const whole = shownScreenOf(plan, key);
    const route = plan.routeOf(key)!;
    expect(drawn(extraction.roots.get(key)!, extraction.rules.get(key)!, extraction, route)).toEqual(
      drawn(whole.root, whole.rules, null, route),
    );
  }
});

test('what opens a group knows whether that is open at first, though the group stands elsewhere', () => {
  const places: string[] = [];
  for (const { root } of whole.design.screens)
    walkElements(root, ({ key, attributes }) => void (attributes?.['aria-expanded'] && places.push(key)));
  const change = putComponent('opener', { name: 'Opener', kind: 'component', places });
  const made = { ...whole, app: applyChange(whole.app, change) };
  const opener = textOf(emitReact(made, 'Made').files, '/Opener.tsx');
  const [, given] = /useDisclosure\((\w+) && part\)/.exec(opener)!;
  expect(opener).toContain(`${given}?: boolean`);
  expect(textOf(emitReact(made, 'Made').files, '/Schools.tsx')).toMatch(
    new RegExp(`<Opener\\s+${given}\\s+part="members-section"`),
  );
  expect(textOf(emitVue(made, 'Made').files, '/Opener.vue')).toContain(
    `useDisclosure(() => ${given} && part)`,
  );
});

test('the compilers take it, and plain pages open the group that a page is in', () => {
  expect(typeErrors([emitReact(project, 'Made')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Made')])).toEqual([]);
  const page = textOf(emitHtml(project, 'Made').files, 'families/index.html').replace(/\s+/g, ' ');
  const open = [...page.matchAll(/<button[^>]*aria-expanded="(\w+)"/g)].map(([, is]) => is);
  expect(open).toEqual(['false', 'true', 'false']);
});
