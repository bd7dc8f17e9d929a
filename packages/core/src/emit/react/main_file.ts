import type { WrittenApp } from '../bundled/dialect.ts';

/** Writes `main.tsx`, with which the app begins. */
export const mainTsx = (
  { fonts: hasFonts, tokens: hasTokens, shared: hasShared }: WrittenApp['sheets'],
  isRemote: boolean,
  hasNotice: boolean,
): string => `${isRemote ? "import { QueryClientProvider } from '@tanstack/react-query';\n" : ''}import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
${hasShared ? "// Before the screens, whose own styles come after what they share.\nimport './styles/shared.module.css';\n" : ''}${isRemote ? "import { queryClient } from './api/queryClient';\n" : ''}import { routes } from './routes';
${hasNotice ? "import { Notice } from './shell/Notice';\n" : ''}import './styles/base.css';
${hasFonts ? "import './styles/fonts.css';\n" : ''}${hasTokens ? "import './styles/tokens.css';\n" : ''}import './styles/transitions.css';

const basename = import.meta.env.BASE_URL.replace(/(.)\\/$/, '$1');
const router = createBrowserRouter(routes, { basename });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
${
  isRemote
    ? `    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
      <Notice />
    </QueryClientProvider>`
    : `    <RouterProvider router={router} />${hasNotice ? '\n    <Notice />' : ''}`
}
  </StrictMode>,
);
`;
