import type { TestedChange } from './changes.ts';
import type { TestedDeed } from './deeds.ts';
import type { TestedForm } from './forms.ts';
import type { TestedGesture } from './gestures.ts';
import type { TestedLink } from './links.ts';
import type { TestedList } from './lists.ts';

/** What an app's own tests try of its behaviour. */
export interface TestedBehaviour {
  readonly lists: readonly TestedList[];
  readonly forms: readonly TestedForm[];
  readonly deeds: readonly TestedDeed[];
  readonly changes: readonly TestedChange[];
  readonly gestures: readonly TestedGesture[];
}

export const hasBehaviour = (behaviour: TestedBehaviour): boolean =>
  Object.values(behaviour).some(({ length }) => length > 0);

const json = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;
export const linksJson = (links: readonly TestedLink[]): string => json(links);
export const behaviourJson = (behaviour: TestedBehaviour): string => json(behaviour);

/** Presses each link listed in links.json where it stands, and looks where that leads. */
export const linksTest = (hasVariables: boolean): string =>
  `import { expect, test, vi } from 'vitest';
import links from './links.json';
import { hasScreen, open } from './testing/app';
import { calledSo, type ListedLink } from './testing/page';

test.each(links as ListedLink[])('$from: $name → $to', async (link) => {
  const { from, role, name, at = 0, to, kind${hasVariables ? ', given' : ''} } = link;
  const app = await open(from${hasVariables ? ', given' : ''});
  const pressed = calledSo(app.container, role, name)[at];
  expect(pressed, \`the \${role} “\${name}” stands on \${from}\`).toBeDefined();
  if (kind === 'drawer') {
    expect(app.container.querySelector(to)).not.toBeNull();
    return;
  }
  if (kind === 'external') {
    expect(pressed.getAttribute('href') ?? to).toBe(to);
    return;
  }
  if (kind === 'file') {
    expect(pressed.getAttribute('download') ?? to).toBe(to);
    return;
  }
  await app.does(() => pressed.click());
  if (kind === 'open') {
    await vi.waitFor(() => expect(app.container.querySelector(\`#overlay-\${to}\`)).not.toBeNull());
    return;
  }
  // Screens are loaded when somebody comes there.
  await vi.waitFor(() => expect(app.address()).toBe(to), { timeout: 30_000 });
  expect(hasScreen(to)).toBe(true);
  const [, place] = to.split('#');
  if (place) await vi.waitFor(() => expect(app.container.querySelector(\`#\${place}\`)).not.toBeNull());
});

test('every path that is linked to has a screen', () => {
  for (const { to, kind } of links as ListedLink[])
    if (kind === 'go' || kind === 'back') expect(hasScreen(to), to).toBe(true);
});
`;

/** How the tests of an app are written. */
interface Written {
  /** Whether there is something that can be given before. */
  readonly hasVariables: boolean;
  /** Whether something is tried in what opens over screens. */
  readonly opensOver: boolean;
}

/** Asks lists, fills in forms, presses, enters and chooses what does something, and looks whether what is listed in behaviour.json comes about. */
export function behaviourTest(behaviour: TestedBehaviour, hasVariables: boolean): string {
  const { lists, forms, deeds, changes, gestures } = behaviour;
  const inPlace = [...forms, ...deeds, ...changes, ...gestures];
  const how = { hasVariables, opensOver: inPlace.some((one) => 'opens' in one) };
  const tests = [
    ...(lists.length ? [listsTest(how)] : []),
    ...(forms.some(({ needs }) => needs.length) ? [needsTest(how)] : []),
    ...(forms.some(({ filled }) => filled) ? [filledTest(how)] : []),
    ...(deeds.length ? [deedsTest(how)] : []),
    ...(changes.length ? [changesTest(how)] : []),
    ...(gestures.length ? [gesturesTest(how)] : []),
  ];
  const body = [...(how.opensOver ? [openedText(how)] : []), ...tests].join('');
  const isCalled = (name: string): boolean => new RegExp(`\\b${name}\\b`).test(body);
  const watches = isCalled('watched');
  const kinds = [
    ...(lists.length ? [['lists', 'ListedList']] : []),
    ...(forms.length ? [['forms', 'ListedForm']] : []),
    ...(deeds.length ? [['deeds', 'ListedDeed']] : []),
    ...(changes.length ? [['changes', 'ListedChange']] : []),
    ...(gestures.length ? [['gestures', 'ListedGesture']] : []),
  ];
  const types = [...kinds.map(([, type]) => type), ...(how.opensOver ? ['Opening'] : [])].sort();
  const helpers = [
    'calledSo',
    'clear',
    'enter',
    'fieldCalled',
    'fillIn',
    'formWith',
    'saying',
    'timesIn',
  ].filter(isCalled);
  const ofVitest = [
    'expect',
    ...(isCalled('onTestFinished') ? ['onTestFinished'] : []),
    'test',
    ...(isCalled('vi') || watches ? ['vi'] : []),
  ];
  return `import { ${ofVitest.join(', ')} } from 'vitest';
import behaviour from './behaviour.json';
import { open${watches ? ', type OpenApp' : ''} } from './testing/app';
import type { ${types.join(', ')} } from './testing/behaviour';
${watches ? "import { type Effect, effectSeen } from './testing/effects';\n" : ''}${gestures.length ? "import { gesture } from './testing/gestures';\n" : ''}import { ${helpers.join(', ')} } from './testing/page';

const { ${kinds.map(([name]) => name).join(', ')} } = behaviour as unknown as {
${kinds.map(([name, type]) => `  ${name}: ${type}[];`).join('\n')}
};
${watches ? WATCHED : ''}${body}`;
}

const WATCHED = `
/** Does something, and waits until what is to come about has. */
async function watched(app: OpenApp, does: readonly Effect[], act: () => void) {
  const before = await app.moment();
  await app.does(act);
  await vi.waitFor(
    async () => {
      const now = await app.moment();
      expect(does.map((effect) => effectSeen(effect, now, before))).toEqual(does);
    },
    { timeout: 30_000 },
  );
}
`;

/** What a test takes of what is listed. */
const taken = ({ hasVariables, opensOver }: Written, ...names: readonly string[]): string =>
  `{ ${[...names, ...(hasVariables ? ['given'] : []), ...(opensOver ? ['opens'] : [])].join(', ')} }`;

/** How a test opens what it tries. */
const opening = ({ hasVariables, opensOver }: Written): string =>
  opensOver
    ? `const { app, container } = await opened(from, ${hasVariables ? 'given' : '{}'}, opens);`
    : `const app = await open(from${hasVariables ? ', given' : ''});\n  const { container } = app;`;

const openedText = ({ hasVariables }: Written): string => `
/** Opens a screen, and what is over it: where that is to be looked at. */
async function opened(from: string, ${hasVariables ? 'given' : '_given'}: Record<string, boolean> = {}, opens?: Opening) {
  const app = await open(from${hasVariables ? ', given' : ''});
  if (!opens) return { app, container: app.container };
  const { role, name, at = 0, overlay } = opens;
  await app.does(() => calledSo(app.container, role, name)[at].click());
  const container = await vi.waitUntil(() =>
    app.container.querySelector<HTMLElement>(\`#overlay-\${overlay}\`),
  );
  return { app, container };
}
`;

const listsTest = ({ hasVariables }: Written): string => `
test.each(lists)('$asked shows what it is asked for', async ({ at, asked, shows, hides${hasVariables ? ', given' : ''} }) => {
  const whole = await open(at${hasVariables ? ', given' : ''});
  const before = hides.map((text) => timesIn(whole.container, text));
  await whole.close();
  const { container } = await open(asked${hasVariables ? ', given' : ''});
  for (const text of shows) expect(timesIn(container, text), text).toBeGreaterThan(0);
  hides.forEach((text, i) => expect(timesIn(container, text), text).toBeLessThan(before[i]));
});
`;

const needsTest = (how: Written): string => `
test.each(forms.filter(({ needs }) => needs.length))('$from: a form is not sent without $needs', async (${taken(how, 'from', 'fields', 'at', 'needs')}) => {
  ${opening(how)}
  const form = formWith(container, fields, at);
  const before = app.address();
  await app.does(() => {
    needs.forEach((name) => clear(form, name));
    form.requestSubmit();
  });
  const [first] = needs;
  await vi.waitFor(() => expect(document.activeElement?.getAttribute('name')).toBe(first));
  expect(document.activeElement?.getAttribute('aria-invalid')).toBe('true');
  expect(app.address()).toBe(before);
});
`;

const filledTest = (how: Written): string => `
test.each(forms.filter(({ filled }) => filled))('$from: a form with $fields does what it says', async (${taken(how, 'from', 'fields', 'at', 'filled = {}', 'does = []')}) => {
  ${opening(how)}
  const form = formWith(container, fields, at);
  await app.does(() => Object.entries(filled).forEach(([name, value]) => fillIn(form, name, value)));
  await watched(app, does, () => form.requestSubmit());
});
`;

const deedsTest = (how: Written): string => `
test.each(deeds)('$from: $name does what it says', async (${taken(how, 'from', 'role', 'name', 'at = 0', 'does')}) => {
  ${opening(how)}
  const pressed = calledSo(container, role, name)[at];
  expect(pressed, \`the \${role} “\${name}” stands on \${from}\`).toBeDefined();
  await watched(app, does, () => pressed.click());
});
`;

const changesTest = (how: Written): string => `
test.each(changes)('$from: $field does what it says once it says “$says”', async (${taken(how, 'from', 'field', 'at = 0', 'says', 'does')}) => {
  ${opening(how)}
  const changed = fieldCalled(container, field)[at];
  expect(changed, \`the field “\${field}” stands on \${from}\`).toBeDefined();
  await watched(app, does, () => enter(changed, says));
});
`;

const gesturesTest = (how: Written): string => `
test.each(gestures)('$from: what is done by $on', async (${taken(how, 'from', 'tag', "name = ''", 'at = 0', 'does', 'ms = 0', 'on', 'key', 'side')}) => {
  // What takes a while is not waited for.
  vi.useFakeTimers({ shouldAdvanceTime: true, toFake: ['setTimeout', 'clearTimeout'] });
  onTestFinished(() => void vi.useRealTimers());
  ${opening(how)}
  const touched = tag ? saying(container, tag, name)[at] : container;
  expect(touched, \`“\${name}” stands on \${from}\`).toBeDefined();
  await watched(app, does, () => {
    gesture(touched, { on, key, side });
    vi.advanceTimersByTime(ms);
  });
});
`;
