import { screenOf, svg } from '../../testing/build.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import type { Design, Screen } from '../../model/design.ts';
import { emptyDesign } from '../../model/design.ts';
import { proposeLinks } from './propose.ts';
import { wordLikeness, wordsIn } from './words.ts';

const designOf = (...screens: Screen[]): Design => ({ ...emptyDesign, screens });
const heading = (text: string): string =>
  `<text x="24" y="60" font-size="26" font-weight="700" fill="#222">${text}</text>`;
const body =
  '<text x="24" y="400" font-size="14">The sheds are open from nine to six, every day but Monday.</text><text x="24" y="440" font-size="14">Ask at the desk when something is missing from a box.</text>';
const button = (y: number, label: string): string =>
  `<g data-name="${label} button"><rect x="24" y="${y}" width="342" height="48" rx="8" fill="#234"/><text x="195" y="${y + 30}" font-size="16" text-anchor="middle" fill="#fff">${label}</text></g>`;
const menu = (labels: readonly string[], active: string): string =>
  `<g id="Tab_bar" data-name="Tab bar"><rect y="772" width="390" height="72" fill="#fff"/>${labels
    .map((label, i) => {
      const x = (390 / labels.length) * (i + 0.5);
      return `<g data-name="Tab ${label}"><rect x="${x - 12}" y="784" width="24" height="24" rx="4" fill="#ccc"/><text x="${x}" y="830" font-size="12" text-anchor="middle" font-weight="${label === active ? 700 : 400}" fill="${label === active ? '#0a6' : '#777'}">${label}</text></g>`;
    })
    .join('')}</g>`;

/** The best target of what is called this on a screen. */
function targetOf(
  design: Design,
  screen: string,
  label: string,
): { to: string; confidence: number; reason: string } | null {
  const found = proposeLinks(design).filter(
    (proposal) => proposal.element.startsWith(`${screen}:`) && proposal.reason.includes(label),
  );
  return found[0] ?? null;
}

describe('words', () => {
  test.each([
    ['Sign in to your desk', ['login', 'desk']],
    ['Log-in', ['login']],
    ['Forgotten password?', ['password']],
    ['My loans', ['loan']],
    ['Categories & tools', ['category', 'tool']],
    ['Read more', []],
    ['ToolDetail', ['tool', 'detail']],
  ])('%s', (text, words) => expect(wordsIn(text)).toEqual(words));

  const even = (): number => 1;
  test.each([
    [['loan'], ['loan'], 1],
    [['loan'], ['tool'], 0],
    [[], ['tool'], 0],
  ])('%j against %j', (a, b, likeness) => expect(wordLikeness(a, b, even)).toBe(likeness));
  test('the whole of a name says more than a part of it, rare words more than frequent ones', () => {
    expect(wordLikeness(['loan'], ['loan', 'old'], even)).toBeGreaterThan(
      wordLikeness(['loan', 'new'], ['loan', 'old'], even),
    );
    const rare = (word: string): number => (word === 'tool' ? 0.1 : 1);
    expect(wordLikeness(['tool', 'saw'], ['tool', 'drill'], rare)).toBeLessThan(
      wordLikeness(['tool', 'saw'], ['tool', 'drill'], even),
    );
  });
});

test('a button leads to the screen that is called like it', () => {
  const design = designOf(
    screenOf(svg(heading('Welcome') + body + button(500, 'House rules')), 'welcome'),
    screenOf(svg(heading('House rules') + body), 'house-rules'),
    screenOf(svg(heading('Loans') + body), 'loans'),
  );
  expect(targetOf(design, 'welcome', 'House rules')).toMatchObject({ to: 'house-rules' });
  expect(targetOf(design, 'welcome', 'House rules')!.confidence).toBeGreaterThan(0.7);
});

test('the marked entry of a menu says where its label leads, also where nothing else does', () => {
  const labels = ['Sheds', 'Box', 'Desk'];
  const screens = labels.map((label, i) =>
    screenOf(svg(heading(`Part ${'abc'[i]}`) + body + menu(labels, label)), `screen-0${i + 1}`),
  );
  const design = designOf(...screens);
  for (const from of screens)
    labels.forEach((label, i) => {
      expect(targetOf(design, from.key, `“${label}”`)).toMatchObject({
        to: `screen-0${i + 1}`,
        reason: expect.stringContaining('marked entry') as string,
      });
    });
});

test('what has the name of no screen leads nowhere', () => {
  const design = designOf(
    screenOf(svg(heading('Welcome') + body + button(500, 'Print labels')), 'welcome'),
    screenOf(svg(heading('Loans') + body), 'loans'),
  );
  expect(targetOf(design, 'welcome', 'Print')).toBeNull();
});

test('who has signed in comes to the first screen', () => {
  const design = designOf(
    screenOf(svg(heading('Home') + body + button(500, 'Sign in')), 'home'),
    screenOf(svg(heading('Sign in') + body + button(500, 'Sign in')), 'sign-in'),
  );
  const proposals = proposeLinks(design);
  const best = (screen: string): string | undefined =>
    proposals.find((proposal) => proposal.element.startsWith(`${screen}:`))?.to;
  expect(best('home')).toBe('sign-in');
  expect(best('sign-in')).toBe('home');
});

test('for each element the best comes first, with a confidence and a reason', () => {
  const design = designOf(
    screenOf(svg(heading('Welcome') + body + button(500, 'Loans')), 'welcome'),
    screenOf(svg(heading('My loans') + body), 'my-loans'),
    screenOf(svg(heading('Loan rules') + body), 'loan-rules'),
  );
  const proposals = proposeLinks(design);
  expect(proposals.length).toBeGreaterThan(1);
  for (const [i, proposal] of proposals.entries()) {
    expect(proposal.confidence).toBeGreaterThan(0);
    expect(proposal.confidence).toBeLessThan(1);
    expect(proposal.reason).not.toBe('');
    const before = proposals[i - 1];
    if (before?.element === proposal.element)
      expect(before.confidence).toBeGreaterThanOrEqual(proposal.confidence);
  }
  expect(proposals[0].to).toBe('my-loans');
});

test('a design without screens has no proposals', () => expect(proposeLinks(emptyDesign)).toEqual([]));

test('the entries of a menu in another language lead where those with the same icons lead on other screens', () => {
  const icons = ['M2 2h20v20z', 'M4 4c6 6 9 9 12 2z', 'M1 9l8 8 8-8z', 'M3 3v18h18z'];
  const bar = (labels: readonly string[]): string =>
    `<g id="Tab_bar" data-name="Tab bar"><rect y="772" width="390" height="72" fill="#fff"/>${labels
      .map(
        (label, i) =>
          `<g data-name="Tab ${label}"><path transform="translate(${97 * i + 36} 780)" d="${icons[i]}" fill="#345"/><text x="${97 * i + 48}" y="830" font-size="12" text-anchor="middle">${label}</text></g>`,
      )
      .join('')}</g>`;
  const labels = ['Catalogue', 'Loans', 'Sheds', 'Members'];
  const screens = labels.map((label) =>
    screenOf(svg(`${heading(label)}${body}${bar(labels)}`), label.toLowerCase()),
  );
  const turkish = screenOf(
    svg(`${heading('Merhaba')}${body}${bar(['Katalog', 'Ödünç', 'Depolar', 'Üyeler'])}`),
    'tr',
  );
  const found = proposeLinks(designOf(...screens, turkish)).filter(({ element }) =>
    element.startsWith('tr:'),
  );
  expect(found.map(({ to, reason }) => [to, reason])).toEqual(
    labels.map((label) => [
      label.toLowerCase(),
      expect.stringMatching(/^the same entry of this menu leads there on \d other screens$/),
    ]),
  );
});

describe('cards', () => {
  const card = (title: string, more: string): string =>
    `<div class="card"><header><p class="card-title"><span>${title}</span> <small>v2</small></p></header><p>Whatever there is to say.</p><footer>${more}</footer></div>`;
  const gallery = (more: string): Design =>
    designOf(
      pageOfHtml(
        `<h1>All</h1><div class="column">${['Sheds', 'Loans', 'Tools'].map((one) => card(one, more)).join('')}</div>`,
        'all',
      ),
      pageOfHtml('<h1>Sheds</h1><p>Where they are.</p>', 'sheds'),
      pageOfHtml('<h1>Loans</h1><p>Who has what.</p>', 'loans'),
      pageOfHtml('<h1>Tools</h1><p>What there is.</p>', 'tools'),
    );
  test.each([
    ['that one goes on', '<a href="#">Preview</a>', ['sheds', 'loans', 'tools']],
    [
      'nothing, being a picture',
      '<a href="#"><img src="a.png" width="20" height="20"></a>',
      ['sheds', 'loans', 'tools'],
    ],
    ['what it does', '<a href="#">Delete</a>', []],
    ['a number', '<a href="#">12</a>', []],
  ])('what says %s leads to what its card is called after', (_, more, expected) => {
    const found = proposeLinks(gallery(more)).filter(
      ({ element, confidence }) => element.startsWith('all:') && confidence >= 0.5,
    );
    expect(found.map(({ to }) => to).sort()).toEqual([...expected].sort());
  });
});
