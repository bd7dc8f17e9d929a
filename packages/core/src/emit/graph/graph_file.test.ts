import fc from 'fast-check';
import { parseXml } from '../../intake/svg/xml.ts';
import { applyChange, putInteraction, putScreen } from '../../change/change.ts';
import { pressablesOf } from '../../links/pressable.ts';
import { screensByKey } from '../../model/project.ts';
import { wired } from '../../testing/wired.ts';
import { graphFiles } from './graph_file.ts';

const project = wired('a>b a>< b>c b>^ c>d d!', 'abcd');

test('DOT has the screens in use and the whole links between them', () => {
  expect(graphFiles.dot.print(project, 'The "one"')).toBe(String.raw`digraph "The \"one\"" {
  rankdir=LR;
  node [shape=box];
  "a" [label="A\n/a", peripheries=2];
  "b" [label="B\n/b"];
  "c" [label="C\n/c"];
  "a" -> "b" [label="One", comment="none"];
  "b" -> "c" [label="One", comment="none"];
}
`);
});

test('GraphML says the same, with types', () => {
  const text = graphFiles.graphml.print(project, 'One');
  expect(text).toContain('<key id="node-depth" for="node" attr.name="depth" attr.type="int"/>');
  expect(text).toContain(
    '<node id="c"><data key="node-name">C</data><data key="node-route">/c</data><data key="node-start">false</data><data key="node-depth">2</data></node>',
  );
  expect(text).toContain('<edge id="link-2" source="b" target="c"><data key="edge-label">One</data>');
  expect(text.match(/<edge /g)).toHaveLength(2);
});

test('an anchor and an arrival are part of a link', () => {
  const [, second] = pressablesOf(screensByKey(project.design).get('c')!);
  const anchor = project.design.screens[0].root.key;
  const app = applyChange(
    project.app,
    putInteraction(second.element.key, {
      on: 'press',
      target: { kind: 'anchor', screen: 'a', element: anchor },
      arrival: { kind: 'slide', from: 'right', ms: 240 },
    }),
  );
  expect(graphFiles.graphml.print({ ...project, app }, 'One')).toContain(
    `<data key="edge-arrival">slide right 240ms</data><data key="edge-anchor">${anchor}</data></edge>`,
  );
});

test('whatever screens are called, GraphML is well formed and DOT closes its quotes', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 12 }), (name) => {
      const app = applyChange(project.app, putScreen('b', { ...project.app.screens.b, name }));
      expect(() => parseXml(graphFiles.graphml.print({ ...project, app }, name))).not.toThrow();
      const line = graphFiles.dot
        .print({ ...project, app }, name)
        .split(/\n(?= {2}"|\})/)
        .find((part) => part.startsWith('  "b" ['))!;
      expect(line).toMatch(/^ {2}"b" \[label="(?:[^"\\]|\\.)*"\];$/s);
    }),
  );
});
