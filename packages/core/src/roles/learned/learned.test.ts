import fc from 'fast-check';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { inferByRules, inferRoles } from '../infer.ts';
import { sightOf } from '../sight.ts';
import { companyOf } from './company_traits.ts';
import { LETTERS, likely } from './model.ts';
import { range } from './say.ts';
import { ALWAYS, traitsOf } from './traits.ts';
import { CLASSES, SHARES, WEIGHTS } from './weights.ts';

const BUTTON =
  'cursor:pointer;background-color:#246;border-top-left-radius:6px;padding-left:16px;padding-top:8px;text-align:center;color:#fff;display:inline-block';
const FIELD =
  'border-top-width:1px;border-right-width:1px;border-bottom-width:1px;border-left-width:1px;border-top-style:solid;border-right-style:solid;border-bottom-style:solid;border-left-style:solid;color:#8a8a8a;padding-left:12px;padding-top:8px;display:block';
const sentence =
  'Every shed opens at nine and closes at six, every day but Monday, and nobody has to ask for a key.';

/** A page whose tags say nothing. */
const untold = `<div style="display:block" data-box="0 0 1280 60"><div style="cursor:pointer;color:#06c" data-box="20 10 80 40">Tools</div><div style="cursor:pointer;color:#06c" data-box="120 10 80 40">Sheds</div><div style="cursor:pointer;color:#06c" data-box="220 10 80 40">Members</div></div>
<div style="display:block" data-box="0 60 1280 700"><div style="font-size:32px;font-weight:700;margin-bottom:16px;display:block" data-box="20 80 1000 44">Tools in the sheds</div>
<div style="margin-bottom:16px;display:block" data-box="20 140 1000 60">${sentence}</div>
<div style="margin-bottom:16px;display:block" data-box="20 210 1000 60">${sentence}</div>
<div style="${FIELD}" data-box="20 300 300 38">Search tools</div>
<div style="${BUTTON}" data-box="340 300 120 38">Search</div></div>`;

const rolesOf = (html: string): Record<string, string> => {
  const screen = pageOfHtml(html);
  const guesses = inferRoles(screen);
  return Object.fromEntries(
    sightOf(screen).all.flatMap(({ element, text }) => {
      const role = guesses.get(element.key)?.role;
      return role ? [[text.slice(0, 20), role]] : [];
    }),
  );
};

test('a page whose tags say nothing is told by what is so on other pages', () => {
  expect(rolesOf(untold)).toMatchObject({
    Tools: 'link',
    Sheds: 'link',
    'Tools in the sheds': 'heading',
    [sentence.slice(0, 20)]: 'paragraph',
    'Search tools': 'textbox',
  });
});

test('where tags tell most of a page, only they and the rules count', () => {
  const screen = pageOfHtml(
    `<h1>Tools</h1><p>${sentence}</p><a href="x.html">Sheds</a><div class="btn" style="${BUTTON}">Lend it</div>`,
  );
  const roles = (guesses: ReturnType<typeof inferByRules>): string[] =>
    [...guesses].map(([key, { role, confidence }]) => `${key} ${role} ${confidence}`);
  expect(roles(inferRoles(screen))).toEqual(roles(inferByRules(screen)));
});

test('every guess says why, in words', () => {
  for (const { reason, confidence } of inferRoles(pageOfHtml(untold)).values()) {
    expect(reason).toMatch(/\w{2}/);
    expect(reason).not.toMatch(/undefined|at first|kind box/);
    expect(confidence).toBeGreaterThanOrEqual(0.35);
  }
});

test.each([
  [0, 'below 1'],
  [1, 'below 4'],
  [3.9, 'below 4'],
  [4, 'from 4'],
  [100, 'from 4'],
])('%d falls into a range', (value, word) => {
  expect(range(value, [1, 4])).toBe(word);
});

describe('traits', () => {
  const traitsAt = (html: string, text: string): ReadonlySet<string> => {
    const sight = sightOf(pageOfHtml(html));
    const company = companyOf(sight, () => null);
    return traitsOf(
      sight.all.find((s) => s.text === text && s.parent)!,
      sight,
      company,
    );
  };
  test.each([
    ['what can be pressed', `<div style="cursor:pointer">Go</div><b>x</b>`, 'Go', 'pointed at'],
    [
      'what is in it',
      `<div style="cursor:pointer"><i>Go</i> now</div><b>x</b>`,
      'Go',
      'within what is pointed at',
    ],
    [
      'large and bold',
      `<div style="font-size:30px;font-weight:700">Go</div><p>${sentence}</p>`,
      'Go',
      'large and bold',
    ],
    ['a ground', `<div style="background-color:#eee">Go</div><b>x</b>`, 'Go', 'ground'],
    ['a bright ground', `<div style="background-color:#06c">Go</div><b>x</b>`, 'Go', 'colourful ground'],
    ['its words', `<div class="btn primary">Go</div><b>x</b>`, 'Go', 'called btn primary'],
    ['words around it', `<div class="card"><div>Go</div><i>x</i></div>`, 'Go', 'in what is called card'],
    ['an only child', `<div><div>Go</div> now</div><b>x</b>`, 'Go', 'only child'],
    [
      'the chosen one',
      `<div><div style="color:#f00">A</div><div>B</div><div>C</div></div>`,
      'A',
      'the one that looks otherwise',
    ],
    ['a sentence', `<div>It is so.</div><b>x</b>`, 'It is so.', 'ends like a sentence'],
    ['whose it is', `<div><div>© Mossgate</div><i>x</i></div><b>y</b>`, '© Mossgate x', 'says whose it is'],
  ])('%s', (_, html, text, trait) => {
    expect([...traitsAt(html, text)]).toContain(trait);
  });

  test('words that a machine made are no traits', () => {
    const traits = [...traitsAt(`<div class="k3129 css1x2">Go</div><b>x</b>`, 'Go')];
    expect(traits.filter((trait) => trait.startsWith('called'))).toEqual([]);
  });

  test('each holds once', () => {
    expect(traitsAt(`<div class="a btn btn">Go</div><b>x</b>`, 'Go')).toContain(ALWAYS);
  });
});

describe('what was learned', () => {
  test('only speaks of classes that there are', () => {
    for (const text of Object.values(WEIGHTS)) {
      expect(text).toMatch(/^([a-zA-Z]-?\d+)+$/);
      for (const letter of text.match(/[a-zA-Z]/g)!)
        expect(LETTERS.indexOf(letter)).toBeLessThan(CLASSES.length);
    }
  });

  test('what is likelier was right more often', () => {
    expect(SHARES.map(([from]) => from)).toEqual(SHARES.map(([from]) => from).toSorted((a, b) => a - b));
  });

  test('any traits come to one role, or none, with a share', () => {
    const traits = Object.keys(WEIGHTS);
    fc.assert(
      fc.property(fc.subarray(traits, { maxLength: 60 }), fc.array(fc.string()), (held, others) => {
        const said = likely([...held, ...others.map((word) => `of nobody ${word}`)]);
        expect(said).toEqual(likely(held));
        expect(said.share).toBeGreaterThanOrEqual(0);
        expect(said.share).toBeLessThanOrEqual(1);
        for (const trait of said.tells) expect(held).toContain(trait);
      }),
    );
  });
});
