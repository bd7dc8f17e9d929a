import { type Element, targets, emptyApp, emptyDesign, applyChange, takeIn, type Screen } from '@tovel/core';
import ts from 'typescript';

const part = (path: string, tag: string, more: Partial<Element> = {}): Element => ({
  key: `home:${path}`,
  kind: 'box',
  name: tag,
  tag,
  box: { x: 0, y: 0, width: 100, height: 20 },
  style: { base: {} },
  children: [],
  source: { file: 'home.html', path },
  ...more,
});
const screen: Screen = {
  key: 'home',
  name: 'Home',
  source: { file: 'home.html', path: '' },
  width: 1280,
  height: 800,
  use: 'screen',
  root: part('1', 'div', {
    children: [
      part('1/0', 'button', { text: 'More', kind: 'text', controls: { ids: ['more'] } }),
      part('1/1', 'p', { hidden: true, source: { file: 'home.html', path: '1/1', id: 'more' } }),
      part('1/2', 'button', { text: 'One', kind: 'text', controls: { ids: ['one'] } }),
      part('1/3', 'button', { text: 'Two', kind: 'text', controls: { ids: ['two'] } }),
      part('1/4', 'div', {
        children: ['one', 'two'].map((id, i) =>
          part(`1/4/${i}`, 'p', {
            hidden: i > 0,
            classes: 'pane',
            source: { file: 'home.html', path: `1/4/${i}`, id },
          }),
        ),
      }),
    ],
  }),
};
const design = { ...emptyDesign, screens: [screen] };
const project = { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, [screen])) };
/** What an app comes with that opens and closes something, by path. */
const delivered = new Map(
  [...targets.react.emit(project, 'Test').files, ...targets.html.emit(project, 'Test').files].flatMap(
    (file) => ('text' in file ? [[file.path, file.text] as const] : []),
  ),
);

type Given = Readonly<Record<string, unknown>>;
interface Disclosure {
  isOpen(id: string): boolean;
  opener(id: string): Given;
  closer(id: string): Given;
  section(id: string): Given;
  menu(id: string): Given;
  dialog(id: string): Given;
}
interface Choice {
  isOpen(id: string): boolean;
  open(id: string): void;
  turn(by: number): void;
  panel(id: string): Given;
}
interface OpenedFile {
  opened(): Given;
  onOpened(tell: () => void): () => void;
  forgetGone(): void;
}
interface DisclosureFile {
  disclosureOf(now: () => Given, openAtFirst: () => readonly (string | false)[]): Disclosure;
  choiceOf(now: () => Given, first: string, inOrder: readonly string[]): Choice;
}

/** A delivered file as it runs. */
function run<T>(path: string, required: Readonly<Record<string, unknown>> = {}): T {
  const { outputText } = ts.transpileModule(delivered.get(path)!, {
    compilerOptions: { module: ts.ModuleKind.CommonJS, target: ts.ScriptTarget.ES2022 },
  });
  const exports = {};
  // oxlint-disable-next-line no-implied-eval, no-new-func
  new Function('exports', 'require', outputText)(exports, (name: string) => required[name]);
  return exports as T;
}

const MENU = `
  <button id="opener">Account</button>
  <div id="part"><a href="#out">Sign out</a><button id="further" aria-controls="inner">More</button><p id="inner">…</p></div>
  <button id="elsewhere">Elsewhere</button>`;

/** A page whose parts are as the delivered code of the bundled targets says, in place of their frameworks. */
function bundled(kind: 'section' | 'menu' | 'dialog'): { isOpen: () => boolean; end: () => void } {
  const file = run<OpenedFile>('src/disclosures/opened.ts');
  const { disclosureOf } = run<DisclosureFile>('src/disclosures/disclosure.ts', { './opened': file });
  document.body.innerHTML = MENU;
  const disclosure = disclosureOf(file.opened, () => []);
  const show = (): void => {
    for (const [id, given] of [
      ['opener', disclosure.opener('part')],
      ['part', disclosure[kind]('part')],
    ] as const) {
      const element = document.getElementById(id)!;
      for (const [name, value] of Object.entries(given))
        if (name === 'onClick') element.onclick = value as () => void;
        else if (name === 'hidden') element.hidden = value as boolean;
        else element.setAttribute(name, String(value));
    }
  };
  show();
  const end = file.onOpened(show);
  return { isOpen: () => !document.getElementById('part')!.hidden, end };
}

/** The same page as the plain target writes it. */
function plain(kind: 'section' | 'menu' | 'dialog'): { isOpen: () => boolean; end: () => void } {
  document.body.innerHTML = MENU;
  const [opener, part] = ['opener', 'part'].map((id) => document.getElementById(id)!);
  opener.dataset.discloses = 'toggle';
  opener.setAttribute('aria-controls', 'part');
  opener.setAttribute('aria-expanded', 'false');
  part.hidden = true;
  if (kind !== 'section') part.dataset.leaves = kind;
  const listened: [string, EventListenerOrEventListenerObject][] = [];
  const add = document.addEventListener.bind(document);
  document.addEventListener = (name: string, listener: EventListenerOrEventListenerObject) => {
    listened.push([name, listener]);
    add(name, listener);
  };
  run('app/disclosures.js');
  document.addEventListener = add;
  return {
    isOpen: () => !part.hidden,
    end: () => listened.forEach(([name, listener]) => document.removeEventListener(name, listener)),
  };
}

const press = (id: string): void => document.getElementById(id)!.click();
const key = (name: string): boolean =>
  document.dispatchEvent(new KeyboardEvent('keydown', { key: name, cancelable: true, bubbles: true }));
const settled = (): Promise<void> => new Promise((done) => setTimeout(done));

describe.each([
  ['bundled', bundled],
  ['plain', plain],
])('%s', (_, page) => {
  test('what opens a part says so, and closes it', () => {
    const { isOpen, end } = page('section');
    press('opener');
    expect(isOpen()).toBe(true);
    expect(document.getElementById('opener')!.getAttribute('aria-expanded')).toBe('true');
    press('elsewhere');
    key('Escape');
    expect(isOpen()).toBe(true);
    press('opener');
    expect(isOpen()).toBe(false);
    end();
  });

  test.each([
    ['elsewhere', () => press('elsewhere'), false],
    ['on what is chosen', () => document.querySelector<HTMLElement>('#part a')!.click(), false],
    ['Escape', () => key('Escape'), false],
    ['on a further part of it', () => press('further'), true],
  ])('a menu that is left: %s', (__, leave, stays) => {
    const { isOpen, end } = page('menu');
    press('opener');
    leave();
    expect(isOpen()).toBe(stays);
    end();
  });

  test('a dialog takes the focus, keeps it, and gives it back', async () => {
    const { isOpen, end } = page('dialog');
    document.getElementById('opener')!.focus();
    press('opener');
    await settled();
    expect(document.activeElement?.textContent).toBe('Sign out');
    document.getElementById('further')!.focus();
    key('Tab');
    expect(document.activeElement?.textContent).toBe('Sign out');
    press('elsewhere');
    expect(isOpen()).toBe(true);
    key('Escape');
    expect([isOpen(), document.activeElement?.id]).toEqual([false, 'opener']);
    end();
  });
});

test('of several parts one is shown, and after the last comes the first', () => {
  const file = run<OpenedFile>('src/disclosures/opened.ts');
  const { choiceOf } = run<DisclosureFile>('src/disclosures/disclosure.ts', { './opened': file });
  const slides = choiceOf(file.opened, 'oak', ['oak', 'ash', 'elm']);
  const shown = (): string[] => ['oak', 'ash', 'elm'].filter((id) => !slides.panel(id).hidden);
  const seen = [shown()];
  for (const by of [1, 1, 1, -1]) {
    slides.turn(by);
    seen.push(shown());
  }
  expect(seen).toEqual([['oak'], ['ash'], ['elm'], ['oak'], ['elm']]);
  document.body.innerHTML = '';
  file.forgetGone();
  expect(shown()).toEqual(['oak']);
});

test('what is open at first is so until somebody closes it', () => {
  const file = run<OpenedFile>('src/disclosures/opened.ts');
  const { disclosureOf } = run<DisclosureFile>('src/disclosures/disclosure.ts', { './opened': file });
  document.body.innerHTML = '<p id="a"></p>';
  const disclosure = disclosureOf(file.opened, () => ['a', false]);
  expect([disclosure.isOpen('a'), disclosure.isOpen('b')]).toEqual([true, false]);
  (disclosure.closer('a').onClick as () => void)();
  expect(disclosure.isOpen('a')).toBe(false);
});
