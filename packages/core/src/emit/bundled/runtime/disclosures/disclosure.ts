import { type Opened, setOpened } from './opened';

/** The id of what is open at first, or nothing where it is not. */
export type FirstOpen = string | boolean | undefined;

/**
 * Parts that are opened and closed, by their ids: what their elements and those that open them are given.
 * @param openAtFirst ids of those that are open until somebody closes them
 */
export function disclosureOf(now: () => Opened, openAtFirst: () => readonly FirstOpen[]) {
  const isOpen = (id: string): boolean => {
    const said = now()[id];
    return typeof said === 'boolean' ? said : openAtFirst().includes(id);
  };
  const set = (id: string, value: boolean): void => setOpened(id, value);
  const section = (id: string) => ({ id, hidden: !isOpen(id) });
  return {
    isOpen,
    open: (id: string) => set(id, true),
    close: (id: string) => set(id, false),
    toggle: (id: string) => set(id, !isOpen(id)),
    /** For what opens a part, and closes it. */
    opener: (id: string) => ({
      'aria-expanded': isOpen(id),
      'aria-controls': id,
      onClick: () => set(id, !isOpen(id)),
    }),
    closer: (id: string) => ({ onClick: () => set(id, false) }),
    /** For a part that opens in its place. */
    section,
    /** For one that only narrow windows close, and that is a menu there. */
    narrow: (id: string) => ({
      id,
      'data-open': isOpen(id) ? '' : undefined,
      'data-leaves': 'menu',
    }),
    /** For one that closes when somebody presses elsewhere or has chosen. */
    menu: (id: string) => ({ ...section(id), 'data-leaves': 'menu' }),
    /** For one that keeps the focus in it. */
    dialog: (id: string) => ({ ...section(id), 'data-leaves': 'dialog' }),
  };
}

/**
 * Parts of which one is shown, by their ids.
 * @param first the one that is shown until somebody chooses another
 * @param inOrder all of them, where one goes on to the next
 */
export function choiceOf(now: () => Opened, first: string, inOrder: readonly string[]) {
  const shown = (): string => {
    const said = now()[first];
    return typeof said === 'string' ? said : first;
  };
  const open = (id: string): void => setOpened(first, id);
  return {
    isOpen: (id: string) => shown() === id,
    open,
    /** Shows the one so many further on; after the last one comes the first. */
    turn: (by: number) =>
      open(inOrder[(inOrder.indexOf(shown()) + by + inOrder.length) % inOrder.length] ?? first),
    /** For what chooses a part. */
    opener: (id: string) => ({
      'aria-controls': id,
      'aria-current': shown() === id ? ('true' as const) : undefined,
      onClick: () => open(id),
    }),
    tab: (id: string) => ({
      'aria-controls': id,
      'aria-selected': shown() === id,
      onClick: () => open(id),
    }),
    panel: (id: string) => ({ id, hidden: shown() !== id, 'data-among': first }),
  };
}
