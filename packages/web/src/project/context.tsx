import { useQuery } from '@tanstack/react-query';
import {
  causesOf,
  type Design,
  EmissionPlan,
  type Finding,
  findingsOf,
  inOrder,
  graphOf,
  openLinkDecisions,
  type Project,
  type ScreenGraph,
  settle,
  stationOf,
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
import { Link, useMatch } from 'react-router';
import { api, RequestError } from '../api/client';
import { Opening } from '../shell/Opening';
import type { Decisions } from '../shell/stations';
import { Empty } from '../ui/Empty';
import { useComparedFindings } from './use_compared_findings';
import { useLooked, useWaitingCollections } from './use_looked';
import { useQuiet } from './use_quiet';
import { useStateFindings } from './use_state_findings';
import { listenTo } from './feed';
import { ownDevice, ownWindow } from './identity';
import { ProjectSession, type SessionApi, type SessionState, type Standing } from './session';
import { deviceShelf } from './shelf';

export interface OpenProject extends Omit<SessionState, keyof Standing> {
  readonly session: ProjectSession;
  /** As it was drawn, with what is hidden or left out; `design` is as it is in the app. */
  readonly drawn: Design;
  readonly graph: ScreenGraph;
  /** Worked out when somebody asks for it. */
  readonly plan: EmissionPlan;
  /** The path that all its views are under. */
  readonly base: string;
  /** The place in the history that is looked at; null for the project as it is. */
  readonly past: number | null;
}

/** What there is to look at and to decide in the project that is open. It is there a moment after what it is of. */
interface Found {
  readonly findings: readonly Finding[];
  /** Whether somebody still looks through screens that came lately. */
  readonly isLooking: boolean;
  /** How many decisions wait. */
  readonly decisions: Decisions;
}

const shelf = deviceShelf();

const ProjectContext = createContext<OpenProject | null>(null);
const FoundContext = createContext<Found | null>(null);
const StandingContext = createContext<Standing | null>(null);

/** The project that is open. */
export function useProject(): OpenProject {
  const project = useContext(ProjectContext);
  if (!project) throw new Error('useProject: no project is open here');
  return project;
}

/** All findings, and how many decisions wait; while somebody works, those of a moment ago. */
export function useFound(): Found {
  const found = useContext(FoundContext);
  if (!found) throw new Error('useFound: no project is open here');
  return found;
}

/** How far what was done is saved, told and built. That changes more often than the project. */
export function useStanding(): Standing {
  const standing = useContext(StandingContext);
  if (!standing) throw new Error('useStanding: no project is open here');
  return standing;
}

/**
 * Opens a project, keeps it in step with the server, and shows why where it cannot.
 * @param past a place in its history to look at instead; nothing can be changed there
 */
export function ProjectProvider({
  id,
  past,
  children,
}: {
  id: string;
  past: number | null;
  children: ReactNode;
}) {
  const { data: session, error } = useQuery({
    queryKey: ['session', id, past],
    queryFn: async () => {
      const author = `${ownDevice()}.${await ownWindow()}`;
      return past === null
        ? new ProjectSession(await api.project(id, author), api, author, shelf)
        : new ProjectSession(await api.past(id, past), nothingChanges(id, past), author);
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
  if (!session) return <Opening />;
  return (
    <Opened session={session} past={past}>
      {children}
    </Opened>
  );
}

/** What was can be looked at, and no more. */
function nothingChanges(id: string, past: number): SessionApi {
  const refuse = (): Promise<never> =>
    Promise.reject(
      new RequestError(403, {
        code: 'past',
        message: 'This is how the project was. Go back to it first, to change it.',
      }),
    );
  return { project: () => api.past(id, past), change: refuse, undo: refuse, redo: refuse };
}

/**
 * Views within show the project as it would be. Nothing can be changed there.
 * @param base the path under which what they lead to is found
 */
export function AsItWouldBe({
  project: made,
  base,
  children,
}: {
  project: Project;
  base: string;
  children: ReactNode;
}) {
  const outer = useProject();
  const { decisions } = useFound();
  const open = useMemo((): OpenProject => {
    const project = settle(made);
    return {
      ...outer,
      app: made.app,
      drawn: made.design,
      design: project.design,
      graph: graphOf(project),
      plan: planOf(project),
      base,
    };
  }, [outer, made, base]);
  const found = useMemo(
    (): Found => ({
      isLooking: false,
      decisions,
      get findings() {
        return findingsOf(made);
      },
    }),
    [decisions, made],
  );
  return (
    <ProjectContext value={open}>
      <FoundContext value={found}>{children}</FoundContext>
    </ProjectContext>
  );
}

/** How long nothing changes before what follows from an edit is worked out where the app runs, in ms. */
const QUIET_MS = 300;

const plans = new WeakMap<Project, EmissionPlan>();

function planOf(project: Project): EmissionPlan {
  let plan = plans.get(project);
  if (!plan) plans.set(project, (plan = new EmissionPlan(project)));
  return plan;
}

function Opened({
  session,
  past,
  children,
}: {
  session: ProjectSession;
  past: number | null;
  children: ReactNode;
}) {
  const state = useSyncExternalStore(session.subscribe, session.getState);
  const { design, app, isArriving } = state;
  const project = useMemo(() => settle({ design, app }), [design, app]);
  // Where the app runs, what shows an edit there has the machine first.
  const quiet = useMatch('/p/:projectId/run') === null ? 0 : QUIET_MS;
  const later = useDeferredValue(useQuiet(app, quiet));
  // Much is missing of screens that are still being read, and reading has the machine first.
  const { looked, isLooking } = useLooked(state, isArriving ? null : quiet);
  const states = useStateFindings({ design, app: later });
  const compared = useComparedFindings(state.id, { design, app: later });
  const findings = useMemo(() => inOrder(looked.findings, states, compared), [looked, states, compared]);
  const graph = graphOf(project);
  const collections = useWaitingCollections({ design, app: later }, isArriving);
  const decisions = useMemo(() => {
    const intake = findings.filter(({ code, level }) => level !== 'info' && stationOf(code) === 'intake');
    const worse = findings.filter(({ code, level }) => level !== 'info' && stationOf(code) === 'compare');
    return {
      intake: causesOf(project, intake).length,
      roles: looked.roles,
      links: isArriving ? 0 : openLinkDecisions(graph),
      compared: causesOf(project, worse).length,
      collections,
    };
  }, [project, graph, findings, looked, collections, isArriving]);
  const found = useMemo(() => ({ findings, isLooking, decisions }), [findings, isLooking, decisions]);
  const { id, name } = state;
  const open = useMemo(
    (): OpenProject => ({
      id,
      name,
      app,
      session,
      design: project.design,
      drawn: design,
      graph,
      get plan() {
        return planOf(project);
      },
      base: past === null ? `/p/${id}` : `/p/${id}/at/${past}`,
      past,
    }),
    [id, name, app, session, project, design, graph, past],
  );

  useEffect(() => {
    if (past !== null) return;
    const leave = listenTo(session.getState().id, (event) => session.hear(event));
    const warn = (event: BeforeUnloadEvent): void => {
      const { saving, isArriving } = session.getState();
      if (saving !== 'saved' || isArriving) event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      leave();
      window.removeEventListener('beforeunload', warn);
    };
  }, [session, past]);

  return (
    <ProjectContext value={open}>
      <FoundContext value={found}>
        <StandingContext value={state}>{children}</StandingContext>
      </FoundContext>
    </ProjectContext>
  );
}
