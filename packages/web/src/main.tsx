import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/spline-sans-mono';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { DeliverView } from './deliver/DeliverView';
import { IterateView } from './iterate/IterateView';
import { ToRoundScreen } from './iterate/RoundMap';
import { IntakeView } from './intake/IntakeView';
import { JunctionView } from './junction/JunctionView';
import { MapView } from './map/MapView';
import { ProjectsPage } from './projects/ProjectsPage';
import { ReadingView } from './reading/ReadingView';
import { RepeatsView } from './repeats/RepeatsView';
import { RunView } from './run/RunView';
import { ScreensView } from './screens/ScreensView';
import { TokensView } from './tokens/TokensView';
import { WorkbenchView } from './workbench/WorkbenchView';
import { ProjectShell } from './shell/ProjectShell';
import { VersionsView } from './versions/VersionsView';
import { applyScheme, readScheme } from './theme/scheme';
import { GlobalStyle } from './theme/theme';

applyScheme(readScheme());

/** The views in which what was can be looked at as well. */
const looks = (
  <>
    <Route path="screens" element={<ScreensView />} />
    <Route path="screens/repeats" element={<RepeatsView />} />
    <Route path="screens/tokens" element={<TokensView />} />
    <Route path="screens/at/:screenKey" element={<WorkbenchView />} />
    <Route path="junction/:screenKey?" element={<JunctionView />} />
    <Route path="map" element={<MapView />} />
    <Route path="run" element={<RunView />} />
  </>
);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <GlobalStyle />
    <QueryClientProvider client={new QueryClient()}>
      <BrowserRouter>
        <Routes>
          <Route index element={<ProjectsPage />} />
          <Route path="p/:projectId" element={<ProjectShell />}>
            <Route index element={<Navigate to="screens" replace />} />
            <Route path="intake" element={<IntakeView />} />
            <Route path="intake/:screenKey" element={<ReadingView />} />
            {looks}
            <Route path="deliver" element={<DeliverView />} />
            <Route path="iterate" element={<IterateView />} />
            <Route path="round/*" element={<ToRoundScreen />} />
            <Route path="versions" element={<VersionsView />} />
          </Route>
          <Route path="p/:projectId/at/:seq" element={<ProjectShell />}>
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
