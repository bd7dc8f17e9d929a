import fc from 'fast-check';
import { applyChange, putToken } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { printHtml } from '../emit/html/print_html.ts';
import type { Token } from '../model/app.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { exportTokens, importTokens } from './dtcg.ts';
import { hueName, mergedToken, proposeMerges, proposeTokens, valueUses } from './find.ts';
import { hexOf, kindOfProperty, normalValue, tokenCss, tokenLookup } from './values.ts';

const bar = (y: number, fill: string): string =>
  `<rect x="20" y="${y}" width="300" height="40" rx="8" fill="${fill}"/><text x="30" y="${y + 60}" font-size="14" fill="#1f2a24">Words</text>`;
const screen = screenOf(
  svg([0, 1, 2, 3, 4].map((i) => bar(20 + i * 90, i === 4 ? '#2f4b3a' : '#2f4a3a')).join('')),
  'home',
);
const project = projectOf(screen);

describe('values', () => {
  test.each([
    ['color', '#FFF', '#ffffff'],
    ['color', 'rgb(47, 74, 58)', '#2f4a3a'],
    ['color', 'rgba(0, 0, 0, 0.5)', '#00000080'],
    ['color', 'white', '#ffffff'],
    ['weight', 'bold', '700'],
    ['space', ' 8PX ', '8px'],
  ] as const)('%s %s is %s', (kind, value, normal) => expect(normalValue(kind, value)).toBe(normal));

  test.each([
    ['color', 'color'],
    ['border-top-color', 'color'],
    ['padding-left', 'space'],
    ['row-gap', 'space'],
    ['border-top-left-radius', 'radius'],
    ['font-weight', 'weight'],
    ['box-shadow', 'shadow'],
    ['width', null],
  ])('%s takes %s', (property, kind) => expect(kindOfProperty(property)).toBe(kind));

  test('any opaque colour is its own hexadecimal spelling', () => {
    fc.assert(
      fc.property(fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)), ([r, g, b]) => {
        const hex = hexOf([r, g, b, 1]);
        expect(normalValue('color', `rgb(${r}, ${g}, ${b})`)).toBe(hex);
        expect(normalValue('color', hex)).toBe(hex);
      }),
    );
  });

  test.each([
    ['#000000', 'gray-0'],
    ['#ffffff', 'gray-9'],
    ['#b3261e', 'red-3'],
    ['#0a6767', 'teal-3'],
  ])('%s is %s', (hex, name) => expect(hueName(hex)).toBe(name));
});

describe('what recurs', () => {
  test('four sides of one element are one use', () => {
    const radius = valueUses([screen]).find((use) => use.kind === 'radius')!;
    expect(radius).toMatchObject({ value: '8px', uses: 5 });
  });

  test('values that recur get names, each once', () => {
    const proposals = proposeTokens([screen], {});
    const names = proposals.map((proposal) => proposal.name);
    expect(new Set(names).size).toBe(names.length);
    expect(proposals.find(({ token }) => token.value === '#1f2a24')?.name).toBe('color-text');
    const tokens = Object.fromEntries(proposals.map(({ name, token }) => [name, token]));
    expect(proposeTokens([screen], tokens)).toEqual([]);
  });

  test('nearly equal values are proposed to be merged, the rarer into the more frequent', () => {
    const [merge] = proposeMerges([screen], {});
    expect(merge).toMatchObject({ kind: 'color', keep: '#2f4a3a', drop: '#2f4b3a' });
    expect(proposeMerges([screen], {}, { [merge.id]: true })).toEqual([]);
    const { name, token } = mergedToken({}, merge, 'color-green');
    expect(token).toEqual({ kind: 'color', value: '#2f4a3a', from: ['#2f4a3a', '#2f4b3a'] });
    expect(proposeMerges([screen], { [name]: token })).toEqual([]);
  });

  test('without merging, colours that can be told apart are left alone', () => {
    const other = screenOf(svg(bar(20, '#ff0000') + bar(120, '#ff0000') + bar(220, '#00ff00')), 'other');
    expect(proposeMerges([other], {})).toEqual([]);
  });
});

describe('in the app', () => {
  const token: Token = { kind: 'color', value: '#2f4a3a', from: ['#2f4a3a', '#2f4b3a'] };
  const app = applyChange(project.app, putToken('color-green', token));
  const html = (of: typeof app): string => {
    const plan = new EmissionPlan({ ...project, app: of });
    return printHtml(emitScreenOf(plan, 'home'), () => '', [], of.tokens);
  };

  test('all its values are the custom property', () => {
    expect(html(app)).toContain('--color-green: #2f4a3a;');
    expect(html(app)).toContain('background-color: var(--color-green)');
    expect(html(app)).not.toContain('#2f4b3a;');
  });

  test('another value shows everywhere and writes no screen anew', () => {
    const changed = applyChange(app, putToken('color-green', { ...token, value: '#123456' }));
    const [before, after] = [app, changed].map((of) =>
      emitScreenOf(new EmissionPlan({ ...project, app: of }), 'home'),
    );
    expect(after).toBe(before);
    expect(html(changed)).toContain('--color-green: #123456;');
  });

  test('the code has a style sheet of the tokens, taken in once', () => {
    const { files } = emitReact({ ...project, app }, 'demo');
    const text = (path: string): string =>
      (files.find((file) => file.path === path) as { text: string }).text;
    expect(text('src/styles/tokens.css')).toBe(':root {\n  --color-green: #2f4a3a;\n}\n');
    expect(text('src/main.tsx')).toContain("import './styles/tokens.css';");
  });

  test('without tokens only the colours that recur have names, after what they are', () => {
    expect(tokenCss({})).toBe('');
    expect(tokenLookup({})('color', '#fff')).toBeNull();
    const file = emitReact(project, 'demo').files.find(({ path }) => path === 'src/styles/tokens.css');
    const names = file && 'text' in file ? [...file.text.matchAll(/--([\w-]+): (.+);/g)] : [];
    expect(names.length).toBeGreaterThan(0);
    for (const [, name] of names) expect(name).toMatch(/^color-/);
  });
});

describe('JSON of the Design Tokens Community Group', () => {
  const tokens: Readonly<Record<string, Token>> = {
    'color-green': { kind: 'color', value: '#2f4a3a', from: ['#2f4a3a'] },
    'color-shade': { kind: 'color', value: '#00000080', from: ['#00000080'] },
    'text-body': { kind: 'size', value: '16px', from: ['16px'] },
    'weight-bold': { kind: 'weight', value: '700', from: ['700'] },
    'space-1': { kind: 'space', value: '8px', from: ['8px', '7.5px'] },
    'radius-1': { kind: 'radius', value: '6px', from: ['6px'] },
    'shadow-1': { kind: 'shadow', value: '0px 1px 2px 0px #00000080', from: ['0px 1px 2px 0px #00000080'] },
  };

  test('what is written comes back', () => {
    const { tokens: back, leftOut } = importTokens(exportTokens(tokens));
    expect(leftOut).toEqual([]);
    expect(back).toEqual(tokens);
  });

  test('values are objects as the format has them', () => {
    const json = JSON.parse(exportTokens(tokens)) as Record<string, Record<string, { $value: unknown }>>;
    expect(json.color['color-green'].$value).toEqual({
      colorSpace: 'srgb',
      components: [0.1843, 0.2902, 0.2275],
      hex: '#2f4a3a',
    });
    expect(json.space['space-1'].$value).toEqual({ value: 8, unit: 'px' });
    expect(json['font-weight']['weight-bold'].$value).toBe(700);
  });

  test('types come from groups, references are followed, older spellings are read', () => {
    const { tokens: read, leftOut } = importTokens(
      JSON.stringify({
        brand: { $type: 'color', main: { $value: '#112233' }, same: { $value: '{brand.main}' } },
        layout: {
          gap: { $type: 'dimension', $value: '12px' },
          corner: { radius: { $type: 'dimension', $value: { value: 4, unit: 'px' } } },
        },
        motion: { slow: { $type: 'duration', $value: '1s' } },
        loop: { $type: 'color', a: { $value: '{loop.b}' }, b: { $value: '{loop.a}' } },
      }),
    );
    expect(read['brand-same']).toMatchObject({ kind: 'color', value: '#112233' });
    expect(read['layout-gap']).toMatchObject({ kind: 'space', value: '12px' });
    expect(read['layout-corner-radius']).toMatchObject({ kind: 'radius', value: '4px' });
    expect(leftOut.map((what) => what.split(':')[0])).toEqual(['motion.slow', 'loop.a', 'loop.b']);
  });

  test.each([
    ['no JSON', 'color: red', /no JSON/],
    ['no object', '[1]', /no groups/],
  ])('%s is refused with a reason', (_, text, reason) => expect(() => importTokens(text)).toThrow(reason));

  test('a value that would leave its declaration is left out', () => {
    const { tokens: read, leftOut } = importTokens(
      JSON.stringify({ a: { $type: 'shadow', $value: '0 0 1px red; } body { display: none' } }),
    );
    expect(read).toEqual({});
    expect(leftOut).toHaveLength(1);
  });

  test('any tokens that can be named survive', () => {
    const any = fc.dictionary(
      fc.stringMatching(/^[a-z][a-z0-9-]{0,12}[a-z0-9]$/),
      fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)).map(([r, g, b]): Token => {
        const value = hexOf([r, g, b, 1]);
        return { kind: 'color', value, from: [value] };
      }),
      { noNullPrototype: true, maxKeys: 8 },
    );
    fc.assert(
      fc.property(any, (some) => {
        const names = Object.keys(some).filter(
          (name) => !/--|^-|-$/.test(name) && !/\d(?=[a-z])|[a-z](?=\d)/.test(name),
        );
        const plain = Object.fromEntries(names.map((name) => [name, some[name]]));
        expect(importTokens(exportTokens(plain)).tokens).toEqual(plain);
      }),
    );
  });
});
