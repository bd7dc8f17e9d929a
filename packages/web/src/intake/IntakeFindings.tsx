import { type Finding, findElement, noticeCauses, screensByKey } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { FoundList } from '../findings/FoundList';
import { useFound, useProject } from '../project/context';
import { color } from '../theme/theme';
import { Tabbed } from '../ui/Tabbed';
import type { IntakeStanding } from './intake_run';
import { LeftOut } from './LeftOut';

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

interface IntakeFindingsProps {
  readonly findings: readonly Finding[];
  /** Keys of screens: of these alone where some are chosen. */
  readonly selected: ReadonlySet<string>;
  readonly last: IntakeStanding['last'];
  readonly hasFile: (path: string) => boolean;
  readonly onMakeScreen: (path: string) => void;
}

/** What was found in what came in, and what was left out of it; nothing while there is neither. */
export function IntakeFindings({ findings, selected, last, hasFile, onMakeScreen }: IntakeFindingsProps) {
  const { drawn, design, app, base } = useProject();
  const { isLooking } = useFound();
  const navigate = useNavigate();
  const [tab, setTab] = useState<'found' | 'out'>('found');
  // Bad news is shown first.
  useEffect(() => {
    if (last && (!last.screens.length || last.notices.some(({ level }) => level === 'error'))) setTab('out');
  }, [last]);
  const shown = selected.size
    ? findings.filter((finding) => finding.screen && selected.has(finding.screen))
    : findings;
  const notices = useMemo(() => {
    const screens = screensByKey(design);
    // Notices of a batch that brought no screens are not part of the design, but still have to be read.
    const unkept = last && !last.screens.length ? last.notices : [];
    const files = new Set([...selected].map((key) => screens.get(key)?.source.file));
    const opened = new Set(
      Object.keys(app.disclosures).flatMap((key) => {
        const { source } = findElement(drawn, key) ?? {};
        return source ? [`${source.file} ${source.path}`] : [];
      }),
    );
    return noticeCauses(
      [...unkept, ...drawn.notices].filter(
        ({ code, file, path = '' }) =>
          (!selected.size || files.has(file)) && !(code === 'hidden-layer' && opened.has(`${file} ${path}`)),
      ),
    );
  }, [design, drawn, app.disclosures, last, selected]);
  const goTo = ({ screen, element }: Finding): void => {
    if (!screen) return;
    const at = element ? `?element=${encodeURIComponent(element)}` : '';
    void navigate(`${base}/intake/${screen}${at}`);
  };
  if (!design.screens.length && !notices.length) return null;
  return (
    <Side aria-label="Findings of the intake">
      <Tabbed
        label="Findings of the intake"
        tabs={[
          { id: 'found', label: `Found ${isLooking && !shown.length ? '…' : shown.length}` },
          { id: 'out', label: `Left out ${notices.length}` },
        ]}
        tab={tab}
        onTab={setTab}
        isFilled
      >
        {tab === 'found' ? (
          <FoundList
            findings={shown}
            onGo={goTo}
            nothing={
              selected.size
                ? 'Nothing to decide about what is chosen.'
                : 'Nothing to decide: the pile is clean.'
            }
          />
        ) : (
          <LeftOut notices={notices} hasFile={hasFile} onMakeScreen={onMakeScreen} />
        )}
      </Tabbed>
    </Side>
  );
}
