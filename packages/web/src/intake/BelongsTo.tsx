import { type DrawnState, isUsed, matchText } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { Choice } from '../ui/controls';
import { Suggest } from '../ui/Suggest';

/** Uses of screens that are said of another one, and what is asked for each. */
const QUESTIONS = {
  counterpart: 'The same as which screen, at another width?',
  overlay: 'Opens over which screen?',
  alternative: 'Another drawing of which screen?',
  state: 'What which screen shows while its list has nothing to show?',
} as const;
export type BelongingUse = keyof typeof QUESTIONS;
export const isBelonging = (use: unknown): use is BelongingUse =>
  typeof use === 'string' && Object.hasOwn(QUESTIONS, use);

/** Why a list has nothing to show. */
const STATES: readonly { readonly id: DrawnState; readonly label: string }[] = [
  { id: 'empty', label: 'no record fits' },
  { id: 'failed', label: 'they could not be had' },
  { id: 'waiting', label: 'they are still to come' },
];

interface BelongsToProps {
  use: BelongingUse;
  chosen: ReadonlySet<string>;
  /** Of a state: which it is. */
  onTake: (screen: string, state?: DrawnState) => void;
  onClose: () => void;
}

/** Asks which screen the chosen ones belong to. */
export function BelongsTo({ use, chosen, onTake, onClose }: BelongsToProps) {
  const project = useProject();
  const { app, graph } = project;
  const [typed, setTyped] = useState('');
  const [state, setState] = useState<DrawnState>('empty');
  const suggestions = useMemo(
    () =>
      graph.screens
        .filter((key) => !chosen.has(key) && isUsed(project, key))
        .map((key) => ({ key, score: matchText(app.screens[key].name, typed) }))
        .filter(({ score }) => score !== null)
        .sort((a, b) => a.score! - b.score!)
        .slice(0, 9)
        .map(({ key }) => ({ id: key, label: app.screens[key].name, detail: app.screens[key].route })),
    [graph, chosen, project, app, typed],
  );
  return (
    <Sheet title={QUESTIONS[use]} onClose={onClose}>
      {use === 'state' && (
        <div style={{ marginBottom: 12 }}>
          <Choice label="Because" value={state} options={STATES} onChange={setState} />
        </div>
      )}
      <Suggest
        label="Screen"
        isLabelHidden
        isStatic
        autoFocus={use !== 'state'}
        placeholder="Type the name of a screen"
        value={typed}
        onType={setTyped}
        suggestions={suggestions}
        nothing="No screen is called that."
        onLeave={onClose}
        onTake={(taken) => onTake(taken.id, use === 'state' ? state : undefined)}
      />
    </Sheet>
  );
}
