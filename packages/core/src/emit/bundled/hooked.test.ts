import ts from 'typescript';
import { runtime } from './runtime_texts.ts';

type Act = (...given: string[]) => void | Promise<void>;
interface Hook {
  readonly before?: (...given: string[]) => unknown;
  readonly instead?: Act;
  readonly after?: Act;
}

/** The delivered code itself, as a function. */
const { hooked } = ((): { readonly hooked: (hook: Hook | undefined, act: Act) => Act } => {
  const made = { exports: {} };
  const { outputText } = ts.transpileModule(runtime['logic/hooked.ts'], {
    compilerOptions: { module: ts.ModuleKind.CommonJS, target: ts.ScriptTarget.ES2022 },
  });
  new Function('exports', outputText)(made.exports);
  return made.exports as never;
})();

const said: string[] = [];
const say = (word: string) => (): void => void said.push(word);
beforeEach(() => void said.splice(0));

test('without a hook it is the action itself', () => {
  const act = say('act');
  expect(hooked(undefined, act)).toBe(act);
});

test.each<[string, Hook, string[]]>([
  ['before and after it', { before: say('before'), after: say('after') }, ['before', 'act', 'after']],
  ['in its place', { instead: say('instead'), after: say('after') }, ['instead', 'after']],
  ['what answers false keeps the rest from being done', { before: () => false, after: say('after') }, []],
])('%s', (_, hook, expected) => {
  void hooked(hook, say('act'))();
  expect(said).toEqual(expected);
});

test('what takes a while is waited for, and all are given what the action is given', async () => {
  const later = (word: string) => async (text: string) => {
    await Promise.resolve();
    said.push(`${word} ${text}`);
  };
  const act = hooked(
    { before: later('before'), after: (text) => void said.push(`after ${text}`) },
    later('act'),
  );
  await act('Saw');
  expect(said).toEqual(['before Saw', 'act Saw', 'after Saw']);
  await hooked({ before: async () => Promise.resolve(false) }, say('act'))();
  expect(said).toHaveLength(3);
});

test('what fails is not followed by anything', async () => {
  const act = hooked({ after: say('after') }, () => Promise.reject(new Error('no')));
  await expect(act()).rejects.toThrow('no');
  expect(said).toEqual([]);
});
