import { type Finding, ruleKinds, screensByKey } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { FoundList, type Grouping } from '../findings/FoundList';
import { StandingSheet } from '../findings/StandingSheet';
import { ElementPicture } from '../picture/ElementPicture';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { useQueryParam } from '../ui/use_query_param';

const Panel = styled.section`
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  overflow: hidden !important;
`;

const Tools = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 8px;
  padding: 0 16px 10px;
`;

const Look = styled.div`
  height: 210px;
  overflow: hidden;
  display: grid;
  border-top: 1px solid ${color.ink};
  background: ${color.paper};
  > section {
    border: 0;
  }
`;

const GROUPINGS: readonly { id: Grouping; label: string }[] = [
  { id: 'rule', label: 'by rule' },
  { id: 'screen', label: 'by screen' },
];

/** All findings, or those of one rule; the one that is looked at is shown in its place, and mended there or here. */
export function FindingsList({ findings }: { findings: readonly Finding[] }) {
  const { base, app, design } = useProject();
  const navigate = useNavigate();
  const [code, setCode] = useQueryParam('finding', 'all');
  const [asked, setGrouping] = useQueryParam('by', 'rule');
  const [looked, setLooked] = useState<Finding | null>(null);
  const [isStanding, setStanding] = useState(false);
  const grouping: Grouping = asked === 'screen' ? 'screen' : 'rule';
  const shown = useMemo(
    () => (code === 'all' ? findings : findings.filter((finding) => finding.code === code)),
    [findings, code],
  );
  const options = useMemo(
    () => [
      { id: 'all', label: `All findings (${findings.length})` },
      ...ruleKinds
        .map((rule) => ({
          id: rule.code,
          label: `${rule.title} (${findings.filter((finding) => finding.code === rule.code).length})`,
        }))
        .filter((option) => option.id === code || !option.label.endsWith('(0)')),
    ],
    [findings, code],
  );
  const placeOf = (finding: Finding): string => {
    if (!finding.screen || finding.code === 'skipped-screen')
      return `${base}/screens${finding.screen ? `?screen=${finding.screen}` : ''}`;
    return `${base}/junction/${finding.screen}${finding.element ? `?element=${encodeURIComponent(finding.element)}` : ''}`;
  };
  const dismissed = Object.keys(app.dismissed).length;
  const current = looked && shown.find((finding) => finding.id === looked.id);
  const screen = current?.screen ? screensByKey(design).get(current.screen) : undefined;
  return (
    <Panel aria-label="Findings">
      <h2>
        Findings
        {dismissed > 0 && (
          <Button $kind="quiet" onPress={() => setStanding(true)}>
            {dismissed} may stand
          </Button>
        )}
        <span>{shown.length}</span>
      </h2>
      <Tools>
        <Choice label="Show" isLabelHidden value={code} options={options} onChange={setCode} />
        <Choice label="In groups" isLabelHidden value={grouping} options={GROUPINGS} onChange={setGrouping} />
      </Tools>
      <FoundList
        findings={shown}
        groupBy={grouping}
        nothing="Nothing to look at."
        onLook={setLooked}
        onGo={(finding) => current?.id === finding.id && void navigate(placeOf(finding))}
      />
      {current && screen && (
        <Look>
          <ElementPicture key={screen.key} screen={screen} element={current.element} />
        </Look>
      )}
      {isStanding && <StandingSheet onClose={() => setStanding(false)} />}
    </Panel>
  );
}
