import type { Overlay } from '../../model/app.ts';
import { quote } from '../quoting.ts';

/** The part of the emitted app that opens things over screens. */

export interface OverlayEntry {
  /** Its name in code: `confirmReturn`. */
  readonly name: string;
  /** Name of its component and folder: `ConfirmReturn`. */
  readonly component: string;
  readonly label: string;
  readonly overlay: Overlay;
  /** Routes that it opens over; any where there are none. */
  readonly over: readonly string[];
}

export function overlaysTs(entries: readonly OverlayEntry[]): string {
  const imports = entries
    .map(({ component }) => `import { ${component} } from './${component}/${component}';`)
    .sort();
  const definitions = entries.map(({ name, component, label, overlay, over }) => {
    const { kind, side, modal, escape, outside, url, ms } = overlay;
    return [
      `  ${name}: {`,
      `    Content: ${component},`,
      `    label: ${quote(label)},`,
      `    kind: ${quote(kind)},`,
      ...(side ? [`    side: ${quote(side)},`] : []),
      `    modal: ${modal},`,
      `    closesBy: { escape: ${escape}, outside: ${outside} },`,
      ...(url ? ['    hasAddress: true,'] : []),
      ...(ms ? [`    ms: ${ms},`] : []),
      ...(over.length ? [`    over: [${over.map(quote).join(', ')}],`] : []),
      '  },',
    ].join('\n');
  });
  return `${imports.join('\n')}
import type { OverlayDefinition } from './definition';

/** What can open over a screen, by name. */
export const overlays: Record<string, OverlayDefinition> = {
${definitions.join('\n')}
};
`;
}

export const definitionTs = `import type { ComponentType } from 'react';

/** How something opens over a screen, and how it closes. */
export interface OverlayDefinition {
  Content: ComponentType;
  /** Its accessible name. */
  label: string;
  kind: 'dialog' | 'drawer' | 'sheet' | 'popover' | 'menu' | 'toast';
  /** From where a drawer or sheet comes. */
  side?: 'left' | 'right' | 'top' | 'bottom';
  /** What lies behind cannot be used meanwhile. */
  modal: boolean;
  closesBy: { escape: boolean; outside: boolean };
  /** It is part of the address (\`?show=name\`), so that going back closes it. */
  hasAddress?: boolean;
  /** Milliseconds after which it goes by itself. */
  ms?: number;
  /** Paths of the screens that it opens over; any where none are given. */
  over?: string[];
}
`;

export const useOverlaysTs = `import { createContext, useContext } from 'react';
import type { Arrival } from '../navigation';

export interface Overlays {
  open(name: string, arrival?: Arrival): void;
  /** Closes the uppermost one. */
  close(): void;
}

export const OverlaysContext = createContext<Overlays>({ open() {}, close() {} });

export const useOverlays = (): Overlays => useContext(OverlaysContext);
`;

export const overlayProviderTsx = `import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { matchPath, useLocation, useNavigate } from 'react-router';
import type { Arrival } from '../navigation';
import { Overlay } from './Overlay';
import { overlays } from './overlays';
import { OverlaysContext } from './useOverlays';

interface Opened {
  name: string;
  id: number;
  opener: Element | null;
  arrival?: Arrival;
}

const PARAMETER = 'show';
let count = 0;

/** Keeps what is open over the screen: in the address where it has one, else here. */
export function OverlayProvider({ children }: { children: ReactNode }) {
  const [opened, setOpened] = useState<Opened[]>([]);
  const { pathname, search, state } = useLocation();
  const navigate = useNavigate();
  const named = new URLSearchParams(search).get(PARAMETER);

  // Another screen closes what was open over the last one; a message may stay.
  useEffect(() => {
    setOpened((now) => now.filter(({ name }) => overlays[name].kind === 'toast'));
  }, [pathname]);

  const isOver = (name: string): boolean => {
    const { over } = overlays[name];
    return !over || over.some((path) => matchPath(path, pathname));
  };
  const inAddress = named && named in overlays && isOver(named) ? named : null;

  const actions = useMemo(
    () => ({
      open(name: string, arrival?: Arrival) {
        if (!(name in overlays)) return;
        if (overlays[name].hasAddress) {
          const query = new URLSearchParams(search);
          query.set(PARAMETER, name);
          void navigate({ search: query.toString() }, { state: { isOpened: true } });
          return;
        }
        const opener = document.activeElement;
        setOpened((now) => [
          ...now.filter((other) => other.name !== name),
          { name, id: ++count, opener, arrival },
        ]);
      },
      close() {
        if (opened.length) setOpened(opened.slice(0, -1));
        else if (state?.isOpened) void navigate(-1);
        else if (named) {
          const query = new URLSearchParams(search);
          query.delete(PARAMETER);
          void navigate({ search: query.toString() }, { replace: true });
        }
      },
    }),
    [opened, search, state, named, navigate],
  );

  return (
    <OverlaysContext value={actions}>
      {children}
      {inAddress && (
        <Overlay
          name={inAddress}
          definition={overlays[inAddress]}
          opener={null}
          onClose={actions.close}
        />
      )}
      {opened
        .filter(({ name }) => isOver(name))
        .map(({ name, id, opener, arrival }) => (
          <Overlay
            key={id}
            name={name}
            definition={overlays[name]}
            opener={opener}
            arrival={arrival}
            onClose={() => setOpened((now) => now.filter((other) => other.id !== id))}
          />
        ))}
    </OverlaysContext>
  );
}
`;

export const overlayTsx = `import { type KeyboardEvent, type SyntheticEvent, useEffect, useLayoutEffect, useRef } from 'react';
import type { Arrival } from '../navigation';
import type { OverlayDefinition } from './definition';
import './overlays.css';

interface OverlayProps {
  name: string;
  definition: OverlayDefinition;
  /** What it was opened with; focus returns there. */
  opener: Element | null;
  arrival?: Arrival;
  onClose: () => void;
}

/** Something over the screen: it takes the focus, keeps it where it must, and gives it back. */
export function Overlay({ name, definition, opener, arrival, onClose }: OverlayProps) {
  const { Content, kind, side, label, modal, closesBy, ms } = definition;
  const own = useRef<HTMLElement>(null);
  const isDialog = kind === 'dialog' || kind === 'drawer' || kind === 'sheet';

  useLayoutEffect(() => {
    const element = own.current!;
    const before = opener ?? document.activeElement;
    if (element instanceof HTMLDialogElement) {
      if (modal) element.showModal();
      else element.show();
    } else {
      element.showPopover();
      if (kind !== 'toast') placeBeside(element, before);
      if (kind === 'menu') itemsOf(element)[0]?.focus();
    }
    return () => {
      if (element instanceof HTMLDialogElement) element.close();
      if (kind !== 'toast' && before instanceof HTMLElement) before.focus();
    };
  }, [kind, modal, opener]);

  useEffect(() => {
    if (!ms) return;
    const timer = setTimeout(onClose, ms);
    return () => clearTimeout(timer);
  });

  useEffect(() => {
    if (!closesBy.outside) return;
    const onPress = (event: PointerEvent): void => {
      const target = event.target as Node;
      const { left, right, top, bottom } = own.current!.getBoundingClientRect();
      const isInside =
        event.clientX >= left &&
        event.clientX <= right &&
        event.clientY >= top &&
        event.clientY <= bottom;
      // The shade behind a dialog is part of the dialog.
      if (!own.current!.contains(target) || (target === own.current && !isInside)) onClose();
    };
    // The press that opened it is not one outside.
    const timer = setTimeout(() => document.addEventListener('pointerdown', onPress));
    return () => {
      clearTimeout(timer);
      document.removeEventListener('pointerdown', onPress);
    };
  });

  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      event.stopPropagation();
      if (closesBy.escape) onClose();
    }
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (kind !== 'menu' || !step) return;
    event.preventDefault();
    const items = itemsOf(own.current!);
    const at = items.indexOf(document.activeElement as HTMLElement);
    items[(at + step + items.length) % items.length]?.focus();
  };
  // Escape reaches a modal dialog as this; whether it closes is decided above.
  const onCancel = (event: SyntheticEvent): void => event.preventDefault();

  const shared = {
    id: \`overlay-\${name}\`,
    className: 'overlay',
    'data-kind': kind,
    'data-side': side,
    'data-arrival': arrival && arrival.kind !== 'none' ? arrival.kind : undefined,
    style:
      arrival && arrival.kind !== 'none' ? { animationDuration: \`\${arrival.ms}ms\` } : undefined,
    'aria-label': label,
    onKeyDown,
  };
  if (isDialog) {
    return (
      <dialog ref={own as React.Ref<HTMLDialogElement>} {...shared} onCancel={onCancel}>
        <Content />
      </dialog>
    );
  }
  const role = kind === 'toast' ? 'status' : kind === 'menu' ? 'menu' : 'dialog';
  return (
    <div ref={own as React.Ref<HTMLDivElement>} {...shared} role={role} popover="manual">
      <Content />
    </div>
  );
}

const itemsOf = (menu: HTMLElement): HTMLElement[] => [
  ...menu.querySelectorAll<HTMLElement>('a, button, [role="menuitem"]'),
];

/** Puts it below what opened it, or above where there is no room. */
function placeBeside(element: HTMLElement, opener: Element | null): void {
  if (!opener || opener === document.body) return;
  const { left, top, bottom } = opener.getBoundingClientRect();
  const { width, height } = element.getBoundingClientRect();
  const room = document.documentElement;
  const y = bottom + 4 + height > room.clientHeight && top > height ? top - height - 4 : bottom + 4;
  element.style.margin = '0';
  element.style.inset = 'auto';
  element.style.top = \`\${y}px\`;
  element.style.left = \`\${Math.max(4, Math.min(left, room.clientWidth - width - 4))}px\`;
}
`;
