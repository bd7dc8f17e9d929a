import { Suspense, useEffect, useState } from 'react';
import { Outlet, useLocation, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { ProjectProvider, useProject, useStanding } from '../project/context';
import { StillReading } from './StillReading';
import { stations } from './stations';
import { Jump } from './Jump';
import { LedgerStrip } from './LedgerStrip';
import { Notices } from './Notices';
import { ShellGrid } from './rail';
import { Shortcuts } from './Shortcuts';
import { StationBoundary } from './StationBoundary';
import { WorkLine } from './WorkLine';

const Main = styled.main`
  min-height: 0;
  overflow: hidden;
  grid-row: 3;
`;

const Coming = styled.p`
  padding: 24px;
  color: ${color.ink2};
`;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;

/** Everything around the views of an open project. */
export function ProjectShell() {
  const { projectId, seq } = useParams();
  const past = seq === undefined ? null : Number(seq);
  return (
    <ProjectProvider key={`${projectId} ${seq ?? ''}`} id={projectId!} past={past}>
      <Opened />
    </ProjectProvider>
  );
}

function Opened() {
  const { session, name, base } = useProject();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const { isArriving } = useStanding();
  const waiting = isArriving
    ? stations.find(({ path, needsAll }) => needsAll && pathname.startsWith(`${base}/${path}`))?.title
    : undefined;
  const [panel, setPanel] = useState<'jump' | 'shortcuts' | null>(null);

  useEffect(() => {
    document.title = `${name} · Tovel`;
  }, [name]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.altKey && event.code === 'KeyJ') {
        event.preventDefault();
        setPanel('jump');
      } else if (event.key === '?' && !isTyping(event.target)) setPanel('shortcuts');
      else if ((event.ctrlKey || event.metaKey) && !isTyping(event.target)) {
        const key = event.key.toLowerCase();
        if (key === 'z' || key === 'y') {
          event.preventDefault();
          void (key === 'y' || event.shiftKey ? session.redo() : session.undo());
        }
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [session]);

  return (
    <ShellGrid>
      <WorkLine onJump={() => setPanel('jump')} />
      <Notices />
      <Main>
        <StationBoundary name={pathname} onLeave={() => void navigate(`${base}/screens`)}>
          <Suspense fallback={<Coming aria-live="polite">Opening …</Coming>}>
            {waiting ? <StillReading station={waiting} /> : <Outlet />}
          </Suspense>
        </StationBoundary>
      </Main>
      <LedgerStrip />
      {panel === 'jump' && <Jump onClose={() => setPanel(null)} onShortcuts={() => setPanel('shortcuts')} />}
      {panel === 'shortcuts' && <Shortcuts onClose={() => setPanel(null)} />}
    </ShellGrid>
  );
}
