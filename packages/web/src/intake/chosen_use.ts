import {
  all,
  type App,
  type Change,
  type DrawnState,
  makeAlternatives,
  type Project,
  putUse,
  setStart,
  takeState,
  type Use,
} from '@tovel/core';

/** What screens are made, and of which other one. */
export interface ChosenUse {
  readonly use: Use;
  readonly of?: string;
  readonly state?: DrawnState;
}

const WORDS: Readonly<Record<Use, string>> = {
  screen: 'Keep',
  skip: 'Skip',
  counterpart: 'Make a counterpart of',
  overlay: 'Make an overlay of',
  planned: 'Plan',
  alternative: 'Make an alternative of',
  state: 'Make a state of',
};
/** What is one of these is still where one can begin. */
const CAN_START: readonly Use[] = ['screen', 'alternative', 'state'];

/** The step that makes screens something, with its label; null where all of them are that already. */
export function stepToUse(
  project: Project,
  keys: readonly string[],
  { use, of, state }: ChosenUse,
): { readonly label: string; readonly change: Change } | null {
  const { app } = project;
  const isSo = ({ use: own, of: around, state: drawn }: App['screens'][string]): boolean =>
    own === use && around === of && drawn === state;
  const chosen = keys.filter((key) => key !== of && !isSo(app.screens[key]));
  if (!chosen.length) return null;
  const names = chosen.length === 1 ? app.screens[chosen[0]].name : `${chosen.length} screens`;
  const change = (key: string): Change =>
    use === 'state' && of !== undefined && state !== undefined
      ? takeState(app, key, of, state)
      : putUse(app, key, use, of);
  const losesStart = !CAN_START.includes(use) && app.start !== null && chosen.includes(app.start);
  return {
    label: `${WORDS[use]} ${names}`,
    change: all([
      ...(use === 'alternative' && of !== undefined
        ? [makeAlternatives(project, chosen, of)]
        : chosen.map(change)),
      ...(losesStart ? [setStart(null)] : []),
    ]),
  };
}

/** ` and 2 counterparts, 1 skipped`. */
export function othersInWords(uses: readonly Use[]): string {
  const count = (use: Use): number => uses.filter((other) => other === use).length;
  const parts = [
    [count('counterpart'), 'counterpart'],
    [count('overlay'), 'overlay'],
    [count('alternative'), 'alternative'],
    [count('state'), 'state'],
  ].flatMap(([n, word]) => (n ? [`${n} ${word}${n === 1 ? '' : 's'}`] : []));
  if (count('skip')) parts.push(`${count('skip')} skipped`);
  return parts.length ? ` and ${parts.join(', ')}` : '';
}
