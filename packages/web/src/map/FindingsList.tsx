import { type Finding, rules } from '@tovel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { FindingMark, LEVEL_NAMES } from '../ui/finding_mark';
import { useQueryParam } from '../ui/use_query_param';

const Panel = styled.section`
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  overflow: hidden !important;
`;

const Scroller = styled.div`
  overflow: auto;
  position: relative;
`;

const Row = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: start;
  padding: 8px 14px 8px 16px;
  border-top: 1px solid ${color.rule};
`;

const Message = styled.button`
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  &:hover {
    text-decoration: underline;
  }
`;

/** All findings, or those of one rule; each leads to its place, and is mended there or here. */
export function FindingsList({ findings }: { findings: readonly Finding[] }) {
  const { session, id } = useProject();
  const navigate = useNavigate();
  const [code, setCode] = useQueryParam('finding', 'all');
  const shown = useMemo(
    () => (code === 'all' ? findings : findings.filter((finding) => finding.code === code)),
    [findings, code],
  );
  const options = useMemo(
    () => [
      { id: 'all', label: `All findings (${findings.length})` },
      ...rules
        .map((rule) => ({
          id: rule.code,
          label: `${rule.title} (${findings.filter((finding) => finding.code === rule.code).length})`,
        }))
        .filter((option) => option.id === code || !option.label.endsWith('(0)')),
    ],
    [findings, code],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 54,
    overscan: 8,
  });
  const placeOf = (finding: Finding): string => {
    if (!finding.screen || finding.code === 'skipped-screen' || finding.code === 'route-clash')
      return `/p/${id}/screens${finding.screen ? `?screen=${finding.screen}` : ''}`;
    return `/p/${id}/junction/${finding.screen}${finding.element ? `?element=${encodeURIComponent(finding.element)}` : ''}`;
  };
  return (
    <Panel aria-label="Findings">
      <h2>
        Findings <span>{shown.length}</span>
      </h2>
      <div style={{ padding: '0 16px 10px' }}>
        <Choice label="Show" isLabelHidden value={code} options={options} onChange={setCode} />
      </div>
      <Scroller ref={scroller}>
        {!shown.length && <p style={{ padding: '8px 16px', color: color.ink2 }}>Nothing to look at.</p>}
        <div role="list" style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const finding = shown[index];
            return (
              <Row
                key={index}
                ref={rows.measureElement}
                data-index={index}
                role="listitem"
                style={{ transform: `translateY(${start}px)` }}
              >
                <FindingMark
                  $level={finding.level}
                  title={LEVEL_NAMES[finding.level]}
                  style={{ marginTop: 4 }}
                />
                <Message type="button" onClick={() => void navigate(placeOf(finding))}>
                  {finding.message}
                </Message>
                {finding.fix && (
                  <Button
                    $kind="quiet"
                    onPress={() =>
                      session.change(
                        `${finding.fix!.label}: ${finding.message}`.slice(0, 200),
                        finding.fix!.change,
                      )
                    }
                  >
                    {finding.fix.label}
                  </Button>
                )}
              </Row>
            );
          })}
        </div>
      </Scroller>
    </Panel>
  );
}
