import { useBeforeUnload, useBlocker } from 'react-router';

const show = (dialog: HTMLDialogElement | null): void => dialog?.showModal();

/** Asks before one leaves a screen on which something is filled in and not sent. */
export function Leaving({ isUnsent }: { isUnsent: () => boolean }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && isUnsent(),
  );
  useBeforeUnload((event) => {
    if (isUnsent()) event.preventDefault();
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
