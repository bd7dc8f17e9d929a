import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/spline-sans-mono';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { ProjectsPage } from './projects/ProjectsPage';
import { Opening } from './shell/Opening';
import { applyScheme, readScheme } from './theme/scheme';
import { GlobalStyle } from './theme/theme';

applyScheme(readScheme());

// What shows projects is loaded with the first one, and each view when somebody first goes there.
const ProjectShell = lazy(async () => ({ default: (await import('./shell/ProjectShell')).ProjectShell }));
const AlternativesView = lazy(async () => ({
  default: (await import('./alternatives/AlternativesView')).AlternativesView,
}));
const CompareView = lazy(async () => ({ default: (await import('./compare/CompareView')).CompareView }));
const DataView = lazy(async () => ({ default: (await import('./data/DataView')).DataView }));
const DeliverView = lazy(async () => ({ default: (await import('./deliver/DeliverView')).DeliverView }));
const IterateView = lazy(async () => ({ default: (await import('./iterate/IterateView')).IterateView }));
const ToRoundScreen = lazy(async () => ({ default: (await import('./iterate/RoundMap')).ToRoundScreen }));
const IntakeView = lazy(async () => ({ default: (await import('./intake/IntakeView')).IntakeView }));
const JunctionView = lazy(async () => ({ default: (await import('./junction/JunctionView')).JunctionView }));
const MapView = lazy(async () => ({ default: (await import('./map/MapView')).MapView }));
const ReadingView = lazy(async () => ({ default: (await import('./reading/ReadingView')).ReadingView }));
const RepeatsView = lazy(async () => ({ default: (await import('./repeats/RepeatsView')).RepeatsView }));
const RunView = lazy(async () => ({ default: (await import('./run/RunView')).RunView }));
const ScreensView = lazy(async () => ({ default: (await import('./screens/ScreensView')).ScreensView }));
const TokensView = lazy(async () => ({ default: (await import('./tokens/TokensView')).TokensView }));
const WorkbenchView = lazy(async () => ({
  default: (await import('./workbench/WorkbenchView')).WorkbenchView,
}));
const VersionsView = lazy(async () => ({ default: (await import('./versions/VersionsView')).VersionsView }));

/** The views in which what was can be looked at as well. */
const looks = (
  <>
    <Route path="screens" element={<ScreensView />} />
    <Route path="screens/repeats" element={<RepeatsView />} />
    <Route path="screens/tokens" element={<TokensView />} />
    <Route path="screens/at/:screenKey" element={<WorkbenchView />} />
    <Route path="junction/:screenKey?" element={<JunctionView />} />
    <Route path="map" element={<MapView />} />
    <Route path="data" element={<DataView />} />
    <Route path="run" element={<RunView />} />
  </>
);

const shell = (
  <Suspense fallback={<Opening />}>
    <ProjectShell />
  </Suspense>
);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <GlobalStyle />
    <QueryClientProvider client={new QueryClient()}>
      <BrowserRouter>
        <Routes>
          <Route index element={<ProjectsPage />} />
          <Route path="p/:projectId" element={shell}>
            <Route index element={<Navigate to="screens" replace />} />
            <Route path="intake" element={<IntakeView />} />
            <Route path="intake/:screenKey" element={<ReadingView />} />
            {looks}
            <Route path="screens/alternatives" element={<AlternativesView />} />
            <Route path="compare" element={<CompareView />} />
            <Route path="deliver" element={<DeliverView />} />
            <Route path="iterate" element={<IterateView />} />
            <Route path="round/*" element={<ToRoundScreen />} />
            <Route path="versions" element={<VersionsView />} />
          </Route>
          <Route path="p/:projectId/at/:seq" element={shell}>
            <Route index element={<Navigate to="screens" replace />} />
            {looks}
            <Route path="*" element={<Navigate to="screens" replace />} />
          </Route>
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
