import { projectOf, screenWith } from '../testing/build.ts';
import { causesOf } from './causes.ts';
import type { Finding } from './finding.ts';

const project = projectOf(screenWith('tools', 'A'), screenWith('loans', 'B'));
const nameOf = (key: string): string => project.app.screens[key].name;
const finding = (screen: string | null, message: string, code = 'broken'): Finding => ({
  id: `${screen} ${message}`,
  code,
  level: 'error',
  screen,
  element: null,
  message,
});

test('findings that say the same on several screens have one cause; other words or another rule are another', () => {
  const found = [
    finding('tools', `“Donut” on ${nameOf('tools')} leads nowhere.`),
    finding('loans', `“Donut” on ${nameOf('loans')} leads nowhere.`),
    finding('tools', `“Bar” on ${nameOf('tools')} leads nowhere.`),
    finding('tools', `“Donut” on ${nameOf('tools')} leads nowhere.`, 'small'),
    finding(null, 'The app has no start.'),
  ];
  expect(causesOf(project, found).map(({ findings, screens }) => [findings.length, screens.join()])).toEqual([
    [2, 'tools,loans'],
    [1, 'tools'],
    [1, 'tools'],
    [1, ''],
  ]);
});

test('nothing is lost and nothing counted twice', () => {
  const found = ['tools', 'loans', 'tools'].map((screen, i) => finding(screen, `${nameOf(screen)} ${i % 2}`));
  expect(
    causesOf(project, found)
      .flatMap((cause) => cause.findings)
      .map(({ id }) => id)
      .sort(),
  ).toEqual(found.map(({ id }) => id).sort());
});
