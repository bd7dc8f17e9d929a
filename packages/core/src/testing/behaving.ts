import {
  all,
  applyChange,
  type Change,
  putBinding,
  putVariable,
  putDisclosure,
  putInteraction,
  putRedirect,
  putScreen,
} from '../change/change.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { App, Disclosure, Interaction, ScreenEntry } from '../model/app.ts';
import { type Project, screensByKey } from '../model/project.ts';
import { cutOverlay, proposePanel } from '../overlays/cut.ts';
import { projectOf, screenOf, screenWith, svg } from './build.ts';
import { to } from './wired.ts';

const button = (label: string, x: number, y: number): string =>
  `<g id="${label.replace(/\W/g, '_')}" data-name="${label} button"><rect x="${x}" y="${y}" width="120" height="40" rx="8" fill="#234"/><text x="${x + 60}" y="${y + 25}" font-size="14" text-anchor="middle" fill="#fff">${label}</text></g>`;
const confirm = screenOf(
  svg(
    `${button('Return', 24, 100)}${button('Out', 24, 160)}<rect width="390" height="844" fill="#000" fill-opacity="0.4"/><g id="Dialog"><rect x="40" y="300" width="310" height="220" rx="12" fill="#fff"/><text x="60" y="340" font-size="20">Return it?</text>${button('Cancel', 60, 440)}${button('Yes', 200, 440)}</g>`,
  ),
  'confirm',
);

/** An app that does all that elements can do: gestures, variables, steps, guards, overlays, parameters, transitions. */
export function behaving(): Project {
  const { design, app: bare } = projectOf(
    screenWith('home', 'Tools', 'Sign in', 'Loans', 'Mail us', 'Ask'),
    screenWith('tools', 'Saw', 'Drill', 'Home'),
    screenWith('tool', 'Reserve', 'Back'),
    screenWith('reserve', 'Done'),
    screenWith('sign-in', 'Go in', 'Back'),
    screenOf(svg(`${button('Return', 24, 100)}${button('Out', 24, 160)}`), 'loans'),
    confirm,
    screenWith('lost', 'Home'),
    screenWith('choose', 'One more', 'Fewer', 'Grid', 'Note', 'Many', 'Leave'),
    screenWith('more', 'Details', 'Text', 'Menu', 'Entry', 'Next', 'One', 'Two', 'Wide'),
  );
  let app: App = bare;
  const put = (...changes: Change[]): void => {
    app = applyChange(app, all(changes));
  };
  const element = (screen: string, label: string): string =>
    pressablesOf(screensByKey(design).get(screen)!).find((one) => one.label === label)!.element.key;
  const route = (screen: string, path: string, more: Partial<ScreenEntry> = {}): Change =>
    putScreen(screen, { ...app.screens[screen], route: path, ...more });
  const wire = (
    screen: string,
    label: string,
    target: Interaction['target'],
    more: Partial<Interaction> = {},
    n = 1,
  ) => {
    const key = label === '' ? screensByKey(design).get(screen)!.root.key : element(screen, label);
    return putInteraction(n > 1 ? `${key}|${n}` : key, { ...to(target), ...more });
  };
  const signIn = (value: boolean): Partial<Interaction> => ({
    before: [{ kind: 'set', condition: 'c1', value }],
  });
  put(
    putVariable('c1', { name: 'Signed in', initial: false }),
    route('home', '/'),
    route('tool', '/tools/:toolId', { params: { toolId: 'saw' } }),
    route('reserve', '/tools/:toolId/reserve/:day?', { params: { toolId: 'saw' } }),
    route('loans', '/loans', { guard: { condition: 'c1', is: true, otherwise: 'sign-in' } }),
    route('lost', '/*'),
    putRedirect('/home', { to: 'home' }),
    putRedirect('/t/:toolId', { to: 'tool' }),
  );
  const tools = { kind: 'screen', screen: 'tools' } as const;
  put(
    wire(
      'home',
      'Tools',
      { ...tools, query: { sort: 'by name' } },
      {
        arrival: { kind: 'push', from: 'right', ms: 240, easing: 'ease-in-out', delay: 20 },
      },
    ),
    wire('home', 'Loans', { kind: 'screen', screen: 'loans' }, { when: { condition: 'c1', is: true } }),
    wire(
      'home',
      'Loans',
      { kind: 'screen', screen: 'sign-in' },
      { arrival: { kind: 'slide', from: 'bottom', ms: 260 } },
      2,
    ),
    wire('home', 'Mail us', { kind: 'external', href: 'mailto:desk@mossgate.example' }),
    wire('home', 'Ask', tools, { on: 'long-press' }),
    wire('home', 'Ask', tools, { on: 'swipe', side: 'left' }, 2),
    wire('home', 'Ask', tools, { on: 'double-press' }, 3),
    wire('home', 'Ask', tools, { on: 'hover' }, 4),
    wire('home', 'Ask', tools, { on: 'change' }, 5),
    wire('home', 'Ask', tools, { on: 'submit' }, 6),
    wire('home', '', tools, { on: 'key', key: 'g' }),
    wire('lost', '', { kind: 'screen', screen: 'home' }, { on: 'after', ms: 3000 }),
    wire('lost', 'Home', { kind: 'screen', screen: 'home' }),
    wire(
      'tools',
      'Saw',
      { kind: 'screen', screen: 'tool', params: { toolId: 'saw' } },
      {
        arrival: {
          kind: 'shared',
          ms: 300,
          pairs: [{ from: element('tools', 'Saw'), to: element('tool', 'Reserve') }],
        },
      },
    ),
    wire('tools', 'Drill', { kind: 'screen', screen: 'tool', params: { toolId: 'pillar drill' } }),
    wire('tools', 'Home', { kind: 'back', fallback: 'home' }),
    wire('tool', 'Reserve', { kind: 'screen', screen: 'reserve' }),
    wire('tool', 'Back', { kind: 'back', fallback: 'tools' }),
    wire('reserve', 'Done', { kind: 'screen', screen: 'tool' }, { on: 'load' }, 2),
    wire('reserve', 'Done', { kind: 'screen', screen: 'tool' }),
    wire('sign-in', 'Go in', { kind: 'screen', screen: 'loans' }, signIn(true)),
    wire('sign-in', 'Back', { kind: 'back', fallback: 'home' }),
    wire('loans', 'Return', { kind: 'screen', screen: 'confirm' }, { arrival: { kind: 'scale', ms: 120 } }),
    wire('loans', 'Out', { kind: 'screen', screen: 'home' }, signIn(false)),
  );
  const disclosed = (label: string, disclosure: Disclosure): Change =>
    putDisclosure(element('more', label), disclosure);
  const opens = (label: string, part: string, does: 'toggle' | 'open' | 'close' = 'toggle'): Change =>
    wire('more', label, { kind: 'disclose', part: element('more', part), does });
  put(
    disclosed('Text', { name: 'Text', kind: 'section', open: true }),
    disclosed('Entry', { name: 'Entries', kind: 'menu' }),
    disclosed('Wide', { name: 'Wide', kind: 'section', below: 600 }),
    disclosed('One', { name: 'One', kind: 'slide', open: true, among: 'numbers' }),
    disclosed('Two', { name: 'Two', kind: 'slide', among: 'numbers' }),
    opens('Details', 'Text'),
    opens('Menu', 'Entry'),
    opens('Text', 'Wide', 'close'),
    wire('more', 'One', { kind: 'browser', does: 'copy', of: element('more', 'Text') }),
    wire('more', 'Two', { kind: 'browser', does: 'print' }),
    wire('more', 'Wide', { kind: 'browser', does: 'reload' }),
    wire('more', 'Next', { kind: 'turn', among: 'numbers', to: 'next' }),
    wire(
      'more',
      'Entry',
      { kind: 'disclose', part: element('more', 'Two'), does: 'open' },
      { before: [{ kind: 'disclose', part: element('more', 'Entry'), does: 'close' }] },
    ),
  );
  const sets = (label: string, condition: string, value: string, more: Partial<Interaction> = {}): Change =>
    wire('choose', label, { kind: 'set', condition, value }, more);
  put(
    putVariable('chosen', { name: 'Chosen', type: 'number', initial: 0, kept: 'device' }),
    putVariable('view', {
      name: 'View',
      type: 'one-of',
      choices: ['list', 'grid'],
      initial: 'list',
      kept: 'address',
    }),
    putVariable('note', { name: 'Note', type: 'text', initial: "it's", kept: 'screen' }),
    putVariable('many', { name: 'Many', initial: false, says: 'chosen > 2' }),
    putVariable('said', { name: 'Said', type: 'text', initial: '', says: '`${upper(note)}: ${chosen}`' }),
    sets('One more', 'chosen', 'chosen + 1'),
    sets('Fewer', 'chosen', 'chosen - 1', {
      before: [{ kind: 'set', condition: 'note', value: "'fewer'" }],
    }),
    sets('Grid', 'view', "view === 'grid' ? 'list' : 'grid'"),
    sets('Note', 'view', 'entered', { on: 'change' }),
    putInteraction(`${element('choose', 'Note')}|2`, {
      ...to({ kind: 'set', condition: 'chosen', value: 'chosen * 2' }),
      on: 'hover',
    }),
    putInteraction(`${element('choose', 'One more')}|2`, {
      ...to({ kind: 'say', text: '`${chosen} chosen`' }),
      on: 'double-press',
      before: [{ kind: 'set', condition: 'chosen', value: 'chosen + 1' }],
    }),
    putInteraction(`${element('choose', 'Note')}|3`, {
      ...to({ kind: 'say', text: "entered || 'Nothing entered'" }),
      on: 'change',
      when: { condition: 'many', is: false },
    }),
    wire('choose', 'Leave', tools, { when: { condition: 'many', is: true } }),
    putBinding(element('choose', 'Note'), { text: 'said' }),
    putBinding(element('choose', 'Many'), { shown: 'many', text: '`${chosen} of them`' }),
  );
  const screens = screensByKey(design);
  const panel = proposePanel(screens.get('confirm')!, screens.get('loans')!)!;
  put(cutOverlay({ design, app }, 'confirm', panel, 'loans'));
  put(wire('confirm', 'Yes', tools, { before: [{ kind: 'close' }] }));
  return { design, app };
}
