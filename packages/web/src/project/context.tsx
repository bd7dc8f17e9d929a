import { useQuery } from '@tanstack/react-query';
import {
  type Design,
  EmissionPlan,
  type Finding,
  findingsOf,
  graphOf,
  openRoles,
  type ScreenGraph,
  settle,
} from '@tovel/core';
import {
  createContext,
  type ReactNode,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
  useSyncExternalStore,
} from 'react';
import { Link } from 'react-router';
import { api } from '../api/client';
import { Empty } from '../ui/Empty';
import { listenTo } from './feed';
import { ownDevice, ownWindow } from './identity';
import { ProjectSession, type SessionState } from './session';
import { deviceShelf } from './shelf';

interface OpenProject extends SessionState {
  readonly session: ProjectSession;
  /** As it was drawn, with what is hidden or left out; `design` is as it is in the app. */
  readonly drawn: Design;
  /** All findings; while somebody types, those of a moment ago. */
  readonly findings: readonly Finding[];
  /** How many roles wait for a decision; while somebody works, that of a moment ago. */
  readonly undecided: number;
  readonly graph: ScreenGraph;
  readonly plan: EmissionPlan;
}

const shelf = deviceShelf();

const ProjectContext = createContext<OpenProject | null>(null);

/** The project that is open. */
export function useProject(): OpenProject {
  const project = useContext(ProjectContext);
  if (!project) throw new Error('useProject: no project is open here');
  return project;
}

/** Opens a project, keeps it in step with the server, and shows why where it cannot. */
export function ProjectProvider({ id, children }: { id: string; children: ReactNode }) {
  const { data: session, error } = useQuery({
    queryKey: ['session', id],
    queryFn: async () => {
      const author = `${ownDevice()}.${await ownWindow()}`;
      return new ProjectSession(await api.project(id, author), api, author, shelf);
    },
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    retry: false,
  });
  if (error) {
    return (
      <Empty title="This project cannot be opened" text={error.message}>
        <Link to="/">To the projects</Link>
      </Empty>
    );
  }
  if (!session) return <Empty title="Opening the project …" text="" />;
  return <Opened session={session}>{children}</Opened>;
}

function Opened({ session, children }: { session: ProjectSession; children: ReactNode }) {
  const state = useSyncExternalStore(session.subscribe, session.getState);
  const { design, app } = state;
  const project = useMemo(() => settle({ design, app }), [design, app]);
  const later = useDeferredValue(app);
  const findings = useMemo(() => findingsOf({ design, app: later }), [design, later]);
  const undecided = useMemo(() => openRoles({ design, app: later }), [design, later]);
  const open = useMemo(
    () => ({
      ...state,
      session,
      design: project.design,
      drawn: design,
      graph: graphOf(project),
      plan: new EmissionPlan(project),
      findings,
      undecided,
    }),
    [state, session, project, design, findings, undecided],
  );

  useEffect(() => {
    const leave = listenTo(session.getState().id, (event) => session.hear(event));
    const warn = (event: BeforeUnloadEvent): void => {
      if (session.getState().saving !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      leave();
      window.removeEventListener('beforeunload', warn);
    };
  }, [session]);

  return <ProjectContext value={open}>{children}</ProjectContext>;
}
