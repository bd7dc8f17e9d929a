import fc from 'fast-check';
import { applyChange, putComponent } from '../../../change/change.ts';
import type { Project } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { drawnBothWays } from '../../../testing/expand.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import type { StyleRule } from '../markup.ts';
import type { PropsBefore } from '../before.ts';
import { aspectsOf } from './aspects.ts';
import { type Place, type Prop, templateOf } from './template.ts';

const COLORS = { primary: ['#036', '#fff'], danger: ['#a00', '#fff'], quiet: ['#eee', '#222'] } as const;
const SIZES = { small: ['4px', '12px'], usual: ['8px', '14px'], large: ['12px', '18px'] } as const;
const SHAPES = { round: '20px', square: '0' } as const;

interface Look {
  readonly color: keyof typeof COLORS;
  readonly size: keyof typeof SIZES;
  readonly shape: keyof typeof SHAPES;
}

const styleOf = ({ color, size, shape }: Look): Readonly<Record<string, string>> => ({
  'background-color': COLORS[color][0],
  color: COLORS[color][1],
  'padding-left': SIZES[size][0],
  'font-size': SIZES[size][1],
  ...(SHAPES[shape] === '0' ? {} : { 'border-top-left-radius': SHAPES[shape] }),
});

const rule = (base: Readonly<Record<string, string>>): StyleRule => ({
  className: 'button',
  key: null,
  base: { display: 'inline-block', ...base },
  at: {},
  from: {},
  states: {},
});

const ALL: readonly Look[] = (['primary', 'danger', 'quiet'] as const).flatMap((color) =>
  (['small', 'usual', 'large'] as const).flatMap((size) =>
    (['round', 'square'] as const).map((shape) => ({ color, size, shape })),
  ),
);

const named = (looks: readonly Look[]): string[] | null =>
  aspectsOf(looks.map((look) => rule(styleOf(look))))?.map(({ kins }) => [...kins].sort().join(' ')) ?? null;

test.each<[what: string, looks: readonly Look[], aspects: string[] | null]>([
  ['in every combination', ALL, ['background color', 'font-size padding', 'radius']],
  ['in most', ALL.filter((_, i) => i % 4), ['background color', 'font-size padding', 'radius']],
  ['colours alone', ALL.filter(({ size, shape }) => size === 'small' && shape === 'round'), null],
  [
    'sizes that go with colours',
    ALL.filter(({ color, size }) => size === { primary: 'small', danger: 'usual', quiet: 'large' }[color]),
    ['background color font-size padding', 'radius'],
  ],
  ['too few', ALL.slice(0, 4), null],
])('%s', (_, looks, aspects) => {
  expect(named(looks)).toEqual(aspects);
});

test('a look that says nothing is one, too', () => {
  const made = aspectsOf([undefined, ...ALL.map((look) => rule(styleOf(look)))]);
  expect(made?.every(({ values }) => values.length === ALL.length + 1)).toBe(true);
});

const pageOf = (looks: readonly Look[]): Project => {
  const page = pageOfHtml(
    `<main>${looks
      .map(
        (look, i) =>
          `<section><h2>${i}</h2><button class="btn btn-${look.color} btn-${look.size} btn-${look.shape}" style="${Object.entries(
            styleOf(look),
          )
            .map((entry) => entry.join(':'))
            .join(';')}">Lend ${i}</button></section>`,
      )
      .join('')}</main>`,
  );
  const bare = projectOf(page);
  const places = page.root.children[0].children.map(({ children }) => children[1].key);
  const change = putComponent('c', { name: 'LendButton', kind: 'component', places });
  return { ...bare, app: applyChange(bare.app, change) };
};

test('buttons of many looks are given what tells those apart, a prop an aspect', () => {
  const project = pageOf(ALL);
  for (const { made, plain } of drawnBothWays(project)) expect(made).toEqual(plain);
  const { files } = emitReact(project, 'Tools');
  const code = files.find(({ path }) => path.endsWith('LendButton.tsx'));
  const text = code && 'text' in code ? code.text : '';
  expect(text).toMatch(/color\??: 'primary' \| 'danger' \| 'quiet';/);
  expect(text).toMatch(/size\??: 'small' \| 'usual' \| 'large';/);
  expect(text).toMatch(/is(Round|Square)\?: boolean;/);
  expect(text).toMatch(/classList\([^;]*colorClasses\[color\],[^;]*sizeClasses\[size\],/);
  expect(typeErrors([emitReact(project, 'Tools')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Tools')])).toEqual([]);
}, 120_000);

test('whatever looks buttons have, they are drawn as they were', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...ALL), { minLength: 2, maxLength: 24 }), (looks) => {
      for (const { made, plain } of drawnBothWays(pageOf(looks))) expect(made).toEqual(plain);
    }),
    { numRuns: 60 },
  );
});

/** A button of each look, as it stands on a screen. */
const placesOf = (looks: readonly Look[]): Place[] =>
  looks.map((look, i): Place => ({
    node: {
      tag: 'button',
      key: `button ${JSON.stringify(look)}`,
      className: 'button',
      attributes: {},
      children: [{ text: `Lend ${i}` }],
    },
    rules: new Map([['button', rule(styleOf(look))]]),
    route: null,
  }));

const propsOf = (looks: readonly Look[], before?: PropsBefore): readonly Prop[] =>
  templateOf(placesOf(looks), {}, true, before)!.props.filter(({ kind }) => kind !== 'text');

test('aspects are called as they were, in whichever order they are found, and one choice stays one', () => {
  const props = propsOf(ALL);
  const before: PropsBefore = new Map(props.map(({ proposed, what, at }) => [proposed, { what, at }]));
  const sizes = (all: readonly Prop[]): Prop | undefined => all.find(({ name }) => name === 'size');
  expect(props.map(({ name }) => name)).toEqual(expect.arrayContaining(['color', 'size']));
  const again = propsOf(
    ALL.filter(({ color }) => color !== 'danger').toReversed(),
    new Map([...before].toReversed()),
  );
  expect(again.map(({ name }) => name)).toContain('size');
  expect(sizes(again)?.what).toBe(sizes(props)?.what);
  const one = { what: 'choice is', at: placesOf(ALL).map(({ node }) => node.key!) };
  expect(propsOf(ALL, new Map([['variant', one]])).map(({ name }) => name)).toEqual(['variant']);
});
