import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { applyChange } from '../change/change.ts';
import { hashOf } from '../intake/files.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign } from '../model/design.ts';
import { projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { ArchiveError, packProject, packZip, unpackProject } from './archive.ts';
import { asWrittenNow } from './older.ts';
import { takeIn } from './take_in.ts';

describe('taking in', () => {
  test('names, routes, links and a start come from the design; the start stands first', () => {
    const link = screenOf(
      svg(
        '<a xlink:href="welcome.svg" id="Home"><rect width="90" height="30" fill="red"/></a><text y="600">x</text>',
      ),
      'about',
    );
    const { app } = projectOf(link, screenWith('welcome', 'Go'));
    expect(Object.entries(app.screens)).toEqual([
      ['welcome', { name: 'Welcome', route: '/welcome', use: 'screen', order: 1 }],
      ['about', { name: 'About', route: '/about', use: 'screen', order: 2 }],
    ]);
    expect(app.start).toBe('welcome');
    expect(Object.values(app.interactions)).toEqual([
      expect.objectContaining({ target: { kind: 'screen', screen: 'welcome' } }),
    ]);
  });

  test('what comes later keeps away from the names and routes that are there', () => {
    const first = projectOf(screenWith('home', 'Go'));
    const more = { ...screenWith('other', 'Go'), name: 'Home' };
    const design = { ...first.design, screens: [...first.design.screens, more] };
    const app = applyChange(first.app, takeIn({ design, app: first.app }, [more]));
    expect(app.screens.other).toMatchObject({ name: 'Home 2', route: '/home-2', order: 2 });
    expect(app.start).toBe('home');
  });
});

describe('a .tovel file', () => {
  const picture = strToU8('picture');
  const project = projectOf(screenWith('home', 'Go'));
  const asset = { hash: hashOf(picture), type: 'image/png', size: picture.length, file: 'a.png' };
  const whole = {
    ...project,
    name: 'Test',
    design: { ...project.design, assets: [asset] },
    bytes: new Map([[asset.hash, picture]]),
  };

  test('gives back what went in, and the same bytes for the same project', () => {
    const packed = packProject(whole);
    expect(unpackProject(packed)).toEqual(whole);
    expect(packProject(unpackProject(packed))).toEqual(packed);
  });

  const file = (design: unknown, app: unknown = emptyApp): Uint8Array =>
    packZip([
      { path: 'design.json', bytes: strToU8(JSON.stringify(design)) },
      { path: 'app.json', bytes: strToU8(JSON.stringify(app)) },
    ]);
  const withRoot = (part: object): unknown => ({
    ...project.design,
    screens: [{ ...project.design.screens[0], root: { ...project.design.screens[0].root, ...part } }],
  });

  test.each([
    ['not a zip', strToU8('hello'), /not a .tovel file/],
    ['without a design', packZip([{ path: 'app.json', bytes: strToU8('{}') }]), /holds no design.json/],
    ['another format', file({ ...emptyDesign, format: 'x' }), /design.json: format/],
    [
      'a script as an element',
      file(withRoot({ tag: 'script' })),
      /screens\/0\/root\/tag: expected an HTML element, not “script”/,
    ],
    [
      'a tag that breaks out',
      file(withRoot({ tag: 'p><script' })),
      /screens\/0\/root\/tag: expected an HTML element/,
    ],
    ['an event attribute', file(withRoot({ attributes: { onclick: 'x' } })), /has no attribute “onclick”/],
    [
      'code as the name of an attribute',
      file(withRoot({ attributes: { "a={alert('x')} b": '' } })),
      /a=\{alert/,
    ],
    [
      'markup as the name of an attribute',
      file(withRoot({ attributes: { 'x"><img src=x onerror=a': '' } })),
      /expected a name/,
    ],
    [
      'markup that React would set',
      file(withRoot({ attributes: { dangerouslySetInnerHTML: 'x' } })),
      /has no attribute/,
    ],
    ['an address that runs', file(withRoot({ attributes: { href: 'java\nscript:x' } })), /no value of href/],
    ['a text that is none', file(withRoot({ text: {} })), /root\/text: expected a text/],
    [
      'a drawing without an element',
      file(withRoot({ vector: { tag: '', attributes: {}, children: [] } })),
      /vector\/tag/,
    ],
    [
      'a drawing that leads to a script',
      file(withRoot({ vector: { tag: 'use', attributes: { href: 'javascript:x' }, children: [] } })),
      /no value of href/,
    ],
    [
      'a style that fetches',
      file(withRoot({ style: { base: { 'background-image': 'url(http://127.0.0.1/)' } } })),
      /holds “url\(http/,
    ],
    [
      'a style that ends its rule',
      file(withRoot({ style: { base: { color: 'red;}*{color:red' } } })),
      /holds “;”/,
    ],
    [
      'a state that is a selector',
      file(withRoot({ style: { base: {}, states: { ':hover, *': {} } } })),
      /:hover, \*/,
    ],
    ['a field that nobody knows', file(withRoot({ onclick: 'x' })), /root\/onclick: is no field/],
    [
      'a font that ends its rule',
      file({ ...emptyDesign, fonts: [{ family: 'a"}', weight: '400', style: 'normal', asset: asset.hash }] }),
      /fonts\/0\/family/,
    ],
    [
      'an asset of another type',
      file({ ...emptyDesign, assets: [{ ...asset, type: 'text/javascript' }] }),
      /assets\/0\/type/,
    ],
    [
      'a key twice',
      file({ ...emptyDesign, screens: [project.design.screens[0], project.design.screens[0]] }),
      /stands twice/,
    ],
    [
      'an app with a script address',
      file(emptyDesign, {
        ...emptyApp,
        interactions: {
          a: { on: 'press', arrival: { kind: 'none' }, target: { kind: 'external', href: 'javascript:x' } },
        },
      }),
      /app.json: .*external address/,
    ],
    [
      'an app of another shape',
      file(emptyDesign, { ...emptyApp, screens: [] }),
      /app.json: screens: expected an object/,
    ],
    [
      'a condition that is code',
      file(emptyDesign, { ...emptyApp, variables: { c: { name: 'C', initial: '(()=>fetch("x"))()' } } }),
      /app.json: variables\/c: expected true or false/,
    ],
    [
      'a redirect to nothing',
      file(emptyDesign, { ...emptyApp, redirects: { '/a': {} } }),
      /redirects\/\/a\/to: is missing/,
    ],
    [
      'a redirect that is no path',
      file(emptyDesign, { ...emptyApp, redirects: { '/a<b': { to: 'x' } } }),
      /redirects\/\/a<b/,
    ],
    [
      'a layout of nothing',
      file(emptyDesign, { ...emptyApp, layouts: { a: { name: 'A', screens: [] } } }),
      /layouts\/a\/screens/,
    ],
    [
      'a journey of another shape',
      file(emptyDesign, {
        ...emptyApp,
        journeys: { a: { name: 'A', start: 'x', steps: [{ kind: 'run' }] } },
      }),
      /journeys\/a\/steps\/0\/kind/,
    ],
    [
      'a synonym that is no text',
      file(emptyDesign, { ...emptyApp, synonyms: { a: ['b'] } }),
      /synonyms\/a: expected a text/,
    ],
    ['a table that nobody knows', file(emptyDesign, { ...emptyApp, scripts: {} }), /scripts: is no field/],
    ['a start that is no key', file(emptyDesign, { ...emptyApp, start: {} }), /app.json: start/],
  ])('%s is refused in words', (_, bytes, message) => expect(() => unpackProject(bytes)).toThrow(message));

  test('a file of before opens: what was plain but is not written any more is written as it is now', () => {
    const old = file(
      withRoot({
        tag: 'my-card',
        attributes: { 'data-x': '1', 'aria-grabbed': 'true', title: 'T', disabled: '' },
      }),
    );
    expect(unpackProject(old).design.screens[0].root).toMatchObject({
      tag: 'div',
      attributes: { title: 'T' },
    });
    const { design } = unpackProject(old);
    expect(asWrittenNow(design)).toBe(design);
  });

  test('an asset that is not what its name says is left out', () => {
    const packed = packProject({ ...whole, bytes: new Map([[asset.hash, strToU8('other')]]) });
    expect(unpackProject(packed).bytes.size).toBe(0);
  });

  test('damaged bytes end in a project or in words', () => {
    const packed = packProject(whole);
    fc.assert(
      fc.property(fc.nat(packed.length - 1), fc.nat(255), (at, value) => {
        const bytes = packed.slice();
        bytes[at] = value;
        try {
          unpackProject(bytes);
        } catch (error) {
          expect(error).toBeInstanceOf(ArchiveError);
        }
      }),
    );
  });
});
