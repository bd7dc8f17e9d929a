import { putDismissed, standingFindings } from '@tovel/core';
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
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    padding: 8px 0;
    border-top: 1px solid ${color.rule};
  }
  small {
    display: block;
    color: ${color.ink2};
    font-size: 12px;
  }
`;

/** Findings that somebody let stand, with the reasons, to be brought back. */
export function StandingSheet({ onClose }: { onClose: () => void }) {
  const { drawn, app, session } = useProject();
  const standing = useMemo(() => standingFindings({ design: drawn, app }), [drawn, app]);
  const known = new Set(standing.map(({ finding }) => finding.id));
  // What is about something that is gone is only kept by its id.
  const others = Object.keys(app.dismissed).filter((id) => !known.has(id));
  return (
    <Sheet title="Findings that may stand" onClose={onClose}>
      <List>
        {standing.map(({ finding, reason }) => (
          <li key={finding.id}>
            <span>
              {finding.message}
              <small>{reason ?? 'No reason was given.'}</small>
            </span>
            <Button
              onPress={() =>
                session.change(`Bring back: ${finding.message}`.slice(0, 200), putDismissed(finding.id, null))
              }
            >
              Bring back
            </Button>
          </li>
        ))}
        {!standing.length && <li>None is.</li>}
        {others.length > 0 && <li>{others.length} more are about what is no longer so.</li>}
      </List>
    </Sheet>
  );
}
