import {
  EmissionPlan,
  hasFrame,
  type LayoutProposal,
  proposeLayouts,
  putLayout,
  putRefused,
  screenName,
} from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';

const List = styled.ul`
  max-height: 420px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 8px;
    align-items: start;
    padding: 10px 0;
    border-top: 1px solid ${color.rule};
  }
  p {
    color: ${color.ink2};
  }
  h3 {
    font-size: 13px;
    padding: 10px 0 4px;
  }
`;

/** What several screens share around them: the layouts there are, and those that could be. */
export function LayoutSheet({ onClose }: { onClose: () => void }) {
  const project = useProject();
  const { app, design, session } = project;
  const proposals = useMemo(() => proposeLayouts({ design, app }), [design, app]);
  const plan = useMemo(() => new EmissionPlan({ design, app }), [design, app]);
  const layouts = Object.entries(app.layouts);
  const names = (screens: readonly string[]): string =>
    screens.map((key) => screenName(project, key)).join(', ');
  const take = (proposal: LayoutProposal): void =>
    session.change(`Make the layout ${proposal.name}`, proposal.change);
  return (
    <Sheet title="Layouts" onClose={onClose}>
      <p>
        What several screens have around them is written once, as a layout route; each screen is then only
        what is its own.
      </p>
      <List>
        {layouts.map(([id, layout]) => (
          <li key={id}>
            <div>
              <b>{layout.name}</b>
              <p>{names(layout.screens)}</p>
              {!hasFrame(plan, layout.screens) && (
                <p style={{ color: color.red }}>
                  These screens no longer have the same around them, so they are written whole.
                </p>
              )}
            </div>
            <span />
            <Button onPress={() => session.change(`Dissolve the layout ${layout.name}`, putLayout(id, null))}>
              Dissolve
            </Button>
          </li>
        ))}
        {proposals.map((proposal) => (
          <li key={proposal.id}>
            <div>
              <b style={{ color: color.ochre }}>{proposal.name}?</b>
              <p>
                {names(proposal.screens)}, because {proposal.reason}.
              </p>
            </div>
            <Button onPress={() => take(proposal)}>Take</Button>
            <Button
              $kind="quiet"
              onPress={() => session.change(`No layout ${proposal.name}`, putRefused(proposal.id, true))}
            >
              Refuse
            </Button>
          </li>
        ))}
        {!layouts.length && !proposals.length && <li>No two screens share a navigation.</li>}
      </List>
    </Sheet>
  );
}
