/** The part of the emitted app that goes from screen to screen; the same in every app. */

export const navigationIndex = `export { Back, Go } from './links';
export { pressable } from './pressable';
export { useGo } from './useGo';
export type { Arrival } from './arrival';
`;

export const arrivalTs = `/** How the next screen arrives. \`ms\` is the duration in milliseconds. */
export type Arrival =
  | { kind: 'none' }
  | { kind: 'fade'; ms: number }
  | { kind: 'slide'; from: 'left' | 'right' | 'top' | 'bottom'; ms: number };

/** Tells the style sheet which transition the coming navigation plays; returns whether it plays one. */
export function announce(arrival: Arrival): boolean {
  const root = document.documentElement;
  const isCalm = window.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;
  if (arrival.kind === 'none' || isCalm) {
    delete root.dataset.arrival;
    return false;
  }
  root.dataset.arrival = arrival.kind === 'slide' ? \`slide-\${arrival.from}\` : 'fade';
  root.style.setProperty('--arrival-ms', \`\${arrival.ms}ms\`);
  return true;
}
`;

export const useGoTs = `import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { announce, type Arrival } from './arrival';

export interface GoFunction {
  (to: string, arrival?: Arrival): void;
  /** One step back; to the fallback when the app was entered here. */
  back(fallback: string, arrival?: Arrival): void;
}

const NONE: Arrival = { kind: 'none' };

export function useGo(): GoFunction {
  const navigate = useNavigate();
  return useMemo(() => {
    const go = (to: string, arrival = NONE): void => {
      void navigate(to, { viewTransition: announce(arrival) });
    };
    const back = (fallback: string, arrival = NONE): void => {
      announce(arrival);
      // React Router numbers the entries of the history; 0 is where the app was entered.
      const entry: unknown = window.history.state?.idx;
      if (typeof entry === 'number' && entry > 0) void navigate(-1);
      else go(fallback, arrival);
    };
    return Object.assign(go, { back });
  }, [navigate]);
}
`;

export const linksTsx = `import type { ButtonHTMLAttributes } from 'react';
import { Link, type LinkProps } from 'react-router';
import { announce, type Arrival } from './arrival';
import { useGo } from './useGo';

type GoProps = Omit<LinkProps, 'viewTransition'> & { arrival?: Arrival };

/** A link to another screen. */
export function Go({ arrival = { kind: 'none' }, ...props }: GoProps) {
  return (
    <Link {...props} viewTransition={arrival.kind !== 'none'} onClick={() => announce(arrival)} />
  );
}

type BackProps = ButtonHTMLAttributes<HTMLButtonElement> & { fallback: string; arrival?: Arrival };

/** A button that goes one step back. */
export function Back({ fallback, arrival, ...props }: BackProps) {
  const go = useGo();
  return <button type="button" {...props} onClick={() => go.back(fallback, arrival)} />;
}
`;

export const pressableTs = `import type { HTMLAttributes, KeyboardEvent, MouseEvent } from 'react';

/** Makes an element that is neither link nor button act as a link, by pointer and by keyboard. */
export function pressable(act: () => void): HTMLAttributes<HTMLElement> {
  return {
    role: 'link',
    tabIndex: 0,
    onClick: (event: MouseEvent<HTMLElement>) => {
      if (!isInner(event.target, event.currentTarget)) act();
    },
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      if (event.key === 'Enter' && event.target === event.currentTarget) act();
    },
  };
}

/** A press on a link or field inside belongs to that one. */
function isInner(target: EventTarget, outer: HTMLElement): boolean {
  if (!(target instanceof Element)) return false;
  const inner = target.closest('a, button, input, select, textarea');
  return inner !== null && inner !== outer && outer.contains(inner);
}
`;

export const transitionsCss = `::view-transition-old(root),
::view-transition-new(root) {
  animation-duration: var(--arrival-ms, 200ms);
}

:root[data-arrival^='slide']::view-transition-old(root) {
  animation-name: arrival-leave;
}

:root[data-arrival^='slide']::view-transition-new(root) {
  animation-name: arrival-enter;
  animation-timing-function: ease-out;
}

:root[data-arrival='slide-right'] {
  --arrival-x: 100%;
}

:root[data-arrival='slide-left'] {
  --arrival-x: -100%;
}

:root[data-arrival='slide-bottom'] {
  --arrival-y: 100%;
}

:root[data-arrival='slide-top'] {
  --arrival-y: -100%;
}

@keyframes arrival-enter {
  from {
    transform: translate(var(--arrival-x, 0), var(--arrival-y, 0));
  }
}

@keyframes arrival-leave {
  to {
    opacity: 0.6;
  }
}
`;

export const shellTsx = `import { useEffect } from 'react';
import { Outlet, ScrollRestoration, useLocation, useMatches } from 'react-router';

/** What stands around every screen: the page title, and the scroll position. */
export function Shell() {
  const { hash, key } = useLocation();
  const handle = useMatches().at(-1)?.handle as { title?: string } | undefined;

  useEffect(() => {
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
  }, [hash, key]);

  return (
    <>
      {handle?.title && <title>{handle.title}</title>}
      <Outlet />
      <ScrollRestoration />
    </>
  );
}
`;

export const notFoundTsx = `import { Link } from 'react-router';

export function NotFound() {
  return (
    <main>
      <h1>There is no such page</h1>
      <p>
        <Link to="/">Go to the start</Link>
      </p>
    </main>
  );
}
`;

export const mainTsx = (hasFonts: boolean, hasTokens: boolean): string => `import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { routes } from './routes';
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
