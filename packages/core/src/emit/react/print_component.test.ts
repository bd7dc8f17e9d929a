import { choice, type Expression, literal, propNamed } from '../../expression/expression.ts';
import type { EmittedComponent } from '../form/components/extract.ts';
import type { Prop } from '../form/components/template.ts';
import { printComponent } from './print_component.ts';

const moreButton = (prop: Partial<Prop>, given: Expression): EmittedComponent => ({
  id: 'c1',
  name: 'More',
  root: {
    tag: 'button',
    key: 'e1',
    className: null,
    attributes: { type: 'button' },
    slots: { '@aria-expanded': given },
    children: [{ text: 'More' }],
  },
  props: [
    { name: 'open', proposed: 'open', what: 'open', at: [], kind: 'text', isOptional: true, ...prop },
    { name: 'isShown', proposed: 'isShown', what: 'isShown', at: [], kind: 'flag', isOptional: true },
  ],
  rules: [],
});

const OPEN = propNamed('open');

test.each<[string, Partial<Prop>, Expression, string]>([
  ['a text is compared', { kind: 'text' }, OPEN, "open ? open === 'true' : undefined"],
  ['both words are taken as they are', { kind: 'choice', choices: ['true', 'false'] }, OPEN, 'open'],
  ['one word is never held against the other', { kind: 'choice', choices: ['false'] }, OPEN, 'open'],
  [
    'a word that may be unsaid',
    { kind: 'choice', choices: ['false'] },
    choice(propNamed('isShown'), OPEN, literal(undefined)),
    'isShown ? open : undefined',
  ],
  [
    'another word is compared',
    { kind: 'choice', choices: ['true', 'undefined'] },
    OPEN,
    "open ? open === 'true' : undefined",
  ],
])('an attribute of yes and no: %s', (_, prop, given, expected) => {
  const { text } = printComponent(moreButton(prop, given), {
    component: 'More',
    assetImport: () => ({ name: '', path: '' }),
    source: '../..',
  });
  expect(text).toContain(`aria-expanded={${expected}}`);
});
