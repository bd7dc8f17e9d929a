import { mkdirSync, writeFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { all, applyChange, emitReact, pressablesOf, putCondition, putInteraction, putLayout, putRedirect, putScreen, type Project, type App, type Interaction, emptyDesign, emptyApp, takeIn, readSvg, screensByKey, graphOf } from '@tovel/core';
const svg = (body: string) => `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844" viewBox="0 0 390 844">${body}</svg>`;
const button = (label: string, y: number) => `<g id="b${y}" data-name="Button"><rect x="24" y="${y}" width="342" height="48" rx="8" fill="#234"/><text x="195" y="${y+29}" font-size="16" text-anchor="middle" fill="#fff">${label}</text></g>`;
const screen = (key: string, labels: string[], more = '') => readSvg({ file: `${key}.svg`, text: svg(labels.map((l, i) => button(l, 40 + 60 * i)).join('') + more), screenKey: key, asset: () => null }).screen!;
const dialog = `<rect width="390" height="844" fill="#000" fill-opacity="0.4"/><g id="Dialog"><rect x="40" y="300" width="310" height="220" rx="12" fill="#fff"/><text x="60" y="340" font-size="20">Return it?</text><g id="Cancel" data-name="Button"><rect x="60" y="440" width="120" height="40" rx="8" fill="#234"/><text x="120" y="465" font-size="14" text-anchor="middle" fill="#fff">Cancel</text></g><g id="Yes" data-name="Button"><rect x="200" y="440" width="120" height="40" rx="8" fill="#234"/><text x="260" y="465" font-size="14" text-anchor="middle" fill="#fff">Yes, return</text></g></g>`;
import { cutOverlay, proposePanel } from '@tovel/core';
const design = { ...emptyDesign, screens: [screen('home', ['Tools', 'Sign in', 'Loans', 'Mail us', 'Ask']), screen('tools', ['Saw', 'Drill', 'Home']), screen('tool', ['Reserve', 'Back']), screen('reserve', ['Done']), screen('sign-in', ['Sign in', 'Back']), screen('loans', ['Return', 'Out']), screen('loans-return', ['Return', 'Out'], dialog), screen('lost', ['Home'])] };
let app: App = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
const put = (...c: any[]) => { app = applyChange(app, all(c)); };
const el = (s: string, label: string) => pressablesOf(screensByKey(design).get(s)!).find((p) => p.label === label)!.element.key;
const root = (s: string) => screensByKey(design).get(s)!.root.key;
const to = (target: Interaction['target'], more: Partial<Interaction> = {}): Interaction => ({ on: 'press', target, arrival: { kind: 'none' }, ...more });
const route = (s: string, route: string, more = {}) => putScreen(s, { ...app.screens[s], route, ...more });
put(putCondition('c1', { name: 'Signed in', initial: false }));
put(route('home', '/'), route('tool', '/tools/:toolId', { params: { toolId: 'saw' } }), route('reserve', '/tools/:toolId/reserve/:day?', { params: { toolId: 'saw' } }), route('loans', '/loans', { guard: { condition: 'c1', is: true, otherwise: 'sign-in' } }), route('lost', '/*'));
put(putRedirect('/home', { to: 'home' }), putRedirect('/t/:toolId', { to: 'tool' }));
put(
  putInteraction(el('home', 'Tools'), to({ kind: 'screen', screen: 'tools', query: { sort: 'by name' } }, { arrival: { kind: 'push', from: 'right', ms: 240, easing: 'ease-in-out', delay: 20 } })),
  putInteraction(el('home', 'Loans'), to({ kind: 'screen', screen: 'loans' }, { when: { condition: 'c1', is: true } })),
  putInteraction(el('home', 'Loans') + '|2', to({ kind: 'screen', screen: 'sign-in' }, { arrival: { kind: 'slide', from: 'bottom', ms: 260 } })),
  putInteraction(el('home', 'Mail us'), to({ kind: 'external', href: 'mailto:desk@mossgate.example' })),
  putInteraction(el('home', 'Ask'), to({ kind: 'screen', screen: 'tools' }, { on: 'long-press' })),
  putInteraction(el('home', 'Ask') + '|2', to({ kind: 'screen', screen: 'tools' }, { on: 'swipe', side: 'left' })),
  putInteraction(el('home', 'Ask') + '|3', to({ kind: 'screen', screen: 'tools' }, { on: 'double-press' })),
  putInteraction(root('home'), to({ kind: 'screen', screen: 'tools' }, { on: 'key', key: 'g' })),
  putInteraction(root('lost'), to({ kind: 'screen', screen: 'home' }, { on: 'after', ms: 3000 })),
  putInteraction(el('lost', 'Home'), to({ kind: 'screen', screen: 'home' })),
  putInteraction(el('tools', 'Saw'), to({ kind: 'screen', screen: 'tool', params: { toolId: 'saw' } }, { arrival: { kind: 'shared', ms: 300, pairs: [{ from: el('tools', 'Saw'), to: el('tool', 'Reserve') }] } })),
  putInteraction(el('tools', 'Drill'), to({ kind: 'screen', screen: 'tool', params: { toolId: 'pillar drill' } })),
  putInteraction(el('tools', 'Home'), to({ kind: 'back', fallback: 'home' })),
  putInteraction(el('tool', 'Reserve'), to({ kind: 'screen', screen: 'reserve' })),
  putInteraction(el('tool', 'Back'), to({ kind: 'back', fallback: 'tools' })),
  putInteraction(el('reserve', 'Done'), to({ kind: 'screen', screen: 'tool' })),
  putInteraction(el('sign-in', 'Sign in'), to({ kind: 'screen', screen: 'loans' }, { before: [{ kind: 'set', condition: 'c1', value: true }] })),
  putInteraction(el('sign-in', 'Back'), to({ kind: 'back', fallback: 'home' })),
  putInteraction(el('loans', 'Return'), to({ kind: 'screen', screen: 'loans-return' })),
  putInteraction(el('loans', 'Out'), to({ kind: 'screen', screen: 'home' }, { before: [{ kind: 'set', condition: 'c1', value: false }] })),
);
const panel = proposePanel(screensByKey(design).get('loans-return')!, screensByKey(design).get('loans')!)!;
console.log(panel);
put(cutOverlay({ design, app }, 'loans-return', panel, 'loans'));
put(putInteraction(el('loans-return', 'Yes, return'), to({ kind: 'screen', screen: 'tools' }, { before: [{ kind: 'close' }] })));
const project: Project = { design, app };
const g = graphOf(project);
console.log(g.counts, [...g.reached], g.links.filter((l) => l.problem));
const out = process.argv[2];
rmSync(path.join(out, 'src'), { recursive: true, force: true });
for (const f of emitReact(project, 'Proof').files) if ('text' in f) { const p = path.join(out, f.path); mkdirSync(path.dirname(p), { recursive: true }); writeFileSync(p, f.text); }
