import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  type Declarations,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  type Element,
  printHtml,
  readBatch,
  type Screen,
  takeIn,
  walkElements,
} from '@tovel/core';
import { HeadlessHost } from './headless.ts';

const host = new HeadlessHost();
afterAll(() => host.close());

async function read(body: string, css = '', head = '', doctype = '<!doctype html>'): Promise<Screen> {
  const html = `${doctype}<html><head><title>Test</title>${head}<style>${css}</style></head><body>${body}</body></html>`;
  const { screens, notices } = await readBatch(
    [{ path: 'test.html', bytes: new TextEncoder().encode(html) }],
    host,
  );
  if (!screens[0]) throw new Error(notices.map((notice) => notice.message).join());
  return screens[0];
}

/** The element with this id. */
function byId(screen: Screen, id: string): Element {
  let found: Element | null = null;
  walkElements(screen.root, (element) => void (element.source.id === id && (found = element)));
  if (!found) throw new Error(`no #${id}`);
  return found;
}
const base = (screen: Screen, id: string): Declarations => byId(screen, id).style.base;

test('only what the page itself says is read, with its units resolved and its freedom kept', async () => {
  const screen = await read(
    '<div id="a"><p id="b">Text</p></div>',
    ':root{--gap:1rem} #a{width:50%;margin:0 auto;padding:var(--gap);max-width:40em} #b{color:#123456}',
  );
  expect(base(screen, 'a')).toMatchObject({
    width: '50%',
    'max-width': '640px',
    'margin-left': 'auto',
    'padding-top': '16px',
    'box-sizing': 'content-box',
  });
  expect(base(screen, 'b')).toMatchObject({ color: 'rgb(18, 52, 86)', 'margin-top': '16px' });
  expect(base(screen, 'b')).not.toHaveProperty('font-size');
});

test.each([
  ['without a doctype', '', '0px', '16px', '16px'],
  ['with one of former days', '<!DOCTYPE HTML PUBLIC "-//W3C//DTD HTML 3.2//EN">', '0px', '16px', '16px'],
  ['with a doctype', '<!doctype html>', '16px', undefined, undefined],
])('a page %s is laid out as browsers do', async (_, doctype, top, fontSize, beneath) => {
  const screen = await read(
    '<div><p id="a">First</p><p id="b">Second</p></div><table id="t"><tr><td><p id="c">Cell</p></td></tr></table><form id="f"><input></form>',
    'body{font-size:20px} #b{font-size:16px} #a{font-size:16px} #c{font-size:16px}',
    '',
    doctype,
  );
  expect(base(screen, 'a')['margin-top']).toBe(top);
  expect(base(screen, 'b')['margin-top']).toBe('16px');
  expect(base(screen, 'c')['margin-top']).toBe(top);
  expect(base(screen, 'c')['margin-bottom']).toBe(top);
  expect(base(screen, 't')['font-size']).toBe(fontSize);
  expect(base(screen, 'f')['margin-bottom']).toBe(beneath && '20px');
});

test('looks that attributes of former days say are read', async () => {
  const screen = await read(
    `<table id="t" width="600" cellpadding="7" cellspacing="0" border="1" bgcolor="#ffffff" align="center">
      <tr id="r" bgcolor="#eeeeee"><td id="a" align="right" valign="top" nowrap height="80">A</td><td>B</td></tr></table>
    <center id="c"><table id="d"><tr><td>C</td></tr></table></center>
    <font id="f" color="#102030" size="5" face="Arial">F</font><hr id="h" noshade size="3" color="#123456">
    <ol id="o" type="a"><li>One</li></ol>`,
  );
  expect(base(screen, 't')).toMatchObject({
    width: '600px',
    'background-color': 'rgb(255, 255, 255)',
    'border-spacing': '0px',
    'margin-left': 'auto',
  });
  expect(base(screen, 'r')).toMatchObject({ 'background-color': 'rgb(238, 238, 238)' });
  expect(base(screen, 'a')).toMatchObject({
    'padding-left': '7px',
    'border-left-width': '1px',
    'text-align': 'right',
    'vertical-align': 'top',
    'text-wrap-mode': 'nowrap',
    height: '80px',
  });
  expect(base(screen, 'c')).toMatchObject({ 'text-align': 'center' });
  expect(base(screen, 'd')).toMatchObject({ 'margin-left': 'auto', 'margin-right': 'auto' });
  expect(base(screen, 'f')).toMatchObject({
    color: 'rgb(16, 32, 48)',
    'font-size': '24px',
    'font-family': 'Arial',
  });
  expect(base(screen, 'h')).toMatchObject({
    'background-color': 'rgb(18, 52, 86)',
    'border-top-style': 'solid',
  });
  expect(base(screen, 'o')).toMatchObject({ 'list-style-type': 'lower-alpha' });
});

test('a control whose native look is taken off says what it had by that', async () => {
  const screen = await read(
    '<input type="radio" id="a" class="own"><input type="radio" id="b"><input type="checkbox" id="c" class="own">',
    '.own{appearance:none;width:18px;height:18px;border:1px solid red} .own[type=radio]{border-radius:50%} .own[type=checkbox]{border-radius:4px}',
  );
  expect(base(screen, 'a')).toMatchObject({ appearance: 'none', 'border-top-left-radius': '50%' });
  expect(base(screen, 'b')).not.toHaveProperty('border-top-left-radius');
  expect(base(screen, 'c')).toMatchObject({ 'border-top-left-radius': '4px' });
});

test('parts of controls that the page draws otherwise are read, each where it is one', async () => {
  const screen = await read(
    '<input type="file" id="f" class="field"><input type="range" id="r"><input type="range" id="n" class="native"><input type="text" id="t" class="field"><p id="p">x</p><input type="month" id="m">',
    `:root{--ground:#eee} ::file-selector-button{padding:4px;border:0} .field::-webkit-file-upload-button{background:var(--ground)}
     .field:hover::file-selector-button{background:blue} ::-webkit-datetime-edit-fields-wrapper{padding:0}
     #r{appearance:none} #r::-webkit-slider-thumb{appearance:none;width:16px;background-color:red} .native{appearance:none}`,
  );
  const states = (id: string) => byId(screen, id).style.states;
  expect(states('f')).toMatchObject({
    '::file-selector-button': { 'padding-top': '4px', 'background-color': expect.stringMatching(/238|eee/) },
  });
  expect(states('r')).toEqual({
    '::-webkit-slider-thumb': expect.objectContaining({ width: '16px', 'background-color': 'red' }),
  });
  expect(base(screen, 'r')).toMatchObject({ appearance: 'none' });
  expect(base(screen, 'n')).not.toHaveProperty('appearance');
  expect(states('m')).toEqual({
    '::-webkit-datetime-edit-fields-wrapper': expect.objectContaining({ 'padding-top': '0px' }),
  });
  expect([states('t'), states('p')]).toEqual([undefined, undefined]);
});

test('signs of icon fonts that did not come along show nothing, where browsers draw empty boxes', async () => {
  const screen = await read(
    '<i class="icon" id="a"></i><i class="icon end" id="b"></i><i class="icon plain" id="c">&#xf140;</i><p id="d" class="more">More</p>',
    '.icon{font-family:"Signs"} .icon:not(.end):not(.plain)::before{content:"\\f140"} .end::after{content:"\\f141"} .more::after{content:"→"}',
  );
  expect(byId(screen, 'a').style.before).toMatchObject({ content: '""' });
  expect(byId(screen, 'b').style.after).toMatchObject({ content: '""' });
  expect([byId(screen, 'c').text, byId(screen, 'c').children]).toEqual([undefined, []]);
  expect(byId(screen, 'd').style.after).toMatchObject({ content: '"→"' });
});

test('what a field suggests comes with it', async () => {
  const screen = await read(
    '<input id="i" list="woods"><datalist id="woods"><option value="Oak"><option value="Ash">Ash wood</datalist>',
  );
  expect(byId(screen, 'i').attributes).toMatchObject({ list: 'woods' });
  const woods = byId(screen, 'woods');
  expect([woods.tag, woods.hidden, woods.children.map(({ attributes }) => attributes?.value)]).toEqual([
    'datalist',
    undefined,
    ['Oak', 'Ash'],
  ]);
});

test('boxes are those of the page, within a pixel', async () => {
  const screen = await read(
    '<div id="a" style="position:absolute;left:33px;top:44px;width:120px;height:60px"></div>',
  );
  expect(byId(screen, 'a').box).toEqual({ x: 33, y: 44, width: 120, height: 60 });
});

test('media rules become what differs at narrower widths', async () => {
  const screen = await read(
    '<div id="a">A</div><div id="b">B</div>',
    '#a{display:flex;gap:24px} #b{display:none} @media (max-width:700px){#a{gap:8px}} @media (min-width:500px){#a{padding:10px}} @media (max-width:400px){#b{display:block}}',
  );
  const a = byId(screen, 'a').style;
  expect(a.base).toMatchObject({ 'row-gap': '24px', 'padding-left': '10px' });
  expect(a.at!['700']).toEqual({ 'row-gap': '8px', 'column-gap': '8px' });
  expect(a.at!['499']).toMatchObject({ 'padding-left': '0px' });
  expect(byId(screen, 'b').style).toMatchObject({
    base: { display: 'none' },
    at: { '400': { display: 'block' } },
  });
});

test('what an element takes over from what it stands in differs where that does', async () => {
  const screen = await read(
    '<nav id="a"><div id="b"><p id="c">C</p></div><div id="d">D</div></nav>',
    'nav{display:flex;flex-wrap:wrap} nav > div{display:flex;flex-wrap:inherit} #c{flex-wrap:inherit} #d{flex-wrap:wrap} @media (min-width:700px){nav{flex-wrap:nowrap}}',
  );
  const wraps = ['a', 'b', 'c', 'd'].map((id) => {
    const { base, at } = byId(screen, id).style;
    return [base['flex-wrap'], at?.['699']?.['flex-wrap']];
  });
  expect(wraps).toEqual([
    [undefined, 'wrap'],
    [undefined, 'wrap'],
    [undefined, 'wrap'],
    ['wrap', undefined],
  ]);
});

test('what is shown before an element says what its attribute said', async () => {
  const screen = await read(
    '<p id="a" data-lang="A &quot;b&quot;">Code</p><p id="b">None</p>',
    "p::before{content:'(' attr(data-lang) ')'}",
  );
  expect(['a', 'b'].map((id) => byId(screen, id).style.before?.content)).toEqual([
    `'(' "A \\"b\\"" ')'`,
    `'(' "" ')'`,
  ]);
});

test('lengths by the size of type of a page are as long where that is another one', async () => {
  const css = "p::before{content:'1rem';width:1.5rem;margin:0 -.5rem}p:hover{padding-top:2rem}";
  const sizes = async (root: string) => {
    const { style } = byId(await read('<p id="a">A</p>', root + css), 'a');
    return [style.before?.width, style.before?.['margin-left'], style.hover?.['padding-top']];
  };
  expect(await sizes('html{font-size:62.5%}')).toEqual(['15px', '-5px', '20px']);
  expect(await sizes('')).toEqual(['1.5rem', '-0.5rem', '2rem']);
});

test('hover, focus, pseudo-elements and placeholders are read apart', async () => {
  const screen = await read(
    '<button id="a">Go</button><input id="b" placeholder="Name">',
    ':root{--x:#00ff00} #a:hover{color:red;background:var(--x)} #a:focus-visible{outline:2px solid blue} #a::before{content:"→";color:teal} #b::placeholder{color:gray} p:hover #a{color:pink}',
  );
  const { hover, focus, before } = byId(screen, 'a').style;
  expect(hover).toMatchObject({ color: 'rgb(255, 0, 0)', 'background-color': 'rgb(0, 255, 0)' });
  expect(focus).toMatchObject({ 'outline-width': '2px' });
  expect(before).toMatchObject({ content: '"→"', color: 'teal' });
  expect(byId(screen, 'b').style.placeholder).toEqual({ color: 'gray' });
});

test.each([
  ['#123456', '1px solid #000', 'rgb(0, 0, 0)'],
  ['#123456', '1px solid #aabbcc', 'rgb(170, 187, 204)'],
  ['#000', '1px solid #000', undefined],
])('in text of %s a border of %s is of the colour %s', async (color, border, said) => {
  const screen = await read('<div id="a">Lent</div>', `body{color:${color}} #a{border:${border}}`);
  expect(base(screen, 'a')['border-top-color']).toBe(said);
});

test.each([
  ['ltr', 'left'],
  ['rtl', 'right'],
])('in text that runs %s the start is %s', async (direction, side) => {
  const screen = await read(
    `<div dir="${direction}"><p id="a">Lent</p></div>`,
    '#a{border-inline-start:4px solid teal;padding-inline-start:3px;margin-inline-start:5px;border-start-start-radius:7px}',
  );
  expect(base(screen, 'a')).toMatchObject({
    [`border-${side}-width`]: '4px',
    [`padding-${side}`]: '3px',
    [`margin-${side}`]: '5px',
    [`border-top-${side}-radius`]: '7px',
  });
});

test('first letters and marks of lists look as they are said to', async () => {
  const screen = await read(
    '<p id="a">Borrowed</p><ul><li id="b">Saw</li></ul><p id="c">Plain</p>',
    ':root{--c:#ff0000} #a::first-letter{color:var(--c);float:left} li::marker{color:#00ff00}',
  );
  expect(byId(screen, 'a').style.states).toEqual({ '::first-letter': { color: '#ff0000', float: 'left' } });
  expect(byId(screen, 'b').style.states).toEqual({ '::marker': { color: 'rgb(0, 255, 0)' } });
  expect(byId(screen, 'c').style.states).toBeUndefined();
});

test('declarations of nested rules, in layers and conditions, and after them', async () => {
  const screen = await read(
    '<a id="a" class="press">Lend</a><p id="b" class="line">Rules</p>',
    '.press { @layer low { align-items: center; padding: 3px } &:hover { @media (hover: hover) { color: #ff0000 } } border-radius: 5px } .line { @media (width < 800px) { font-weight: 700 } .missing & { color: #00ff00 } }',
  );
  expect(base(screen, 'a')).toMatchObject({ 'padding-left': '3px', 'border-top-left-radius': '5px' });
  expect(byId(screen, 'a').style.hover).toEqual({ color: 'rgb(255, 0, 0)' });
  expect(byId(screen, 'b').style).toMatchObject({ base: {}, at: { '799': { 'font-weight': '700' } } });
});

test('what follows the window is written in units of the window', async () => {
  const screen = await read(
    '<div id="a"></div><div id="b"></div><div style="width:400px"><div id="c"></div></div>',
    '#a{min-height:100vh;padding:5vw} #b{height:calc(50vh - 20px)} #c{width:100vw;margin-left:calc(50% - 50vw);padding-left:calc(10% + 2vw - 4px)}',
  );
  expect(base(screen, 'c')).toMatchObject({
    width: '100vw',
    'margin-left': 'calc(50% - 50vw)',
    'padding-left': 'calc(10% + 2vw - 4px)',
  });
  expect(base(screen, 'a')).toMatchObject({ 'min-height': '100vh', 'padding-top': '5vw' });
  expect(base(screen, 'b').height).toBe('calc(50vh - 20px)');
});

test('heights that are shares of the window by way of page and body are said in its units', async () => {
  const html = '<div id="a"><div id="b"><i id="c">x</i></div></div><div id="d"><i id="e">y</i></div>';
  const screen = await read(
    html,
    'html,body{height:100%} #a{min-height:100%} #b,#e{height:50%} #d{height:100%;padding:10px 0} #c{display:block}',
  );
  const heights = ['a', 'b', 'd', 'e'].map((id) => {
    const { height, 'min-height': least } = base(screen, id);
    return height ?? least;
  });
  // The height of what is only at least so high is not known to what stands in it.
  expect(heights).toEqual(['100vh', '50%', '100vh', 'calc(50vh - 10px)']);
  const loose = await read(html, 'body{height:100%} #a{min-height:100%}');
  expect(base(loose, 'a')['min-height']).toBe('100%');
});

test('text keeps the spaces that show, and only those', async () => {
  const screen = await read('<p id="a">\n  One <b>two</b>\n  three  </p><pre id="b">x\n  y</pre>');
  expect(byId(screen, 'a').children.map((child) => child.text)).toEqual(['One ', 'two', ' three']);
  expect(byId(screen, 'b').text).toBe('x\n  y');
});

test('a space between what stands in a line is there also where the line breaks', async () => {
  const box = (id: string): string => `<b id="${id}" style="display:inline-block;width:80px">${id}</b>`;
  const screen = await read(
    `<p id="row" style="width:180px">\n${['u', 'v', 'w'].map(box).join('\n')}\n</p><p id="bars" style="display:flex">${box('x')} ${box('y')}</p><p id="broken">${box('z')} <br> ${box('q')}</p>`,
  );
  const between = (id: string): unknown[] =>
    byId(screen, id).children.map(({ tag, text }) => (tag === undefined ? text : tag));
  expect(between('row')).toEqual(['b', ' ', 'b', ' ', 'b']);
  expect(between('bars')).toEqual(['b', 'b']);
  expect(between('broken')).toEqual(['b', 'br', 'b']);
});

test('the place of what shows something of elsewhere is as large as the page says, by its tag too', async () => {
  const screen = await read(
    '<div id="map"><iframe id="by-rule" src="x" width="90" height="80"></iframe></div><iframe id="by-itself" src="x"></iframe><div style="width:400px"><video id="by-attributes" width="50%" height="70" controls></video></div>',
    '#map iframe{width:100%;height:200px;border:0}',
  );
  const sizeOf = (id: string): unknown[] => {
    const { tag, box } = byId(screen, id);
    return [tag?.startsWith('tovel'), box.width, box.height];
  };
  expect(sizeOf('by-rule')).toEqual([false, byId(screen, 'map').box.width, 200]);
  expect(sizeOf('by-itself')).toEqual([false, 300, 150]);
  expect(sizeOf('by-attributes')).toEqual([false, 200, 70]);
});

test('hidden elements are left out, but not those that another width shows', async () => {
  const html =
    '<style>.n{display:none}@media(max-width:600px){.m{display:block!important}}</style><p class="n" id="a">Gone</p><p class="n m" id="b">Narrow</p><p>Seen</p>';
  const { screens, notices } = await readBatch(
    [{ path: 'a.html', bytes: new TextEncoder().encode(html) }],
    host,
  );
  expect(notices).toEqual([
    expect.objectContaining({
      code: 'hidden-layer',
      message: '“a” is hidden at first, and stays out unless something opens it.',
    }),
  ]);
  expect(byId(screens[0], 'b')).toBeDefined();
});

test('no script of a page runs, and nothing is fetched', async () => {
  const screen = await read(
    '<p id="a">Before</p><script>document.getElementById("a").textContent = "After"</script><img src="http://127.0.0.1:1/x.png" onerror="document.body.remove()">',
  );
  expect(byId(screen, 'a').text).toBe('Before');
});

test('a control says what it would not look like by itself, disabled or with several choices, too', async () => {
  const choices = '<option>Saws<option>Drills';
  const screen = await read(
    `<select id="a" disabled>${choices}</select><select id="b">${choices}</select><select id="c" multiple>${choices}</select><select id="d" size="4">${choices}</select><input id="e" disabled value="Saw"><fieldset disabled><select id="f">${choices}</select></fieldset>`,
    'select{opacity:1;border:1px solid #333;border-radius:0} input{background:#fff;border:1px solid #333}',
  );
  const of = (id: string) => byId(screen, id).style.base;
  expect(of('a').opacity).toBe('1');
  expect(of('b')).not.toHaveProperty('opacity');
  expect(of('b')).not.toHaveProperty('border-top-left-radius');
  expect(of('c')['border-top-left-radius']).toBe('0px');
  expect(of('d')['border-top-left-radius']).toBe('0px');
  expect(of('e')['background-color']).toBe('rgb(255, 255, 255)');
  expect(of('f').opacity).toBe('1');
});

test('a canvas is as large as it says, or as browsers make it, although no script draws on it', async () => {
  const screen = await read(
    '<canvas id="a" width="640" height="200"></canvas><canvas id="b"></canvas><canvas id="c" class="wide" width="10"></canvas><canvas id="d" height="170px" width="x"></canvas>',
    '.wide{display:block;width:100%;height:90px}',
  );
  const sizes = ['a', 'b', 'd', 'c'].map((id) => {
    const { width, height } = byId(screen, id).box;
    return [width, height];
  });
  expect(sizes.slice(0, 3)).toEqual([
    [640, 200],
    [300, 150],
    [300, 170],
  ]);
  expect(sizes[3][0]).toBeGreaterThan(1000);
  expect(sizes[3][1]).toBe(90);
});

test('a canvas of which only the width is said is in proportion as high, at all widths of the window', async () => {
  const screen = await read(
    '<div class="card"><canvas id="a" width="80" height="20"></canvas></div><div class="card"><canvas id="b">A chart of loans</canvas></div>',
    'body{margin:0} .card{padding:20px} canvas{display:block;width:100%!important}',
  );
  const { width } = byId(screen, 'a').box;
  expect(byId(screen, 'a').box.height).toBeCloseTo(width / 4, 0);
  expect(byId(screen, 'b').box.height).toBeCloseTo(width / 2, 0);
  const { base, at, from } = byId(screen, 'a').style;
  expect(base).toMatchObject({ width: '100%', 'aspect-ratio': '80 / 20' });
  expect(base).not.toHaveProperty('height');
  expect([at, from].flatMap((table) => Object.values(table ?? {}))).toEqual([]);
});

test('what is emitted looks to a browser as the page did', async () => {
  const css =
    'body{margin:8px;font:16px/1.5 Georgia} .row{display:grid;grid-template-columns:repeat(3,minmax(0,1fr));gap:12px} .card{border:2px dashed #c33;border-radius:8px;padding:1em;background:linear-gradient(#fff,#eee)} h2{font-size:1.25em} ul{padding-left:24px;list-style:square}';
  const body =
    '<h1>Title</h1><div class="row"><div class="card"><h2 id="a">One</h2></div><div class="card">Two</div><div class="card" id="c"><ul><li>x<li>y</ul></div></div><table id="t"><tr><th>A<td>B</table><input id="i" value="v"><select id="s"><option>1<option selected>2</select>';
  const first = await read(body, css);
  const design = addToDesign(emptyDesign, { screens: [first], assets: [], notices: [] });
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, [first]));
  const html = printHtml(emitScreenOf(new EmissionPlan({ design, app }), first.key), () => '');
  const { screens } = await readBatch([{ path: 'again.html', bytes: new TextEncoder().encode(html) }], host);
  const boxes = (screen: Screen): unknown[] => {
    const list: unknown[] = [];
    walkElements(
      screen.root,
      (element) =>
        void (
          element.tag &&
          element !== screen.root &&
          !element.key.endsWith(':1') &&
          list.push([element.tag, element.box])
        ),
    );
    return list;
  };
  const [drawn, emitted] = [boxes(first), boxes(screens[0])];
  for (const box of drawn) expect(emitted).toContainEqual(box);
});

const fixtures = path.resolve(__dirname, '../../../e2e/fixtures/pages');
const fixture = async (): Promise<ReadonlyMap<string, Screen>> => {
  const files = readdirSync(fixtures).map((name) => ({
    path: name,
    bytes: new Uint8Array(readFileSync(path.join(fixtures, name))),
  }));
  const { screens } = await readBatch(files, host);
  return new Map(screens.map((screen) => [screen.key, screen]));
};
const find = (screen: Screen, test: (element: Element) => boolean): Element => {
  const found: Element[] = [];
  walkElements(screen.root, (element) => void (test(element) && found.push(element)));
  if (!found.length) throw new Error('no such element');
  return found[0];
};

test('what pages are made of survives', async () => {
  const survives = (await fixture()).get('survives')!;
  const styled = (property: string): Element => find(survives, (element) => property in element.style.base);
  expect(styled('clip-path').style.base['clip-path']).toMatch(/^polygon/);
  expect(styled('filter').style.base.filter).toBe('blur(1px) saturate(1.4)');
  expect(find(survives, ({ tag }) => tag === 'header').style.base).toMatchObject({
    position: 'sticky',
    'background-image': expect.stringMatching(/^linear-gradient\(90deg, rgb\(47, 74, 58\)/),
  });
  expect(find(survives, ({ style }) => style.base.position === 'fixed').name).toBe('Help');
  expect(styled('overflow-y').style.base['max-height']).toBe('120px');
  const picture = find(survives, ({ tag }) => tag === 'picture');
  expect(picture.children.map((child) => [child.tag, child.attributes?.media, !!child.asset])).toEqual([
    ['source', '(max-width: 600px)', true],
    ['img', undefined, true],
  ]);
  expect(find(survives, ({ tag }) => tag === 'details').attributes).toHaveProperty('open');
  expect(find(survives, ({ source }) => source.id === 'closed')).toMatchObject({
    tag: 'dialog',
    hidden: true,
  });
  expect(find(survives, ({ style }) => !!style.before).style.before).toMatchObject({ content: '"“"' });
  expect(find(survives, ({ tag }) => tag === 'textarea')).toBeTruthy();
});

test('an icon that is written by name is a drawing, and its font is not needed', async () => {
  const utility = (await fixture()).get('utility')!;
  const icon = find(utility, ({ kind }) => kind === 'vector');
  expect(icon.name).toBe('home');
  expect(icon.style.base).toMatchObject({ width: '1em', height: '1em', fill: 'currentcolor' });
  expect(icon.vector!.children[0].tag).toBe('path');
  const holder = find(utility, ({ children }) => children.includes(icon));
  expect(holder.style.base).not.toHaveProperty('font-family');
});

test('a drawing is called by its title, which shows nothing', async () => {
  const screen = await read(
    '<a href="#"><svg viewBox="0 0 9 9" width="9"><title> shop </title><path d="M0 0h9v9z"/></svg></a>',
  );
  const drawing = find(screen, ({ kind }) => kind === 'vector');
  expect(drawing.name).toBe('shop');
  expect(JSON.stringify(drawing.vector)).not.toContain('title');
});

test('lengths that grow with the window do so in each band of widths by its own rule', async () => {
  const screen = await read(
    '<p id="a">Fluid</p><p id="b">Fixed below</p>',
    '#a{font-size:calc(10px + 1vw)} #b{font-size:2vw} @media (max-width:800px){#a{font-size:calc(4px + 2vw)} #b{font-size:14px}}',
  );
  expect(byId(screen, 'a').style).toMatchObject({
    base: { 'font-size': 'calc(1vw + 10px)' },
    at: { '800': { 'font-size': 'calc(2vw + 4px)' } },
  });
  expect(byId(screen, 'b').style).toMatchObject({
    base: { 'font-size': '2vw' },
    at: { '800': { 'font-size': '14px' } },
  });
});

test('a length that follows the window within bounds stays as it is written', async () => {
  const screen = await read(
    '<h1 id="a">Bounded</h1><p id="b">At some width</p><p id="c" class="c">Elsewhere otherwise</p>',
    ':root{--gap:clamp(1rem,3vw,2rem)} #a{font-size:clamp(20px, 4vw, 40px);letter-spacing:-0.02em;padding:4px var(--gap)} #c{margin-inline:var(--gap)} @media (max-width:900px){#b{color:#ff0000} p#c{margin-left:7px}} @media (max-width:480px){#b{color:#0000ff}}',
  );
  const { base: own, at = {} } = byId(screen, 'a').style;
  expect(own).toMatchObject({
    'font-size': 'clamp(20px, 4vw, 40px)',
    'letter-spacing': '-0.02em',
    'padding-left': 'clamp(1rem, 3vw, 2rem)',
    'padding-top': '4px',
  });
  expect(at).toEqual({});
  expect(byId(screen, 'c').style).toMatchObject({
    base: { 'margin-left': 'clamp(1rem, 3vw, 2rem)', 'margin-right': 'clamp(1rem, 3vw, 2rem)' },
    at: { '900': { 'margin-left': '7px' } },
  });
});

test('where bounds are by more than the window, narrow windows are looked at, too', async () => {
  const screen = await read('<h1 id="a">Bounded</h1>', '#a{font-size:clamp(1.25em, 4vw, 2.5em)}');
  expect(byId(screen, 'a').style).toMatchObject({
    base: { 'font-size': '40px' },
    at: { '767': { 'font-size': '4vw' }, '479': { 'font-size': '20px' } },
  });
});

test('rules for a container are looked at at the usual widths', async () => {
  const screen = await read(
    '<div id="box"><p id="a">A</p></div>',
    '#box{container-type:inline-size} @container (max-width:500px){#a{color:#ff0000}}',
  );
  expect(Object.values(byId(screen, 'a').style.at ?? {})).toContainEqual({ color: 'rgb(255, 0, 0)' });
});

test('a margin that reaches past the body is held by the screen', async () => {
  const screen = await read('<div id="a">A</div>', 'body{margin:0;background:#eef} #a{margin:40px 0}');
  expect(screen.root.style.base.display).toBe('flow-root');
});

test('what slides out of a narrow window is read where it ends', async () => {
  const screen = await read(
    '<div id="bar">Menu</div>',
    '#bar { width: 200px; transition: margin-left 2s } @media (max-width: 600px) { #bar { margin-left: -200px } }',
  );
  expect(byId(screen, 'bar').style.at?.['600']).toEqual({ 'margin-left': '-200px' });
});

describe('what a page hides until something opens it', () => {
  test('a popover lies over the page as browsers let it', async () => {
    const screen = await read(
      '<button popovertarget="n">Note</button><div id="n" popover>Closed in August</div>',
      '#n{padding:9px}',
    );
    expect(base(screen, 'n')).toMatchObject({
      position: 'fixed',
      top: '0px',
      width: 'fit-content',
      'margin-left': 'auto',
      'border-top-style': 'solid',
      'padding-top': '9px',
    });
  });

  /** Whether it is hidden, and the look that it has when it is shown. */
  const seen = (screen: Screen, id: string): readonly [boolean, Declarations] => {
    const { hidden = false, style } = byId(screen, id);
    return [hidden, style.base];
  };

  test.each([
    [
      'by a class of its own',
      '.menu{display:none;color:#123456}.menu.show{display:block;margin-top:7px}',
      '',
    ],
    ['by what lacks a class', '.menu:not(.show){display:none}.menu{margin-top:7px}', ''],
    [
      'by a class of what it stands in',
      '.menu{display:none}.bar.open>.menu{display:block;margin-top:7px}',
      '',
    ],
    [
      'by its opacity, with a transition',
      '.bar .menu{opacity:0;pointer-events:none;transition:opacity 9s}@media(min-width:900px){.bar .menu.on{opacity:1;margin-top:7px}}',
      '',
    ],
    ['by its visibility', '.menu{visibility:hidden}.menu.is-open{visibility:visible;margin-top:7px}', ''],
    [
      'folded to nothing',
      '.menu{max-height:0;overflow:hidden}.menu.open{max-height:900px;margin-top:7px}',
      '',
    ],
    [
      'by a row of a grid that has no height',
      '.bar .menu{display:grid;grid-template-rows:0fr;transition:grid-template-rows 2s}.bar.open .menu{grid-template-rows:1fr;margin-top:7px}.menu>p{overflow:hidden;min-height:0;margin:0;padding:4px 0}',
      '',
    ],
    [
      'until what it stands in is pointed at',
      '.menu{opacity:0;pointer-events:none}.bar:hover>.menu{opacity:1;pointer-events:auto;margin-top:7px}',
      '',
    ],
    [
      'until what stands before it is pointed at',
      '.menu{display:none}button:hover + .menu, button:focus-within + .menu{display:block;margin-top:7px}',
      '',
    ],
    ['by an attribute', '.menu{margin-top:7px}', 'hidden'],
    ['by its own style', '.menu{margin-top:7px}', 'style="display:none"'],
  ])('%s', async (_, css, attributes) => {
    const screen = await read(
      `<div class="bar" id="bar"><button>Menu</button><div class="menu" id="menu" ${attributes}><p id="line">One line</p></div></div>`,
      css,
    );
    const [isHidden, look] = seen(screen, 'menu');
    expect(isHidden).toBe(true);
    expect(look['margin-top']).toBe('7px');
    expect(
      [look.display, look.opacity, look.visibility].filter((one) => /^(none|0|hidden)$/.test(one ?? '')),
    ).toEqual([]);
    expect(byId(screen, 'line').box.height).toBeGreaterThan(10);
    // Nothing stays as it was tried.
    expect(byId(screen, 'bar').box.height).toBeLessThan(60);
  });

  test.each([
    [
      'folded, until a box before it is ticked',
      '.menu{max-height:0;overflow:hidden}',
      'checkbox',
      '~ .menu{max-height:900px;margin-top:7px}',
    ],
    [
      'not there, until one of several is chosen',
      '.menu{display:none}',
      'radio',
      '~ .menu{display:block;margin-top:7px}',
    ],
  ])('%s: what ticks it names it, and nothing stays ticked', async (_, hides, type, shows) => {
    const screen = await read(
      `<div id="bar"><input type="${type}" name="one" id="box"><input type="${type}" name="one" id="other" checked><label for="box" id="label">More</label><div class="menu" id="menu"><p id="line">One line</p></div></div>`,
      `${hides}#box:checked ${shows}`,
    );
    const [isHidden, look] = seen(screen, 'menu');
    expect([isHidden, look['margin-top']]).toEqual([true, '7px']);
    expect(byId(screen, 'label').attributes?.['aria-controls']).toBe('menu');
    expect(['box', 'other'].map((id) => byId(screen, id).attributes?.checked)).toEqual([
      undefined,
      expect.anything(),
    ]);
    expect(byId(screen, 'bar').box.height).toBeLessThan(60);
  });

  test('what only narrow windows hide looks there as it does when it is opened', async () => {
    const screen = await read(
      '<nav class="nav" id="nav"><a href="#">Home</a></nav>',
      '.nav{display:flex}@media(max-width:600px){.nav{display:none}.nav.show{display:block}}',
    );
    const { hidden, style } = byId(screen, 'nav');
    expect([hidden, style.base.display, style.at?.[600]?.display, style.states]).toEqual([
      undefined,
      'flex',
      'none',
      { '[data-open]': { display: 'block' } },
    ]);
  });

  test.each([
    ['what nothing shows', '<div class="a" id="x" style="opacity:0"><b>Faint</b></div>', '.a{color:red}'],
    [
      'a field over its own drawing',
      '<label class="box"><input id="x" class="mark">Yes</label>',
      '.mark{opacity:0}.mark.show{opacity:1}',
    ],
    [
      'what clips',
      '<div class="a" id="x"><p>Text</p></div>',
      '.a{overflow:hidden;height:40px}.a.open{height:auto}',
    ],
  ])('%s is not hidden', async (_, body, css) => {
    expect(seen(await read(body, css), 'x')[0]).toBe(false);
  });
});

test('a state is read with the variables that it sets, and says nothing of what stays as it is', async () => {
  const screen = await read(
    '<input id="a" class="field"><i id="b" class="field">Not a field</i>',
    `.field{--ring:0 0 #0000;--tint:red;box-shadow:var(--ring), 0 0 #0000;color:var(--tint)}
     .field:focus{--ring:0 0 0 calc(1px + 1px) var(--tint, blue);--tint:rgb(13,148,136);box-shadow:var(--ring), 0 0 #0000;outline:2px solid transparent;color:red}
     .field:hover{--tint:red;color:var(--tint);border-color:var(--tint)} *::placeholder{color:gray}`,
  );
  const { base, hover, focus, placeholder } = byId(screen, 'a').style;
  expect(base).not.toHaveProperty('box-shadow');
  expect(focus).toEqual({
    'box-shadow': 'rgb(13, 148, 136) 0px 0px 0px 2px',
    'outline-color': 'rgba(0, 0, 0, 0)',
    'outline-style': 'solid',
    'outline-width': '2px',
  });
  expect(Object.keys(hover!).sort()).toEqual(
    ['bottom', 'left', 'right', 'top'].map((side) => `border-${side}-color`),
  );
  expect(placeholder).toEqual({ color: 'gray' });
  // Other elements have no placeholder to be drawn.
  expect(byId(screen, 'b').style.placeholder).toBeUndefined();
  // The page is left as it was.
  expect(byId(screen, 'a').attributes?.style).toBeUndefined();
});

test('a part of the width stays one in what is drawn before an element', async () => {
  const screen = await read(
    '<div id="a" style="--ratio:75%">Picture</div>',
    '#a{position:relative;width:200px;--tint:red} #a::before{content:"";display:block;padding-top:var(--ratio);margin-left:calc(var(--ratio) - 1px);color:var(--tint)}',
  );
  expect(byId(screen, 'a').style.before).toMatchObject({
    'padding-top': '75%',
    'margin-left': '149px',
    color: 'rgb(255, 0, 0)',
  });
});

test('longhands of what people write in one are all said where these are', async () => {
  const screen = await read(
    '<div style="display:flex"><b id="a">One</b></div>',
    '#a{white-space:nowrap;flex:1}',
  );
  expect(base(screen, 'a')).toMatchObject({
    'white-space-collapse': 'collapse',
    'text-wrap-mode': 'nowrap',
    'flex-grow': '1',
    'flex-shrink': '1',
    'flex-basis': '0%',
  });
});

test('of rules for what stands before an element the more special one wins, wherever it stands', async () => {
  const screen = await read(
    '<div id="a" class="shade">Shaded</div>',
    'body .shade::before{background:rgba(0,0,0,.75)} .shade::before{content:"";position:absolute;background-color:rgba(0,0,0,.3);width:10px!important} body .shade:hover{color:red} .shade:hover{color:blue} #a::before{width:20px}',
  );
  const { before, hover } = byId(screen, 'a').style;
  expect(before).toMatchObject({ 'background-color': 'rgba(0, 0, 0, 0.75)', width: '10px' });
  expect(hover).toEqual({ color: 'red' });
});

test('a box that is freed at some width goes back into the line it stood in', async () => {
  const screen = await read(
    '<a id="a">Brand</a><div id="row"><b id="b">Bold</b></div>',
    '#a{display:inline-block;position:fixed} #row{display:flex} @media (max-width:800px){#a{position:relative} #row{display:block}}',
  );
  expect(byId(screen, 'a').style).toMatchObject({
    base: { display: 'block', position: 'fixed' },
    at: { '800': { display: 'inline-block', position: 'relative' } },
  });
  expect(byId(screen, 'b').style.at).toEqual({ '800': { display: 'inline' } });
});

test('what a field of several lines holds is its text', async () => {
  const screen = await read('<textarea id="a" value="not shown">Two saws\nand a drill</textarea>', '');
  const field = byId(screen, 'a');
  expect(field.text).toBe('Two saws\nand a drill');
  expect(field.attributes ?? {}).not.toHaveProperty('value');
});

test('what lies beneath everything is still seen on a page that is painted', async () => {
  const screen = await read(
    '<div id="a">Behind</div>',
    'body{background:#123} #a{position:absolute;z-index:-1}',
  );
  expect(screen.root.style.base.isolation).toBe('isolate');
});

test('what stands before an element, and how it looks when it is hovered, is read as it is in this window', async () => {
  const screen = await read(
    '<a id="a" href="#">More</a>',
    '@media (min-width:768px){#a::after{content:"v"}} @media (hover:hover),(hover:none){#a:hover{color:red}} @media (max-width:700px){#a::before{content:"x"}}',
  );
  const { before, after, hover } = byId(screen, 'a').style;
  expect(after).toMatchObject({ content: '"v"' });
  expect(hover).toEqual({ color: 'red' });
  expect(before).toBeUndefined();
});

test.each([
  ['border-spacing:0 .7em', 'border-spacing', '0px 11px'],
  ['mask:linear-gradient(red,blue) no-repeat 10px 5px', 'mask-position', '10px 5px'],
  ['-webkit-text-stroke:1px red', '-webkit-text-stroke-width', '1px'],
])('what the browser calls otherwise is read: %s', async (declared, name, value) => {
  const css = `#a{border-collapse:separate;${declared}}`;
  const screen = await read('<table id="a"><tr><td>Saw</td></tr></table>', css);
  expect(base(screen, 'a')[name]).toBe(value);
});

test('room that a browser leaves by the size of letters is said where a page leaves another', async () => {
  const screen = await read(
    '<hr id="a"><hr id="b">',
    'body{font-size:14px}#a{margin-block:8px}#b{margin-block:7px}',
  );
  expect(base(screen, 'a')).toMatchObject({ 'margin-top': '8px', 'margin-bottom': '8px' });
  expect(Object.keys(base(screen, 'b')).filter((name) => name.startsWith('margin'))).toEqual([]);
});

test.each([
  [
    'only in narrow windows',
    '@media(max-width:700px){#a::before{content:attr(data-label);display:block;color:red}}',
    undefined,
    { content: '"To"', display: 'block', color: 'red' },
  ],
  [
    'otherwise there',
    '#a::before{content:"x";color:blue;display:block}@media(max-width:700px){#a::before{color:red}}',
    { content: '"x"', color: 'blue' },
    { color: 'red' },
  ],
  [
    'no longer there',
    '#a::before{content:"x"}@media(max-width:700px){#a::before{content:none}}',
    { content: '"x"' },
    { content: 'none' },
  ],
  [
    'only in wide ones',
    '@media(min-width:701px){#a::before{content:"x"}}',
    { content: '"x"' },
    { content: 'none' },
  ],
])('what is drawn before an element %s is read so', async (_, css, before, narrow) => {
  const { style } = byId(await read('<p id="a" data-label="To">Saw</p>', css), 'a');
  if (before) expect(style.before).toMatchObject(before);
  else expect(style.before).toBeUndefined();
  expect(style.states).toEqual({ '::before@700': narrow });
});

test('lengths that are parts of a container are read in narrow windows, too', async () => {
  const css = '#box{container-type:inline-size}#a{font-size:clamp(16px, 10cqi, 60px)}';
  const { style } = byId(await read('<div id="box"><p id="a">Saw</p></div>', css), 'a');
  expect(style.base['font-size']).toBe('60px');
  expect(parseFloat(style.at!['479']['font-size'].replace(/^calc\(/, ''))).toBeLessThan(60);
});

test('a mark is told the colour of what it stands in, since browsers give it another', async () => {
  const screen = await read('<p id="p"><mark id="a">Saw</mark></p>', '#p{color:rgb(1,2,3)}#a{color:inherit}');
  expect(base(screen, 'a').color).toBe('rgb(1, 2, 3)');
});

test.each([
  ['body{font-size:16px}', '16px'],
  ['body{font-size:14px}', undefined],
  ['', undefined],
  ['body{font-size:18px}pre{font-size:13px}', '13px'],
  ['body{font-size:18px}pre{font-size:13px;font-family:Monaco,monospace}', '13px'],
  ['pre{font-size:13px;font-family:Monaco,monospace}', '13px'],
  ['pre{font-family:Monaco,monospace}', undefined],
  ['body{font-size:18px}pre{font-family:Monaco,monospace}', undefined],
])(
  'letters that are all as wide are told their size where browsers would take another: %s',
  async (css, size) => {
    const screen = await read('<pre id="a">saw</pre>', css);
    expect(base(screen, 'a')['font-size']).toBe(size);
  },
);

test.each([
  ['h1{font-weight:700}b{font-weight:bold}', '700'],
  ['h1{font-weight:700}b{font-weight:bolder}', undefined],
  ['h1{font-weight:400}b{font-weight:bold}', undefined],
  ['h1{font-weight:300}b{font-weight:700}', '700'],
  ['h1{font-weight:400}b{font-weight:400}', '400'],
])('what is bolder than what it stands in is told only another weight: %s', async (css, weight) => {
  const screen = await read('<h1>One <b id="a">saw</b></h1>', css);
  expect(base(screen, 'a')['font-weight']).toBe(weight);
});

test('what lets a few lines be seen stays so', async () => {
  const screen = await read(
    `<p id="a">${'saw '.repeat(200)}</p>`,
    '#a{display:-webkit-box;-webkit-line-clamp:2;-webkit-box-orient:vertical;overflow:hidden}',
  );
  expect(base(screen, 'a')).toMatchObject({ display: '-webkit-box', '-webkit-line-clamp': '2' });
});

test('mixed colours are read as a screen shows them', async () => {
  const screen = await read('<p id="a">Saw</p>', '#a{color:color-mix(in srgb, #0ea5e9 50%, transparent)}');
  expect(base(screen, 'a').color).toBe('rgba(14, 165, 233, 0.5)');
});

test('what is seen while one points at its row keeps its place in it', async () => {
  const screen = await read(
    '<div class="row" id="row">Saw <span class="copy" id="copy"><i style="display:inline-block;height:40px">c</i></span></div>',
    '.copy{opacity:0}.row:hover .copy{opacity:1}',
  );
  const { hidden = false, style } = byId(screen, 'copy');
  expect(hidden).toBe(false);
  expect([style.base.opacity, style.hover]).toEqual(['0', { opacity: '1' }]);
});

test('scroll bars that a page dresses itself take no room in the window', async () => {
  const css =
    'html{scrollbar-gutter:stable;overflow-y:scroll}::-webkit-scrollbar{width:30px}#a{height:3000px}';
  const wide = byId(await read('<p id="a">Saw</p>', css), 'a').box.width;
  expect(wide).toBe(byId(await read('<p id="a">Saw</p>', '#a{height:3000px}'), 'a').box.width);
});

const spinner =
  '@keyframes turn{from{transform:rotate(10deg)}to{transform:rotate(370deg)}} @keyframes pulse{from{opacity:0}to{opacity:1}}';

test('what never stands still is read as it begins, or as it is midway where it begins unseen', async () => {
  const screen = await read(
    '<i id="a">a</i><i id="b">b</i><i id="c">c</i>',
    `${spinner} #a,#b{display:block} #a{transform:scale(1);animation:turn .3s linear infinite} #b{opacity:.9;animation:pulse 2s linear infinite}` +
      '#c{position:fixed;z-index:99999999}',
  );
  expect(base(screen, 'a').transform).toBe('rotate(10deg)');
  expect(base(screen, 'b').opacity).toBe('0.5');
  expect(base(screen, 'c')['z-index']).toBe('100000000');
});

test.each([
  ['html,body{height:100%;overflow-x:hidden}', 2000, 2000],
  ['html,body{height:100%}', 2000, 800],
  // It never scrolls.
  ['html,body{height:100%;overflow:hidden}', 800, 800],
])('a page is as high as it can be scrolled, also within its body: %s', async (css, height, own) => {
  const screen = await read('<div id="a"><b>Saws</b></div>', `${css} body{margin:0} #a{height:2000px}`);
  expect([screen.height, screen.root.box.height]).toEqual([height, own]);
});

test.each([
  ['<p>Please wait...</p>', 'background:#eee', true],
  ['<p>Please wait...</p>', 'background:rgba(0,0,0,.2)', false],
  ['<p>We use cookies.</p><button>Agree</button>', 'background:#eee', false],
])('what covers a page until a script takes it away stays out: %s %s', async (inner, look, isOut) => {
  const html = `<style>#w{position:fixed;inset:0;${look}}</style><div id="w">${inner}</div><a href="b.html">On</a>`;
  const { screens, notices } = await readBatch(
    [{ path: 'a.html', bytes: new TextEncoder().encode(html) }],
    host,
  );
  expect(byId(screens[0], 'w').hidden ?? false).toBe(isOut);
  expect(notices.some(({ message }) => message.includes('covers the whole page'))).toBe(isOut);
});

const PART = '<section id="w" class="part"><p style="height:40px">Saw</p></section>';
test.each<[what: string, html: string, css: string, isSeen: boolean]>([
  ['by a class of its own', PART, '.part{opacity:0}.part.loaded{opacity:1}', true],
  ['by a class that says more', PART, '.part{opacity:0}.part.loaded{opacity:1;color:#123456}', true],
  ['by a class of the page', PART, '.part{opacity:0}.loaded .part{opacity:1}', true],
  [
    'by a class that another part is called by',
    `${PART}<ul class="wide"><li>Rasp</li></ul>`,
    '.part{opacity:0}.wide .part{opacity:1}',
    false,
  ],
  ['by the loss of none', PART, '.part:not(.in){opacity:0}', true],
  ['by a class, slowly', PART, '.part{opacity:0;transition:opacity 2s}.part.loaded{opacity:1}', true],
  [
    'by a class where an attribute says that it fades in',
    PART.replace('class="part"', 'data-fades="up"'),
    '[data-fades]{opacity:0}[data-fades].in{opacity:1}',
    true,
  ],
  ['never', PART, '.part{opacity:0}', false],
  [
    'where it is pointed at',
    `<div class="row">${PART}</div>`,
    '.part{opacity:0}.part.on{opacity:1}.row:hover .part{opacity:1}',
    false,
  ],
  [
    'where something opens it',
    `<a href="#w">More</a>${PART}`,
    '.part{opacity:0}.part.open{opacity:1}',
    false,
  ],
  ['apart from the flow', PART, '.part{opacity:0;position:absolute}.part.open{opacity:1}', false],
  [
    'in the place of another',
    `<div style="display:grid"><p style="grid-area:1/1;height:40px">Drill</p><div style="grid-area:1/1">${PART}</div></div>`.replace(
      '<div style="grid-area:1/1"><section id="w" class="part">',
      '<div style="grid-area:1/1" id="w" class="part"><section>',
    ),
    '.part{opacity:0}.part.on{opacity:1}',
    false,
  ],
])('what is shown by a script %s is seen or not', async (_, html, css, isSeen) => {
  const { screens, notices } = await readBatch(
    [
      {
        path: 'a.html',
        bytes: new TextEncoder().encode(`<style>${css}</style>${html}<a href="b.html">On</a>`),
      },
    ],
    host,
  );
  const part = byId(screens[0], 'w');
  expect(!part.hidden && part.style.base.opacity !== '0').toBe(isSeen);
  if (css.includes('#123456')) expect(part.style.base.color).toBe('rgb(18, 52, 86)');
  expect(notices.some(({ message }) => message.includes('before a script shows it'))).toBe(isSeen);
});

test('a page that is nothing but its cover is read', async () => {
  const screen = await read('<div id="w">Loading</div>', '#w{position:fixed;inset:0;background:#eee}');
  expect(byId(screen, 'w').hidden).toBeUndefined();
});

test('what is behind a body that is smaller than the page is behind the page', async () => {
  const screen = await read(
    '<p>Sign in</p>',
    'body{max-width:360px;margin:5% auto;background-color:#00bcd4;color:#222} @media(max-width:600px){body{background-color:#fff}}',
  );
  const [body] = screen.root.children;
  expect(screen.root.style.base['background-color']).toBe('rgb(0, 188, 212)');
  expect(Object.values(screen.root.style.at ?? {})).toEqual([{ 'background-color': 'rgb(255, 255, 255)' }]);
  expect(body.style.base).not.toHaveProperty('background-color');
  expect(body.style.base.color).toBe('rgb(34, 34, 34)');
});
