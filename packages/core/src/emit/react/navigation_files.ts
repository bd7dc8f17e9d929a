/** The part of the emitted app that goes from screen to screen; the same in every app. */

export const navigationIndex = `export { Back, Go } from './links';
export { gestures, saveFile, submitting } from './gestures';
export { pressable } from './pressable';
export { useAfter, useKey } from './moments';
export { useGo } from './useGo';
export type { Arrival } from './arrival';
`;

export const arrivalTs = `type Side = 'left' | 'right' | 'top' | 'bottom';

interface Timed {
  /** Duration in milliseconds. */
  ms: number;
  easing?: 'ease-out' | 'ease-in' | 'ease-in-out' | 'linear';
  /** Milliseconds before it begins. */
  delay?: number;
}

/** How the next screen arrives. */
export type Arrival =
  | { kind: 'none' }
  | ({ kind: 'fade' } & Timed)
  | ({ kind: 'scale' } & Timed)
  | ({ kind: 'slide' | 'push'; from: Side } & Timed)
  /** The elements of these names move from the one screen to their place on the other. */
  | ({ kind: 'shared'; names: string[] } & Timed);

/** The arrivals that led to the entries of the history, by their number in it. */
const arrivals = new Map<number, Arrival>();
/** What going back was told to look like. */
let asked: Arrival | null = null;
let at = entryNumber();

/** React Router numbers the entries of the history; 0 is where the app was entered. */
export function entryNumber(): number {
  const number: unknown = globalThis.history?.state?.idx;
  return typeof number === 'number' ? number : 0;
}

/** Prepares the transition of the coming navigation; returns whether it plays one. */
export function announce(arrival: Arrival, pressed?: Element | null): boolean {
  at = entryNumber() + 1;
  arrivals.set(at, arrival);
  return play(arrival, pressed);
}

/** Says what the coming step back shall look like; without it, it is the reverse of the way there. */
export function announceBack(arrival: Arrival): void {
  asked = arrival.kind === 'none' ? null : arrival;
}

/** Whether the router has no transition to reverse on the way back from here, although one is asked for. */
export function needsOwnTransition(arrival: Arrival): boolean {
  const way = arrivals.get(at)?.kind ?? 'none';
  return (
    arrival.kind !== 'none' && way === 'none' && !isCalm() && 'startViewTransition' in document
  );
}

/** Resolves when a step back shows, or after a tenth of a second. */
export async function afterPop(): Promise<void> {
  await new Promise((resolve) => window.addEventListener('popstate', resolve, { once: true }));
  await new Promise<void>((resolve) => {
    const watcher = new MutationObserver(() => resolve());
    watcher.observe(document.body, { childList: true, subtree: true });
    setTimeout(() => {
      watcher.disconnect();
      resolve();
    }, 100);
  });
}

const isCalm = (): boolean =>
  window.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

function play(arrival: Arrival, pressed?: Element | null): boolean {
  const root = document.documentElement;
  if (arrival.kind === 'none' || isCalm()) {
    delete root.dataset.arrival;
    return false;
  }
  root.dataset.arrival = 'from' in arrival ? \`\${arrival.kind}-\${arrival.from}\` : arrival.kind;
  root.style.setProperty('--arrival-ms', \`\${arrival.ms}ms\`);
  root.style.setProperty('--arrival-easing', arrival.easing ?? 'ease-out');
  root.style.setProperty('--arrival-delay', \`\${arrival.delay ?? 0}ms\`);
  if (arrival.kind === 'shared') nameShared(arrival.names, pressed);
  return true;
}

/** Names what leaves this screen as what arrives on the next: in the row that was pressed, if it is in one. */
function nameShared(names: string[], pressed?: Element | null): void {
  for (const name of names) {
    const selector = \`[data-leaves='\${name}']\`;
    let around: Element | null = pressed ?? null;
    while (around && !around.matches(selector) && !around.querySelector(selector))
      around = around.parentElement;
    const leaving = around?.matches(selector)
      ? around
      : (around ?? document).querySelector<HTMLElement>(selector);
    if (leaving instanceof HTMLElement) leaving.style.viewTransitionName = name;
  }
}

const OTHER: Record<Side, Side> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

const reversed = (arrival: Arrival): Arrival =>
  'from' in arrival ? { ...arrival, from: OTHER[arrival.from] } : arrival;

// Before the router hears of it, so that the transition it starts looks as it should.
globalThis.addEventListener?.(
  'popstate',
  () => {
    const next = entryNumber();
    const way = next < at ? arrivals.get(at) : arrivals.get(next);
    play(asked ?? (way ? (next < at ? reversed(way) : way) : { kind: 'none' }));
    asked = null;
    at = next;
  },
  true,
);
`;

export const fillTs = `/** Fills what an address leaves open (\`/tools/:toolId\`) from the parameters of the present one. */
export function fill(to: string, params: Readonly<Record<string, string | undefined>>): string {
  return to.replace(/\\/:(\\w+)/g, (whole, name: string) =>
    params[name] === undefined ? whole : \`/\${encodeURIComponent(params[name])}\`,
  );
}
`;

export const redirectTsx = `import { Navigate, useParams } from 'react-router';
import { fill } from './fill';

/** Leads on to another address, with the parameters of this one. */
export function Redirect({ to }: { to: string }) {
  return <Navigate to={fill(to, useParams())} replace />;
}
`;

export const useGoTs = `import { useMemo } from 'react';
import { useNavigate, useParams } from 'react-router';
import {
  afterPop,
  announce,
  announceBack,
  type Arrival,
  entryNumber,
  needsOwnTransition,
} from './arrival';
import { fill } from './fill';

export interface GoFunction {
  (to: string, arrival?: Arrival): void;
  /** One step back; to the fallback when the app was entered here. */
  back(fallback: string, arrival?: Arrival): void;
}

const NONE: Arrival = { kind: 'none' };

export function useGo(): GoFunction {
  const navigate = useNavigate();
  const params = useParams();
  return useMemo(() => {
    const go = (to: string, arrival = NONE): void => {
      const viewTransition = announce(arrival, document.activeElement);
      void navigate(fill(to, params), { viewTransition });
    };
    const back = (fallback: string, arrival = NONE): void => {
      if (entryNumber() === 0) {
        go(fallback, arrival);
        return;
      }
      announceBack(arrival);
      if (!needsOwnTransition(arrival)) void navigate(-1);
      else
        document.startViewTransition(() => {
          void navigate(-1);
          return afterPop();
        });
    };
    return Object.assign(go, { back });
  }, [navigate, params]);
}
`;

export const linksTsx = `import type { ButtonHTMLAttributes } from 'react';
import { Link, type LinkProps, useParams } from 'react-router';
import { announce, type Arrival } from './arrival';
import { fill } from './fill';
import { useGo } from './useGo';

type GoProps = Omit<LinkProps, 'viewTransition' | 'to'> & { to: string; arrival?: Arrival };

/** A link to another screen. What its address leaves open is that of the present one. */
export function Go({ to, arrival = { kind: 'none' }, ...props }: GoProps) {
  const params = useParams();
  return (
    <Link
      {...props}
      to={fill(to, params)}
      viewTransition={arrival.kind !== 'none'}
      onClick={(event) => {
        props.onClick?.(event);
        announce(arrival, event.currentTarget);
      }}
    />
  );
}

type BackProps = ButtonHTMLAttributes<HTMLButtonElement> & { fallback: string; arrival?: Arrival };

/** A button that goes one step back. */
export function Back({ fallback, arrival, ...props }: BackProps) {
  const go = useGo();
  return <button type="button" {...props} onClick={() => go.back(fallback, arrival)} />;
}
`;

export const gesturesTs = `import type { FormEvent, HTMLAttributes, PointerEvent } from 'react';

interface Gestures {
  longPress?: () => void;
  swipeLeft?: () => void;
  swipeRight?: () => void;
  swipeTop?: () => void;
  swipeBottom?: () => void;
}

/** Held at least so long, in milliseconds, is a long press; moved at least so far, in px, is a swipe. */
const LONG = 500;
const FAR = 48;

/** Recognises what is done with a pointer beyond pressing. */
export function gestures(acts: Gestures): HTMLAttributes<HTMLElement> {
  let begin: { x: number; y: number; timer: ReturnType<typeof setTimeout> } | null = null;
  const end = (): void => {
    if (begin) clearTimeout(begin.timer);
    begin = null;
  };
  return {
    style: acts.swipeLeft || acts.swipeRight ? { touchAction: 'pan-y' } : undefined,
    onPointerDown: (event: PointerEvent) => {
      end();
      const timer = setTimeout(() => acts.longPress?.(), LONG);
      begin = { x: event.clientX, y: event.clientY, timer };
    },
    onPointerMove: (event: PointerEvent) => {
      if (!begin) return;
      const [x, y] = [event.clientX - begin.x, event.clientY - begin.y];
      if (Math.abs(x) > FAR / 4 || Math.abs(y) > FAR / 4) clearTimeout(begin.timer);
      if (Math.max(Math.abs(x), Math.abs(y)) < FAR) return;
      end();
      const isAcross = Math.abs(x) > Math.abs(y);
      if (isAcross) (x < 0 ? acts.swipeLeft : acts.swipeRight)?.();
      else (y < 0 ? acts.swipeTop : acts.swipeBottom)?.();
    },
    onPointerUp: end,
    onPointerCancel: end,
  };
}

/** Does something when a form is sent, which then goes nowhere by itself. */
export const submitting =
  (act: () => void) =>
  (event: FormEvent): void => {
    event.preventDefault();
    act();
  };

/** Saves a file under a name. */
export function saveFile(href: string, name: string): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}
`;

export const momentsTs = `import { useEffect, useEffectEvent } from 'react';

/** Does something some milliseconds after the screen was shown. */
export function useAfter(ms: number, act: () => void): void {
  const onTime = useEffectEvent(act);
  useEffect(() => {
    const timer = setTimeout(onTime, ms);
    return () => clearTimeout(timer);
  }, [ms]);
}

/** Does something when a key is pressed that no field takes. */
export function useKey(key: string, act: () => void): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const isTyped =
      event.target instanceof Element && event.target.closest('input, textarea, select');
    if (event.key !== key || event.defaultPrevented || (isTyped && key.length === 1)) return;
    event.preventDefault();
    act();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
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

export const shellTsx = (hasOverlays: boolean): string => `import { useEffect } from 'react';
import { Outlet, ScrollRestoration, useLocation, useMatches } from 'react-router';
${hasOverlays ? "import { OverlayProvider } from '../overlays/OverlayProvider';\n" : ''}
/** What stands around every screen: the page title, the scroll position${hasOverlays ? ', and what opens over it' : ''}. */
export function Shell() {
  const { hash, key } = useLocation();
  const handle = useMatches().at(-1)?.handle as { title?: string } | undefined;

  useEffect(() => {
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
  }, [hash, key]);

  return (
    <>
      {handle?.title && <title>{handle.title}</title>}
${
  hasOverlays
    ? `      <OverlayProvider>
        <Outlet />
      </OverlayProvider>
`
    : '      <Outlet />\n'
}      <ScrollRestoration />
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
