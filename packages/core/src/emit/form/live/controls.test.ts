import type { EmittedStep, MarkupElement } from '../markup.ts';
import { withoutRowDeeds } from './controls.ts';

const go = { kind: 'go', to: '/folders', arrival: { kind: 'none' } } as EmittedStep;
const remove: EmittedStep = {
  kind: 'record',
  records: 'folders',
  deed: { kind: 'remove', of: { kind: 'row' } },
};
const say: EmittedStep = {
  kind: 'say',
  to: { kind: 'literal', value: 'Hello' },
  takesEntered: false,
  row: { name: 'folder', records: 'folders' },
};
const element = (...ways: readonly EmittedStep[][]): MarkupElement => ({
  tag: 'button',
  key: 'a',
  className: null,
  attributes: {},
  children: [],
  acts: [{ on: 'press', ways: ways.map((steps) => ({ steps })) }],
});

test.each<[string, MarkupElement, readonly EmittedStep[][] | undefined]>([
  ['what is done to the row goes', element([remove]), undefined],
  ['and what speaks of it', element([say]), undefined],
  ['what else is done stays', element([go], [remove]), [[go]]],
  ['but not what comes after it', element([remove, go]), undefined],
  ['what does nothing to the row stays as it is', element([go]), [[go]]],
])('where no record is shown %s', (_, node, ways) => {
  const root: MarkupElement = { ...node, tag: 'ul', acts: [], children: [node] };
  const [made] = withoutRowDeeds(root).children as MarkupElement[];
  expect(made.acts?.[0]?.ways.map(({ steps }) => steps)).toEqual(ways);
});
