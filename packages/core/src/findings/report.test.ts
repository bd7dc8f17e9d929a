import { wired } from '../testing/wired.ts';
import { findingsAsSarif, findingsAsText } from './report.ts';
import { findingsOf, ruleKinds, stationOf } from './rules.ts';

const project = wired('a>b a. a. b. b. b. c- d-');
const findings = findingsOf(project).filter(({ code }) => stationOf(code) === 'map');

test('as text a finding is a line with its file and its code', () => {
  expect(findingsAsText(project, findings)).toBe(
    'warning  B has no way out. Wire an element to another screen or to Back. (b.svg) [dead-end]\n1 warning\n',
  );
  expect(findingsAsText(project, [])).toBe('No findings\n');
  const open = findingsOf(wired('a>b b><  c- d-')).filter(({ code }) => code === 'open-end');
  expect(findingsAsText(wired('a>b b><  c- d-'), open)).toMatch(
    /\(a\.svg, a:\d+\) \[open-end\]\n[^]*\n4 info\n$/,
  );
});

test('as SARIF a finding names its rule, its place and its fingerprint', () => {
  const log = findingsAsSarif(project, findings) as {
    version: string;
    runs: { tool: { driver: { rules: { id: string }[] } }; results: Record<string, unknown>[] }[];
  };
  expect(log.version).toBe('2.1.0');
  const [{ tool, results }] = log.runs;
  expect(tool.driver.rules.map(({ id }) => id)).toEqual(ruleKinds.map(({ code }) => code));
  expect(results).toEqual([
    {
      ruleId: 'dead-end',
      ruleIndex: ruleKinds.findIndex(({ code }) => code === 'dead-end'),
      level: 'warning',
      message: { text: 'B has no way out. Wire an element to another screen or to Back.' },
      locations: [
        {
          physicalLocation: { artifactLocation: { uri: 'b.svg' } },
          logicalLocations: [{ name: 'B', fullyQualifiedName: 'b', kind: 'module' }],
        },
      ],
      partialFingerprints: { 'tovelFinding/v1': 'dead-end b' },
    },
  ]);
});
