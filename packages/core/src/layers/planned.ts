import type { ScreenEntry } from '../model/app.ts';
import type { Declarations, Element, Screen } from '../model/design.ts';

const made = new Map<string, Screen>();
const MOST = 500;

/** A stand-in for a screen that has not been drawn yet: its name, and that it is still to come. */
export function plannedScreen(key: string, { name }: ScreenEntry): Screen {
  const known = made.get(`${key} ${name}`);
  if (known) return known;
  const text = (path: string, tag: string, content: string, y: number, base: Declarations): Element => ({
    key: `${key}:${path}`,
    kind: 'text',
    name: content,
    tag,
    text: content,
    box: { x: 24, y, width: 342, height: 32 },
    style: { base },
    children: [],
    source: { file: key, path },
  });
  const root: Element = {
    key: `${key}:`,
    kind: 'box',
    name,
    tag: 'main',
    box: { x: 0, y: 0, width: 390, height: 844 },
    style: {
      base: {
        'min-height': '100dvh',
        'padding-top': '48px',
        'padding-right': '24px',
        'padding-bottom': '48px',
        'padding-left': '24px',
        'background-color': '#f4f4f1',
        color: '#3a4542',
        'font-family': 'system-ui, sans-serif',
      },
    },
    children: [
      text('0', 'h1', name, 48, { 'font-size': '24px', 'margin-bottom': '8px' }),
      text('1', 'p', 'This screen is still to be drawn.', 96, { 'font-size': '16px' }),
    ],
    source: { file: key, path: '' },
  };
  const screen: Screen = {
    key,
    name,
    source: { file: '', path: '' },
    width: 390,
    height: 844,
    root,
    use: 'screen',
  };
  if (made.size > MOST) made.clear();
  made.set(`${key} ${name}`, screen);
  return screen;
}
