import { type RefObject, useEffect, useSyncExternalStore } from 'react';
import { useBeforeUnload, useBlocker } from 'react-router';

/** Whether something is filled in and not sent, of each form on the screen. */
type Unsent = RefObject<boolean>;

const forms = new Set<Unsent>();
const listeners = new Set<() => void>();

function change(): void {
  listeners.forEach((listener) => listener());
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const isSomethingUnsent = (): boolean => [...forms].some(({ current }) => current);
const first = (): Unsent | undefined => forms.values().next().value;

/** Asks before one leaves a screen on which something is filled in and not sent; of several forms the first asks for all. */
export function Leaving({ isUnsent }: { isUnsent: Unsent }) {
  useEffect(() => {
    forms.add(isUnsent);
    change();
    return () => {
      forms.delete(isUnsent);
      change();
    };
  }, [isUnsent]);
  return useSyncExternalStore(subscribe, first) === isUnsent ? <Question /> : null;
}

const show = (dialog: HTMLDialogElement | null): void => dialog?.showModal();

function Question() {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && isSomethingUnsent(),
  );
  useBeforeUnload((event) => {
    if (isSomethingUnsent()) event.preventDefault();
  });
  if (blocker.state !== 'blocked') return null;
  return (
    <dialog ref={show} aria-labelledby="leaving" data-leaving="" onCancel={() => blocker.reset()}>
      <p id="leaving">What you filled in is not sent yet.</p>
      <button type="button" onClick={() => blocker.reset()}>
        Stay here
      </button>
      <button type="button" onClick={() => blocker.proceed()}>
        Leave it
      </button>
    </dialog>
  );
}
