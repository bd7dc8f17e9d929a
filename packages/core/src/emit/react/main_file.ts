/** Writes `main.tsx`, with which the app begins. */
export const mainTsx = (
  hasFonts: boolean,
  hasTokens: boolean,
  hasShared: boolean,
): string => `import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
${hasShared ? "// Before the screens, whose own styles come after what they share.\nimport './styles/shared.module.css';\n" : ''}import { routes } from './routes';
import './styles/base.css';
${hasFonts ? "import './styles/fonts.css';\n" : ''}${hasTokens ? "import './styles/tokens.css';\n" : ''}import './styles/transitions.css';

const basename = import.meta.env.BASE_URL.replace(/(.)\\/$/, '$1');
const router = createBrowserRouter(routes, { basename });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <RouterProvider router={router} />
  </StrictMode>,
);
`;
