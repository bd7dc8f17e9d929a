import { type KeyboardEvent, type SyntheticEvent, useEffect, useLayoutEffect, useRef } from 'react';
import type { Arrival } from '../navigation/arrival';
import type { OverlayDefinition } from './definition';
import './overlays.css';
import { itemsOf, placeBeside } from './placing';

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
    id: `overlay-${name}`,
    className: 'overlay',
    'data-kind': kind,
    'data-side': side,
    'data-arrival': arrival && arrival.kind !== 'none' ? arrival.kind : undefined,
    style:
      arrival && arrival.kind !== 'none' ? { animationDuration: `${arrival.ms}ms` } : undefined,
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
