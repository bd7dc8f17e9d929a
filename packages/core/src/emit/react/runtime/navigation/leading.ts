/** As much of a press as tells whether it was to open elsewhere. */
interface Press {
  preventDefault?: () => void;
  metaKey?: boolean;
  ctrlKey?: boolean;
  shiftKey?: boolean;
  altKey?: boolean;
}

/** What a press of a link of another library does: it leads on within the app, unless it was to open in another window. */
export const leading =
  (act: () => void) =>
  (press?: Press): void => {
    if (press?.metaKey || press?.ctrlKey || press?.shiftKey || press?.altKey) return;
    press?.preventDefault?.();
    act();
  };
