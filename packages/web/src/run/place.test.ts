import { type App, emptyApp, emptyDesign } from '@tovel/core';
import { screenAtPath } from './place';

test.each([
  ['/tools?x=1#top', 'tools'],
  ['/TOOLS', 'tools'],
  ['/tools/saw', 'tool'],
  ['/', 'home'],
  ['/none', null],
])('%s in the running app is the screen %s', (address, key) => {
  const entry = { name: 'x', use: 'planned', order: 1 } as const;
  const app: App = {
    ...emptyApp,
    start: 'home',
    screens: {
      home: { ...entry, route: '/home' },
      tools: { ...entry, route: '/tools' },
      tool: { ...entry, route: '/tools/:toolId' },
    },
  };
  expect(screenAtPath({ design: emptyDesign, app }, address)).toBe(key);
});
