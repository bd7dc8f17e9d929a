import { applyChange, putComponent } from '../change/change.ts';
import type { EmittedProject } from '../emit/emitted.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { emitHtml } from '../emit/html/emit_html.ts';
import { printHtml } from '../emit/html/print_html.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { emitVue } from '../emit/vue/emit_vue.ts';
import { findingsOf } from '../findings/rules.ts';
import { graphOf } from '../graph/graph.ts';
import { settle } from '../layers/settle.ts';
import { labelOf, pressablesOf } from '../links/pressable.ts';
import { emptyApp, type Target } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, type Project } from '../model/project.ts';
import { takeIn } from '../project/take_in.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { vueProblems } from '../testing/vue_problems.ts';
import { atFirst } from './at_first.ts';

import { findDisclosures } from './find.ts';
import { opensByName } from './signs.ts';
import { alwaysShown } from './take.ts';

const does = (target: Target): string =>
  target.kind === 'disclose' ? target.does : target.kind === 'turn' ? target.to : target.kind;

/** What is found on a page, a line each: how sure, the parts (`*` open at first), and what each control does. */
function found(html: string): string[] {
  const screen = pageOfHtml(html);
  const elements = elementsByKey(screen);
  return findDisclosures(screen).map(({ confidence, parts, controls }) => {
    const shown = parts.map(
      ([, { kind, name, open, below }]) => `${kind} ${name}${open ? '*' : ''}${below ? ` <=${below}` : ''}`,
    );
    const pressed = controls.map(([key, target]) => `${labelOf(elements.get(key)!)} ${does(target)}`);
    return `${confidence}: ${shown.join(', ')} | ${pressed.join(', ')}`;
  });
}

const LINKS = '<li><a href="a.html">A</a></li><li><a href="b.html">B</a></li>';

test.each([
  [
    'a part that a control names',
    '<a href="#" data-toggle="collapse" data-target="#more">Details</a><div id="more" hidden><p>More</p></div>',
    ['0.97: section Details | Details toggle'],
  ],
  [
    'parts that are all hidden, each named by an entry of a list',
    '<nav><a href="#a">One</a><a href="#b">Two</a><a href="#c">Three</a></nav><main><section id="a" hidden><p>A</p></section><section id="b" hidden><p>B</p></section><section id="c" hidden><p>C</p></section></main>',
    ['0.9: panel One*, panel Two, panel Three | One open, Two open, Three open'],
  ],
  [
    'a part that the settings of a control name',
    `<a href="#" data-toggles="{target: '#more', slow: true}">Details</a><p>Between</p><div id="more" hidden><p>More</p></div>`,
    ['0.97: section Details | Details toggle'],
  ],
  [
    'parts of which a list names what holds them, in its order',
    '<ul aria-controls="panes"><li><a href="#">One</a></li><li><a href="#">Two</a></li></ul><div id="panes"><div hidden><p>A</p></div><div hidden><p>B</p></div></div>',
    ['0.9: panel One*, panel Two | One open, Two open'],
  ],
  [
    'such parts that lie over the page when they open, and are closed again',
    '<nav><a href="#a">One</a><a href="#b">Two</a><a href="#c">Three</a></nav><main><section id="a" style="position:absolute" hidden><p>A</p></section><section id="b" style="position:absolute" hidden><p>B</p></section><section id="c" style="position:absolute" hidden><p>C</p></section></main>',
    ['0.97: menu One | One toggle', '0.97: menu Two | Two toggle', '0.97: menu Three | Three toggle'],
  ],
  [
    'one that is named in ARIA’s words',
    '<button aria-controls="more" aria-expanded="false">Details</button><div id="more" hidden>More</div>',
    ['0.97: section Details | Details toggle'],
  ],
  [
    'a part that the script of a press names, and what closes it in the same way',
    '<div><a href="#" data-tovel-calls="more">Details</a><p>Between</p></div><div><div id="more" hidden><p>More</p><button type="button" data-tovel-calls="more">Got it</button></div></div>',
    ['0.97: section Details | Details toggle, Got it close'],
  ],
  [
    'a part beside the label of a box that nobody sees, and not beside that of one that is seen',
    '<div><input type="checkbox" id="one" hidden><label for="one" class="accordion-header">Details</label><div hidden><p>More</p></div></div><div><input type="checkbox" id="two"><label for="two" class="accordion-header">Agreed</label><div hidden><p>Terms</p></div></div>',
    ['0.92: section Details | Details toggle'],
  ],
  [
    'a menu beside a button that says that it opens something',
    '<li><button aria-haspopup="true">Account</button><ul hidden style="position:absolute"><li>Sign out</li></ul></li>',
    ['0.92: menu Account | Account toggle'],
  ],
  [
    'a shade without anything in it, beside links that are called like what opens something',
    `<aside><div class="brand"><a href="index.html">Desk</a></div><div class="shade" hidden></div><ul><li><a href="accordion.html">Accordion</a></li><li><a href="b.html">B</a></li></ul></aside>`,
    [],
  ],
  [
    'a part beside a link that leads elsewhere, whatever it is called',
    '<div><a href="dropdown.html" class="dropdown">Dropdown</a><div hidden><p>More</p></div></div>',
    [],
  ],
  [
    'a part beside a link that leads elsewhere and says that it opens something',
    '<li><a href="all.html" aria-haspopup="true">Account</a><div hidden><p>More</p></div></li>',
    ['0.92: section Account | Account toggle'],
  ],
  [
    'groups of a menu, each opened by what stands beside it, whatever else is hidden near them',
    `<aside><div class="brand"><a href="index.html">Desk</a></div><div class="brand small" hidden>De</div><ul>${[
      'Reports',
      'Members',
      'Tools',
    ]
      .map(
        (label) =>
          `<li class="dropdown"><a href="#" class="has-dropdown"><span>${label}</span></a><ul ${label === 'Members' ? '' : 'hidden'}>${LINKS}</ul></li>`,
      )
      .join('')}</ul></aside>`,
    [
      '0.92: section Reports | Reports toggle',
      '0.92: section Tools | Tools toggle',
      '0.92: section Members* | Members toggle',
    ],
  ],
  [
    'the group of a menu that the page is in, which is open beside others that are not',
    `<ul>${['Reports', 'Members', 'Tools']
      .map(
        (group, i) =>
          `<li class="tree"><a class="entry" href="#">${group}</a><ul class="sub" ${i === 1 ? '' : 'hidden'}>${LINKS}</ul></li>`,
      )
      .join('')}<li class="tree"><a class="entry" href="c.html">Docs</a></li></ul>`,
    [
      '0.93: section Reports | Reports toggle',
      '0.93: section Tools | Tools toggle',
      '0.92: section Members* | Members toggle',
    ],
  ],
  [
    'a list of links beside what leads nowhere',
    `<ul><li><a href="#">Reports</a><ul hidden>${LINKS}</ul></li><li><a href="c.html">C</a></li></ul>`,
    ['0.93: section Reports | Reports toggle'],
  ],
  [
    'not by a toggle that stands in each of several rows',
    `<div><main><div><p>A</p><button class="toggle">Actions</button></div><div><p>B</p><button class="toggle">Actions</button></div></main><p hidden>Good news.</p></div>`,
    [],
  ],
  [
    'links that stand by themselves beside what leads nowhere, and a single one where others are so',
    '<nav><div class="has-sub"><a href="#">Reports</a><div class="sub" hidden><a href="a.html">A</a><a href="b.html">B</a></div></div><div class="has-sub"><a href="#">More</a><div class="sub" hidden><a href="c.html">C</a></div></div></nav>',
    ['0.93: section Reports | Reports toggle', '0.93: section More | More toggle'],
  ],
  [
    'a single link is no list by itself',
    '<nav><div><a href="#">More</a><div class="sub" hidden><a href="c.html">C</a></div></div></nav>',
    ['0.7: section More | More toggle'],
  ],
  [
    'what is called after it, wherever that stands',
    '<header><p><button class="nav-link right-panel-toggle">3</button></p><button class="toggle">Menu</button></header><main><p>Text</p></main><aside class="right-panel" hidden><p>News</p></aside>',
    ['0.93: section Right panel | 3 toggle'],
  ],
  [
    'not what a stretch of a page holds',
    `<div><main><button class="toggle">Wide</button>${'<button>More</button>'.repeat(24)}</main><p hidden>Good news.</p></div>`,
    [],
  ],
  ['not beside what leads elsewhere', `<ul><li><a href="c.html">C</a><ul hidden>${LINKS}</ul></li></ul>`, []],
  [
    'not what sends a form',
    '<form><div><input name="a"><p hidden>Wrong</p></div><button type="submit">Send</button></form>',
    [],
  ],
  [
    'a dialog, called by its heading, and what closes it',
    '<button data-target="#really">Delete</button><div id="really" role="dialog" hidden style="position:fixed"><h2>Really delete?</h2><button aria-label="Close">×</button><button>Cancel</button><button>Yes</button></div>',
    ['0.97: dialog Really delete? | Delete open, Close close, Cancel close'],
  ],
  [
    'one control opens one part of what stands beside it',
    '<div><button aria-haspopup="true">Account</button><ul hidden style="position:absolute"><li>Out</li></ul><p hidden>Hint</p></div>',
    ['0.92: menu Account | Account toggle'],
  ],
  ['a dialog that nothing opens stays out', '<div role="dialog" hidden><h2>Hello</h2></div>', []],
  [
    'panels of which one is shown',
    '<div role="tablist"><a role="tab" href="#one">Month</a><a role="tab" href="#two">Year</a></div><div><div class="pane" id="one">1</div><div class="pane" id="two" hidden>2</div></div>',
    ['0.95: panel Month*, panel Year | Month open, Year open'],
  ],
  [
    'slides, with what goes on and what goes to one',
    '<div id="show"><ol><li data-target="#show" data-slide-to="0">1</li><li data-target="#show" data-slide-to="1">2</li></ol><div><div class="slide"><h3>Oak</h3></div><div class="slide" hidden><h3>Ash</h3></div></div><a href="#show" data-slide="next">On</a></div>',
    ['0.95: slide Oak*, slide Ash | On next, 1 open, 2 open'],
  ],
  [
    'what is open at first',
    '<a class="card" data-toggle="collapse" href="#more" aria-expanded="true">Card</a><div id="more">More</div>',
    ['0.92: section Card* | Card toggle'],
  ],
  [
    'what only narrow windows hide',
    '<button class="toggler" data-target="#nav" style="display:none">Toggle navigation</button><nav id="nav" data-at="991:display:none"><a href="a.html">A</a></nav>',
    ['0.95: section Navigation <=991 | Toggle navigation toggle'],
  ],
  ['names of other kinds open nothing', '<label for="x">X</label><p hidden id="x">Y</p>', []],
])('%s', (_, html, expected) => {
  expect(found(html)).toEqual(expected);
});

/** A project of pages that have come in. */
function taken(...screens: Screen[]): Project {
  const { design } = projectOf(...screens);
  return { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens)) };
}

const BAR = (here: string): string =>
  `<nav><a href="home.html">Home</a><a href="#" aria-expanded="${here === 'a'}" data-target="#sub">Reports</a><ul id="sub" ${here === 'a' ? '' : 'hidden'}>${LINKS}</ul></nav><h1>${here}</h1>`;
const pages = (): Project =>
  taken(pageOfHtml(BAR('home'), 'home'), pageOfHtml(BAR('a'), 'a'), pageOfHtml(BAR('b'), 'b'));

test('what a page hides is in the app, its links are live, and it is closed in pictures', () => {
  const project = pages();
  const graph = graphOf(project);
  expect([...graph.reached].sort()).toEqual(['a', 'b', 'home']);
  const { design } = settle(project);
  const home = design.screens.find(({ key }) => key === 'home')!;
  expect(pressablesOf(home).map(({ label }) => label)).toEqual(['Home', 'Reports', 'A', 'B']);
  expect(pressablesOf(atFirst(home, project.app)).map(({ label }) => label)).toEqual(['Home', 'Reports']);
  const picture = printHtml(emitScreenOf(new EmissionPlan(project), 'home'), () => '');
  expect(picture).toContain('<ul id="reports-section" data-key="home:1/0/2" hidden>');
});

test('what is always shown again is, and nothing opens it any more', () => {
  const project = pages();
  const [part] = Object.keys(project.app.disclosures);
  const app = applyChange(project.app, alwaysShown(project.app, part));
  expect(
    Object.values(app.interactions).filter(
      ({ target }) => target.kind === 'disclose' && target.part === part,
    ),
  ).toEqual([]);
  expect(app.layers[part]).toEqual({ show: true });
  const shown = settle({ ...project, app }).design.screens.find(({ key }) => part.startsWith(`${key}:`))!;
  expect(elementsByKey(shown).has(part)).toBe(true);
});

const textOf = ({ files }: EmittedProject, path: RegExp): string => {
  const file = files.find((one) => path.test(one.path));
  return file && 'text' in file ? file.text : '';
};

const TABS = `<button class="tab" style="color:red" aria-controls="one">Month</button><button class="tab" style="color:gray" aria-controls="two">Year</button><div><div class="pane" id="one">1</div><div class="pane" id="two" hidden>2</div></div>`;
const DIALOG =
  '<button data-target="#d">Delete</button><div id="d" role="dialog" aria-hidden="true" hidden style="position:fixed"><h2>Really?</h2><button>Cancel</button></div>';
const SLIDES =
  '<div id="s"><div><p class="one">Oak</p><p class="one" hidden>Ash</p></div><button data-target="#s" data-slide="next">On</button></div>';
const NARROW =
  '<button data-target="#n">Menu</button><nav id="n" style="display:flex" data-at="800:display:none"><a href="home.html">Home</a></nav>';

const everything = (): Project =>
  taken(pageOfHtml(`${NARROW}${TABS}${DIALOG}${SLIDES}${BAR('home')}`, 'home'));

test.each([
  ['an opener', "{...disclosure.opener('reports-section')}"],
  ['a section', "<ul {...disclosure.section('reports-section')}>"],
  ['a dialog, that says what it is', "{...disclosure.dialog('really-dialog')}"],
  ['what closes it', "{...disclosure.closer('really-dialog')}"],
  ['which tab is first', "const tabsChoice = useChoice('month-panel');"],
  ['a panel', "{...tabsChoice.panel('year-panel')}"],
  ['the look of the chosen tab', "tabsChoice.isOpen('year-panel') ?"],
  ['slides in order', "const slidesChoice = useChoice('slide-1', 'slide-1', 'slide-2');"],
  ['what goes on', 'onClick={() => slidesChoice.turn(1)}'],
  ['what narrow windows close', "{...disclosure.narrow('menu-section')}"],
])('React: %s', (_, code) => {
  expect(textOf(emitReact(everything(), 'Test'), /Home\.tsx$/)).toContain(code);
});

test('an open dialog is read out', () => {
  expect(textOf(emitReact(everything(), 'Test'), /Home\.tsx$/)).not.toContain('aria-hidden');
});

test('what is open shows where narrow windows hide it', () => {
  const css = textOf(emitReact(everything(), 'Test'), /Home\.module\.css$/);
  expect(css).toMatch(/\[data-open\] \{\s+display: flex;/);
});

test('plain pages say it in attributes, with the part of the runtime that acts on them', () => {
  const { files } = emitHtml(everything(), 'Test');
  const page = textOf({ files, fileOfScreen: new Map() }, /^home\/index\.html$/);
  expect(page.replace(/\s+/g, ' ')).toContain(
    'data-discloses="toggle" aria-controls="reports-section" aria-expanded="false"',
  );
  expect(page.replace(/\s+/g, ' ')).toMatch(/hidden data-leaves="dialog"[^>]* id="really-dialog"/);
  expect(page).toContain('data-among="tabsChoice"');
  expect(files.map(({ path }) => path)).toContain('app/disclosures.js');
});

test('a bar whose part is open where one of its links leads is one component, and the compilers take it', () => {
  const project = pages();
  const bars = project.design.screens.map(({ root }) => root.children.find(({ tag }) => tag === 'nav')!.key);
  const app = applyChange(project.app, putComponent('bar', { name: 'Bar', kind: 'component', places: bars }));
  const shared = { ...project, app };
  const react = emitReact(shared, 'Test');
  const bar = textOf(react, /Bar\.tsx$/);
  expect(bar).toMatch(
    /isAtA = pathname === '\/a';\s+const disclosure = useDisclosure\(isAtA && 'reports-section'\)/,
  );
  expect(bar.match(/disclosure\.section/g)).toHaveLength(1);
  expect(typeErrors([react, emitReact(everything(), 'Test')])).toEqual([]);
  const vue = emitVue(shared, 'Test');
  expect(textOf(vue, /Bar\.vue$/)).toMatch(
    /useDisclosure\(\(\) => [\w.]+ (=== '\/a' )?&& 'reports-section'\)/,
  );
  expect(vueProblems([vue, emitVue(everything(), 'Test')])).toEqual([]);
});

test('the label of a box that nobody sees is a button where it opens something', () => {
  const screen = pageOfHtml(
    '<div><input type="checkbox" id="one" hidden><label for="one" class="accordion-header">Details</label><div hidden><p>More</p></div></div>',
  );
  const { design } = projectOf(screen);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, [screen]));
  const page = textOf(emitReact({ design, app }, 'Test'), /screens\/(?!NotFound)\w+\/\w+\.tsx$/);
  expect(page).toMatch(
    /<button[^>]*\{\.\.\.disclosure\.opener\('details-section'\)\}\s*>\s*Details\s*<\/button>/,
  );
  expect(page).not.toContain('htmlFor');
});

test('rows that each open their own part are one component that is given its id', () => {
  const row = (name: string): string =>
    `<li><button aria-controls="${name}" aria-expanded="false">${name}?</button><p id="${name}" hidden>About ${name}</p></li>`;
  const project = taken(pageOfHtml(`<ul>${['oak', 'ash', 'elm'].map(row).join('')}</ul>`, 'faq'));
  const list = project.design.screens[0].root.children.find(({ tag }) => tag === 'ul') as Element;
  const places = list.children.map(({ key }) => key);
  const app = applyChange(project.app, putComponent('rows', { name: 'Answer', kind: 'list', places }));
  const react = emitReact({ ...project, app }, 'Test');
  const answer = textOf(react, /Answer\.tsx$/);
  expect(answer).toContain('{...disclosure.opener(part)}');
  expect(answer).toContain('{...disclosure.section(part)}');
  expect(typeErrors([react])).toEqual([]);
});

test('what is hidden and not sure to open is a finding, whose fix lets what stands beside it open it', () => {
  const project = taken(
    pageOfHtml(
      '<div><div role="button">More</div><p hidden style="position:absolute">Hours</p></div>',
      'home',
    ),
  );
  expect(Object.keys(project.app.disclosures)).toEqual([]);
  const finding = findingsOf(project).find(({ code }) => code === 'hidden')!;
  expect(finding.fix?.label).toBe('Let it be opened');
  const app = applyChange(project.app, finding.fix!.change);
  expect(Object.values(app.disclosures).map(({ kind }) => kind)).toEqual(['menu']);
  expect(findingsOf({ ...project, app }).some(({ code }) => code === 'hidden')).toBe(false);
});

test.each([
  ['right-panel-toggle', 'right-panel', true],
  ['nav-link open-side-menu', 'side-menu', true],
  ['btn_side_menu', 'side_menu', true],
  ['side-menu-entry', 'side-menu', false],
  ['side-menu', 'side-menu', false],
])('classes “%s” open “%s”: %s', (classes, part, is) => expect(opensByName(classes, part)).toBe(is));
