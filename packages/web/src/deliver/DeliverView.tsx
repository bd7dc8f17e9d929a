import { screensByKey } from '@tovel/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { PublishView } from '../publish/PublishView';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { ChangesView } from './changes/ChangesView';
import { CodeShown } from './CodeShown';
import { DeliverBar } from './DeliverBar';
import { RepositoryView } from './repository/RepositoryView';
import { useDrafts } from './use_drafts';
import { useEmitted } from './use_emitted';

const View = styled.div<{ $hasPicture: boolean }>`
  height: 100%;
  display: grid;
  grid-template-columns:
    268px minmax(0, 1fr)
    ${({ $hasPicture }) => ($hasPicture ? 'minmax(300px, 400px)' : '')};
  grid-template-rows: auto minmax(0, 1fr);
  > nav {
    grid-row: 2;
    min-height: 0;
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    background: ${color.side};
    border-right: 1px solid ${color.rule};
    padding-top: 8px;
  }
`;

/** Places that stand in place of the code. */
const BESIDE: ReadonlySet<string> = new Set(['changes', 'repository', 'publish']);

/** The code as it will be taken away, beside the screens that it makes. */
export function DeliverView() {
  const { base, graph, design, app } = useProject();
  const navigate = useNavigate();
  const written = useEmitted();
  const { emitted, problem, done, total } = written;
  const drafts = useDrafts(written.read);
  const [path, setPath] = useState<string | null>(null);
  const [element, setElement] = useState<string | null>(null);
  const [place, setPlace] = useQueryParam('in', 'code');
  if (!graph.screens.length)
    return (
      <Empty title="No code yet" text="Bring in the screens of the app; the code stands here at once.">
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  if (problem !== null && !emitted)
    return (
      <Empty title="The code could not be written" text={`${problem}. Nothing of the project is lost.`} />
    );
  const start = app.start && emitted?.fileOfScreen.get(app.start);
  const current = emitted?.files.find((file) => file.path === (path ?? start)) ?? emitted?.files[0];
  if (!emitted || !current)
    return <Empty title="Writing the code …" text={total ? `${done} of ${total} screens` : ''} />;
  const screen = 'screen' in current && current.screen ? screensByKey(design).get(current.screen) : undefined;
  return (
    <View $hasPicture={!!screen && place === 'code'}>
      <DeliverBar
        place={place}
        onPlace={setPlace}
        count={emitted.files.length}
        onOther={() => setPath(null)}
      />
      {place === 'publish' && <PublishView />}
      {place === 'changes' && <ChangesView />}
      {place === 'repository' && <RepositoryView />}
      {!BESIDE.has(place) && (
        <CodeShown
          written={written}
          emitted={emitted}
          current={current}
          screen={screen}
          element={element}
          drafts={drafts}
          onPath={setPath}
          onElement={setElement}
        />
      )}
    </View>
  );
}
