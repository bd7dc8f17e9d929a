import { applyChange } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { printHtml } from '../emit/html/print_html.ts';
import { graphOf } from '../graph/graph.ts';
import { named, projectOf, screenOf, svg } from '../testing/build.ts';
import { drawerChange, openerProposals, undrawerChange } from './drawer.ts';
import { settle } from './settle.ts';

const link = (y: number, name: string): string =>
  `<g data-name="${name} link"><text x="20" y="${y}" font-size="15" fill="#fff">${name}</text></g>`;
const screen = screenOf(
  svg(
    `<g id="Menu_button" data-name="Menu button"><rect x="340" y="10" width="40" height="40" rx="6" fill="#234"/><path d="M350 24 C352 20 360 20 370 24" stroke="#fff" fill="none"/></g><g id="Side" data-name="Side bar"><rect x="0" y="60" width="200" height="300" fill="#234"/>${link(90, 'Tools')}${link(130, 'Loans')}${link(170, 'Rules')}</g><text x="220" y="90" font-size="15">Hello there</text>`,
  ),
  'home',
);
const project = projectOf(screen);
const side = named(screen, 'Side bar');

test('what is called a menu and leads nowhere is proposed to open it', () => {
  expect(openerProposals(project, screen, side).map(({ element }) => element.name)).toEqual(['Menu button']);
});

test('the part is hidden up to the width, and the drawer shows the very same', () => {
  const opener = named(screen, 'Menu button').key;
  const app = applyChange(
    project.app,
    drawerChange(project, side.key, { below: 600, side: 'left', name: 'Menu' }, opener),
  );
  const plan = new EmissionPlan({ ...project, app });
  const html = printHtml(emitScreenOf(plan, 'home'), () => '');
  expect(html.match(/>Loans</g)).toHaveLength(2);
  expect(html).toMatch(/popovertarget="drawer-home-1"/);
  expect(html).toMatch(/id="drawer-home-1" popover="auto" role="dialog" aria-label="Menu"/);
  expect(html).toMatch(/@media \(width <= 600px\)/);
  expect(html).toMatch(/@media \(width >= 601px\)/);
  // The opener is live, and what is in the part counts once.
  const graph = graphOf({ ...project, app });
  expect(graph.elements.get('home')!.find((state) => state.element.key === opener)!.standing).toBe('live');
  expect(graph.counts.elements).toBe(graphOf(project).counts.elements);
});

test('in the code the part is one component that is used twice', () => {
  const app = applyChange(
    project.app,
    drawerChange(project, side.key, { below: 600, side: 'left', name: 'Menu' }, null),
  );
  const { files } = emitReact({ ...project, app }, 'demo');
  const text = (path: string): string => {
    const file = files.find((candidate) => candidate.path === path);
    return file && 'text' in file ? file.text : '';
  };
  expect(text('src/components/Menu/Menu.tsx')).toContain('Loans');
  expect(text('src/screens/Home/Home.tsx').match(/<Menu\b/g)).toHaveLength(2);
  expect(text('src/screens/Home/Home.tsx')).not.toContain('Loans');
});

test('a button is added where nothing can open it, and goes with the drawer', () => {
  const app = applyChange(
    project.app,
    drawerChange(project, side.key, { below: 600, side: 'right', name: 'Menu' }, null),
  );
  expect(app.added['home:+1']).toMatchObject({ kind: 'button', text: 'Menu' });
  const button = settle({ ...project, app })
    .design.screens[0].root.children.flatMap((child) => [child, ...child.children])
    .find((element) => element.key === 'home:+1');
  expect(button?.style.from?.['601']).toEqual({ display: 'none' });
  expect(applyChange(app, undrawerChange({ ...project, app }, side.key))).toEqual(project.app);
});

test('a drawer that is gone breaks what opened it', () => {
  const opener = named(screen, 'Menu button').key;
  const app = applyChange(
    project.app,
    drawerChange(project, side.key, { below: 600, side: 'left', name: 'Menu' }, opener),
  );
  const { drawers: _drawers, ...rest } = app;
  const graph = graphOf({ ...project, app: { ...rest, drawers: {} } });
  expect(graph.elements.get('home')!.find((state) => state.element.key === opener)).toMatchObject({
    standing: 'broken',
    problem: 'the drawer is gone',
  });
});
