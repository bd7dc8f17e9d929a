import { copiedWiring, describeTarget, takeCopied } from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';

const List = styled.ul`
  max-height: 260px;
  overflow: auto;
  margin: 12px 0 14px;
  li {
    padding: 4px 0;
    border-top: 1px solid ${color.rule};
  }
  span {
    color: ${color.ink2};
  }
`;

/** Takes over from another screen what the same elements do there. */
export function CopySheet({ screen, onClose }: { screen: string; onClose: () => void }) {
  const project = useProject();
  const { app, graph, session } = project;
  const found = useMemo(
    () =>
      [...graph.screens, ...graph.overlays]
        .filter((key) => key !== screen)
        .map((key) => ({ key, links: copiedWiring(project, graph, key, screen) }))
        .filter(({ links }) => links.length)
        .sort((a, b) => b.links.length - a.links.length),
    [project, graph, screen],
  );
  const [from, setFrom] = useState(found[0]?.key ?? '');
  const links = found.find(({ key }) => key === from)?.links ?? [];
  return (
    <Sheet title={`Copy wiring to ${app.screens[screen].name}`} onClose={onClose}>
      {found.length ? (
        <Choice
          label="From"
          value={from}
          options={found.map(({ key, links: list }) => ({
            id: key,
            label: `${app.screens[key].name} (${list.length})`,
          }))}
          onChange={setFrom}
        />
      ) : (
        <p>No other screen has a wired element that is open here.</p>
      )}
      <List>
        {links.map(({ element, label, interactions }) => (
          <li key={element}>
            “{label}”{' '}
            <span>→ {interactions.map((one) => describeTarget(project, one.target).label).join(', ')}</span>
          </li>
        ))}
      </List>
      <Button
        $kind="primary"
        isDisabled={!links.length}
        onPress={() => {
          session.change(`Copy ${links.length} links from ${app.screens[from].name}`, takeCopied(links));
          onClose();
        }}
      >
        {links.length ? `Wire ${links.length} the same way` : 'Nothing to copy'}
      </Button>
    </Sheet>
  );
}
