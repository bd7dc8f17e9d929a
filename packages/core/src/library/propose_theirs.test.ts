import { applyChange, putComponent, putInteraction, putLibrary } from '../change/change.ts';
import { extractionOf } from '../emit/form/components/extraction.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { emitReact, emitReactWithTheirs } from '../emit/react/emit_react.ts';
import type { LibraryComponent, LibraryProp } from '../model/app.ts';
import { type Project, walkElements } from '../model/project.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { calledAlike } from './called_alike.ts';
import { proposeTheirs } from './propose_theirs.ts';

test.each([
  ['Button', 'Button', 1],
  ['Button2', 'Btn', 1],
  ['SideBar', 'Sidebar', 1],
  ['ToolTile', 'ToolCard', 1],
  ['LoanCard', 'Card', 0.75],
  ['Card', 'LoanCard', 0.6],
  ['CardHeader', 'Card', 0],
  ['Tags', 'Badge', 1],
  ['', 'Card', 0],
])('%s is called like %s: %d', (drawn, theirs, alike) => {
  expect(calledAlike(drawn, theirs)).toBeCloseTo(alike);
});

const text = (name: string, more: Partial<LibraryProp> = {}): LibraryProp => ({
  name,
  type: 'text',
  ...more,
});
const PRESS: LibraryProp = { name: 'onClick', type: 'press' };
const LINK = {
  name: 'Link',
  props: [text('href', { isRequired: true }), PRESS, { name: 'children', type: 'node' }],
} satisfies LibraryComponent;

/** A page with three links of one kind, one component of them, and a library of one's own. */
function withLibrary(theirs: readonly LibraryComponent[], name = 'Button'): Project {
  const page = (key: string) =>
    pageOfHtml(
      ['Members', 'Tools', 'Repairs']
        .map(
          (label) =>
            `<div><a class="go" style="background-color:#1f4d3a;color:#ffffff" href="#"><b>${label}</b></a></div>`,
        )
        .join(''),
      key,
    );
  const drawn = projectOf(page('home'), page('list'));
  const places = drawn.design.screens.flatMap((screen) => {
    const keys: string[] = [];
    walkElements(screen.root, (one) => {
      if (one.tag === 'a') keys.push(one.key);
    });
    return keys;
  });
  let { app } = drawn;
  places.forEach((key, i) => {
    const screen = i % 2 ? 'home' : 'list';
    app = applyChange(
      app,
      putInteraction(key, { on: 'press', target: { kind: 'screen', screen }, arrival: { kind: 'none' } }),
    );
  });
  app = applyChange(app, putComponent('c1', { name, kind: 'component', places }));
  return {
    ...drawn,
    app: applyChange(app, putLibrary('own', { name: '@own/parts', version: '^1.0.0', components: theirs })),
  };
}
const proposalsOf = (project: Project) =>
  proposeTheirs(extractionOf(new EmissionPlan(project)), project.app).get('c1') ?? [];
const taken = (project: Project): Project => ({
  ...project,
  app: applyChange(
    project.app,
    putComponent('c1', { ...project.app.components.c1, theirs: proposalsOf(project)[0].theirs }),
  ),
});
const fileOf = (project: Project, path: string, emit = emitReactWithTheirs): string => {
  const file = emit(project, 'Own').files.find((one) => one.path === path);
  return file && 'text' in file ? file.text : '';
};
const DECLARED = `declare module '@own/parts' {
  import type { ComponentType, MouseEventHandler, ReactNode } from 'react';
  export const Link: ComponentType<{ href: string; onClick?: MouseEventHandler<HTMLAnchorElement>; children: ReactNode }>;
  export const Button: ComponentType<{ onClick: () => void; caption: string }>;
}
`;

test.each<[string, LibraryComponent[], string]>([
  [
    'a link of theirs leads where the drawn one does, within the app',
    [LINK],
    '<Link href={to} onClick={leading(() => go(to))}>',
  ],
  [
    'what only can be pressed goes there',
    [{ name: 'Button', props: [{ ...PRESS, isRequired: true }, text('caption', { isRequired: true })] }],
    '<BaseButton caption={label} onClick={() => go(to)} />',
  ],
])(
  '%s',
  (_, theirs, code) => {
    const project = taken(withLibrary(theirs, theirs[0].name === 'Link' ? 'GoLink' : 'Button'));
    const { name } = project.app.components.c1;
    expect(fileOf(project, `src/components/${name}/${name}.tsx`)).toContain(code);
    expect(fileOf(project, 'package.json')).toContain('"@own/parts": "^1.0.0"');
    // What runs here is written as drawn: the library is not there.
    expect(fileOf(project, `src/components/${name}/${name}.tsx`, emitReact)).not.toContain('@own/parts');
    expect(fileOf(project, 'package.json', emitReact)).not.toContain('@own/parts');
    const made = emitReactWithTheirs(project, 'Own');
    expect(
      typeErrors([{ ...made, files: [...made.files, { path: 'src/own.d.ts', text: DECLARED }] }]),
    ).toEqual([]);
  },
  60_000,
);

test('what finds no place is told, and lowers how sure it is', () => {
  const [whole] = proposalsOf(
    withLibrary([{ name: 'Button', props: [PRESS, { name: 'children', type: 'node' }] }]),
  );
  const [less] = proposalsOf(withLibrary([{ name: 'Button', props: [PRESS] }]));
  expect(whole.lost).toEqual([]);
  expect(less.lost).toEqual(['its label']);
  expect(less.confidence).toBeLessThan(whole.confidence);
});

test('what theirs needs and nothing says is told', () => {
  const needing = {
    name: 'Button',
    props: [PRESS, { name: 'children', type: 'node' }, text('tracking', { isRequired: true })],
  } satisfies LibraryComponent;
  expect(proposalsOf(withLibrary([needing]))[0].missing).toEqual(['tracking']);
});

test('of several looks the nearest one is given', () => {
  const look = (kind: string, background: string, color: string) => ({
    given: { kind },
    tag: 'a',
    background,
    color,
    radius: 0,
    height: 10,
    fontSize: 16,
    fontWeight: 400,
  });
  const [proposal] = proposalsOf(
    withLibrary([
      {
        name: 'Button',
        props: [
          PRESS,
          { name: 'children', type: 'node' },
          { name: 'kind', type: 'one-of', choices: ['solid', 'plain'] },
        ],
        looks: [
          look('plain', 'rgb(255, 255, 255)', 'rgb(31, 77, 58)'),
          look('solid', 'rgb(30, 75, 57)', 'rgb(255, 255, 255)'),
        ],
      },
    ]),
  );
  expect(proposal.theirs.props.kind).toEqual({ kind: 'fixed', value: 'solid' });
});

test('a component that is called otherwise is none of theirs', () => {
  expect(proposalsOf(withLibrary([{ name: 'Calendar', props: [] }]))).toEqual([]);
});

test('one that the library no longer has is written as drawn', () => {
  const project = taken(withLibrary([LINK], 'GoLink'));
  const app = applyChange(project.app, putLibrary('own', { name: '@own/parts', components: [] }));
  expect(fileOf({ ...project, app }, 'src/components/GoLink/GoLink.tsx')).not.toContain('@own/parts');
});
