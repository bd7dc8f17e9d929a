import fc from 'fast-check';
import {
  all,
  type App,
  type Change,
  type EntryHead,
  historyState,
  putScreen,
  putStill,
  readSvg,
  type Screen,
  setStart,
  stringifySorted,
} from '@tovel/core';
import { HttpError } from '../http/errors.ts';
import { takeInScreens } from '../intake/take_in.ts';
import { createServices, type Services } from '../services.ts';
import { startTestDatabase, type TestDatabase } from '../testing/database.ts';

let database: TestDatabase;
let services: Services;
beforeAll(async () => {
  database = await startTestDatabase();
  services = createServices(database.db, { error: () => {} });
});
afterAll(async () => {
  await services.workshop.close();
  await services.threads.close();
  await database.stop();
});

const create = (): Promise<string> => services.projects.create('Test');
const step = (id: string, base: number, change: Change, label = 'A step', author?: string) =>
  services.history.append(id, { base, ...(author ? { author } : {}) }, label, () => ({ change }));
const appOf = async (id: string): Promise<App> => (await services.projects.read(id)).app;
const problemOf = (work: Promise<unknown>): Promise<{ code: string; message: string }> =>
  work.then(
    () => ({ code: 'none', message: '' }),
    (error: HttpError) => ({ code: error.code, message: error.message }),
  );
const entry = { name: 'Home', route: '/', use: 'screen', order: 1 } as const;

const screen = (key: string, ...labels: string[]): Screen =>
  readSvg({
    file: `${key}.svg`,
    text: `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844">${labels
      .map(
        (label, i) =>
          `<g id="b${i}" data-name="Button"><rect x="20" y="${40 + 60 * i}" width="300" height="44" fill="#234"/><text x="40" y="${66 + 60 * i}">${label}</text></g>`,
      )
      .join('')}</svg>`,
    screenKey: key,
    asset: () => null,
  }).screen!;
const bring = (id: string, ...screens: Screen[]) =>
  services.projects
    .read(id)
    .then(({ seq }) =>
      takeInScreens(
        services,
        id,
        { base: seq },
        { format: 'tovel-design/1', iteration: 1, screens, assets: [], notices: [], fonts: [] } as never,
        { whole: true, answers: {}, signal: new AbortController().signal },
      ),
    );

test('what undo and redo act on is what the steps say, whoever made them and whatever was taken back', async () => {
  const windows = ['a.one', 'a.two', 'b.one'];
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.constantFrom('do', 'undo', 'redo'), fc.constantFrom(...windows)), {
        minLength: 4,
        maxLength: 14,
      }),
      async (script) => {
        const id = await create();
        const heads: EntryHead[] = [];
        let count = 0;
        for (const [what, author] of script) {
          const input = { base: heads.length, author, since: 0 };
          const wanted =
            what === 'do' ? null : historyState(heads, { author, since: 0 })[what as 'undo' | 'redo'];
          if (what !== 'do' && !wanted) continue;
          const { entry: made } =
            what === 'do'
              ? await step(id, heads.length, putStill(`e:${count++}`, true), `Step ${count}`, author)
              : await services.history[what as 'undo' | 'redo'](id, input);
          expect(made.of ?? null).toBe(wanted?.seq ?? null);
          const { change: _change, id: _id, ...head } = made;
          heads.push(head);
          for (const reader of windows.map((one) => ({ author: one, since: 0 })))
            expect(await services.history.state(id, heads.length, reader)).toEqual(
              historyState(heads, reader),
            );
        }
      },
    ),
    { numRuns: 15 },
  );
});

test('every place of a long history is what it was, from head or snapshot', async () => {
  const id = await create();
  const then: string[] = [stringifySorted(await appOf(id))];
  for (let i = 1; i <= 130; i++) {
    await step(
      id,
      i - 1,
      i % 7 === 0
        ? setStart(`s${i}`)
        : i % 5 === 0
          ? putStill(`e:${i - 1}`, false)
          : putStill(`e:${i}`, true),
    );
    then.push(stringifySorted(await appOf(id)));
  }
  for (const seq of [0, 1, 50, 99, 100, 101, 129, 130])
    expect(stringifySorted((await services.history.at(id, seq)).app)).toBe(then[seq]);
  expect(await problemOf(services.history.at(id, 131))).toMatchObject({ code: 'not-found' });
});

test('going back is a step: designs, apps and keys as they were, and nothing is lost', async () => {
  const id = await create();
  await bring(id, screen('home', 'Browse', 'Loans'));
  const first = await services.projects.read(id);
  await step(id, 1, putScreen('home', { ...first.app.screens.home, name: 'Start' }), 'Rename');
  await bring(id, screen('home', 'Browse'), screen('help', 'Back'));
  const third = await services.projects.read(id);
  const { entry: made } = await services.history.goBack(id, { base: 3 }, 1, 'Go back');
  const now = await services.projects.read(id);
  expect(stringifySorted([now.design, now.app])).toBe(stringifySorted([first.design, first.app]));
  expect([made.seq, made.role]).toEqual([4, 'do']);
  await services.history.undo(id, { base: 4 });
  const again = await services.projects.read(id);
  expect(stringifySorted([again.design, again.app])).toBe(stringifySorted([third.design, third.app]));
  const past = await services.history.at(id, 2);
  expect([past.app.screens.home.name, past.design.screens.length]).toEqual(['Start', 1]);
});

test('rename and re-route of one screen by two people both stay, and each can be taken back', async () => {
  const id = await create();
  await step(id, 0, putScreen('home', entry));
  await step(id, 1, putScreen('home', { ...entry, name: 'Start' }), 'Rename', 'a.one');
  const { entry: second } = await step(
    id,
    1,
    putScreen('home', { ...entry, route: '/start' }),
    'Re-route',
    'b.one',
  );
  expect(second.change).toEqual(putScreen('home', { ...entry, name: 'Start', route: '/start' }));
  await services.history.undo(id, { base: 3, author: 'a.one', of: 2 });
  expect((await appOf(id)).screens.home).toEqual({ ...entry, route: '/start' });
  // The same field is for nobody to decide.
  const { status } = await step(id, 1, putScreen('home', { ...entry, route: '/other' })).then(
    () => ({ status: 'taken' }),
    (error: Error) => ({ status: error.constructor.name }),
  );
  expect(status).toBe('Behind');
});

test('an iteration is taken back from beneath what has nothing to do with it, and not from beneath what has', async () => {
  const id = await create();
  await bring(id, screen('home', 'Browse', 'Loans'));
  await bring(id, screen('home', 'Browse', 'Loans'), screen('help', 'Back'));
  const { app } = await services.projects.read(id);
  await step(id, 2, putScreen('home', { ...app.screens.home, name: 'Start' }), 'Rename Home');
  await step(id, 3, putScreen('help', { ...app.screens.help, name: 'Questions' }), 'Rename Help');
  const refused = await problemOf(services.history.undo(id, { base: 4, of: 2 }));
  expect(refused.code).toBe('step-in-the-way');
  expect(refused.message).toContain('“Rename Help”');
  expect(refused.message).not.toContain('“Rename Home”');
  await services.history.undo(id, { base: 4, of: 4 });
  await services.history.undo(id, { base: 5, of: 2 });
  const now = await services.projects.read(id);
  expect([Object.keys(now.app.screens), now.app.screens.home.name, now.design.screens.length]).toEqual([
    ['home'],
    'Start',
    1,
  ]);
});

test('the timeline tells steps in words, by words and by screen, in pages', async () => {
  const id = await create();
  await bring(id, screen('home', 'Browse', 'Loans'), screen('list', 'Back'));
  const { design, app } = await services.projects.read(id);
  const element = design.screens[1].root.key;
  await step(id, 1, putStill(element, true), 'List: “Back” does nothing');
  await step(id, 2, putScreen('home', { ...app.screens.home, name: '100 % sure_' }), 'Rename to 100 % sure_');
  const labels = async (query: object): Promise<string[]> =>
    (await services.history.timeline(id, query)).steps.map(({ label }) => label);
  expect(await labels({})).toEqual([
    'Rename to 100 % sure_',
    'List: “Back” does nothing',
    'Bring in 2 screens',
  ]);
  expect(await labels({ words: 'nothing back' })).toEqual(['List: “Back” does nothing']);
  expect(await labels({ words: '% sure_' })).toEqual(['Rename to 100 % sure_']);
  expect(await labels({ words: '%' })).toHaveLength(1);
  expect(await labels({ screen: 'list' })).toEqual(['List: “Back” does nothing', 'Bring in 2 screens']);
  expect(await labels({ before: 3 })).toEqual(['List: “Back” does nothing', 'Bring in 2 screens']);
  const { steps } = await services.history.timeline(id, {});
  expect(steps.map(({ isIteration, standing }) => [isIteration, standing])).toEqual([
    [false, 'done'],
    [false, 'done'],
    [true, 'done'],
  ]);
  for (let i = 0; i < 200; i++) await step(id, 3 + i, all([putStill(`x:${i}`, true)]));
  const page = await services.history.timeline(id, {});
  expect([page.steps.length, page.before]).toEqual([200, 4]);
  expect((await services.history.timeline(id, { before: page.before! })).before).toBeNull();
});

test('places get names, which can change and go; the places stay', async () => {
  const id = await create();
  await step(id, 0, putScreen('home', entry));
  const { versions } = services;
  const made = await versions.add(id, 'First review', 1);
  await versions.add(id, 'Empty', 0);
  await versions.rename(id, made.id, 'Review');
  expect((await versions.list(id)).map(({ name, seq }) => [name, seq])).toEqual([
    ['Review', 1],
    ['Empty', 0],
  ]);
  await versions.forget(id, made.id);
  expect(await problemOf(versions.rename(id, made.id, 'Gone'))).toMatchObject({ code: 'not-found' });
  expect((await services.history.at(id, 1)).app.screens.home).toEqual(entry);
});
