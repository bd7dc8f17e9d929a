import { applyChange, putInteraction } from '../../change/change.ts';
import type { Target } from '../../model/app.ts';
import { pressTo } from '../../model/interaction.ts';
import { behaving } from '../../testing/behaving.ts';
import { pressablesOf } from '../../links/pressable.ts';
import { projectOf, screenWith } from '../../testing/build.ts';
import { textIn } from '../../testing/library.ts';
import { typeErrors } from '../../testing/typecheck.ts';
import { vueProblems } from '../../testing/vue_problems.ts';
import { emitReact } from '../react/emit_react.ts';
import { emitVue } from '../vue/emit_vue.ts';

const bare = behaving();
const [signedIn] = Object.entries(bare.app.variables).find(([, { name }]) => name === 'Signed in')!;
const remembers: Target = { kind: 'set', condition: signedIn, value: true };
const own = bare.app.interactions['confirm:3/3'];
const project = {
  ...bare,
  app: applyChange(
    bare.app,
    putInteraction('confirm:3/3', { ...own, before: [remembers as never, ...(own.before ?? [])] }),
  ),
};
const [react, vue] = [emitReact(project, 'Shed'), emitVue(project, 'Shed')];
interface Listed {
  readonly from: string;
  readonly name: string;
  readonly does: readonly object[];
  readonly opens?: { readonly name: string; readonly overlay: string };
  readonly given?: Readonly<Record<string, boolean>>;
}
const { deeds } = JSON.parse(textIn(react, 'src/behaviour.json')) as { deeds: readonly Listed[] };

test('what is pressed in something that opens over a screen is tried where that opens', () => {
  const inOverlay = deeds.filter(({ opens }) => opens);
  const opened = { from: '/loans', opens: { overlay: 'confirm' }, given: { signedIn: true } };
  expect(inOverlay).toMatchObject([
    { ...opened, name: 'Cancel', does: [{ over: [] }] },
    { ...opened, name: 'Yes', does: [{ variable: 'signedIn', is: true }, { to: '/tools' }] },
  ]);
  expect(textIn(react, 'src/behaviour.test.tsx')).toContain('opened(from, given, opens)');
});

test('what no test needs is not in the file with the tests', () => {
  const plain = projectOf(screenWith('home', 'Tools'), screenWith('tools', 'Home'));
  const [{ element }] = pressablesOf(plain.design.screens[0]);
  const hovers = { ...pressTo({ kind: 'screen', screen: 'tools' }), on: 'hover' } as const;
  const app = applyChange(plain.app, putInteraction(element.key, hovers));
  const text = textIn(emitReact({ ...plain, app }, 'Shed'), 'src/behaviour.test.tsx');
  expect(text).toContain("import { gesture } from './testing/gestures';");
  for (const unneeded of ['opens', 'given', 'calledSo', 'fillIn', 'lists'])
    expect(text).not.toContain(unneeded);
});

test('what leads past a guard that does not hold is not said to lead there', () => {
  const target: Target = { kind: 'screen', screen: 'loans' };
  const signsOut = { ...pressTo(target), before: [{ ...remembers, value: false }] as never };
  const app = applyChange(bare.app, putInteraction('choose:1', signsOut));
  const { deeds: made } = JSON.parse(textIn(emitReact({ ...bare, app }, 'Shed'), 'src/behaviour.json')) as {
    deeds: readonly Listed[];
  };
  const [deed] = made.filter(
    ({ from, does }) => from === '/choose' && JSON.stringify(does).includes('signedIn'),
  );
  expect(deed?.does).toEqual([{ variable: 'signedIn', is: false }]);
});

test('the tests pass the compilers of both', () => {
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 60_000);
