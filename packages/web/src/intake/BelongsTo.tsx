import { isUsed, matchText } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { Suggest } from '../ui/Suggest';

/** Uses of screens that are said of another one, and what is asked for each. */
const QUESTIONS = {
  counterpart: 'The same as which screen, at another width?',
  overlay: 'Opens over which screen?',
  alternative: 'Another drawing of which screen?',
} as const;
export type BelongingUse = keyof typeof QUESTIONS;
export const isBelonging = (use: unknown): use is BelongingUse =>
  typeof use === 'string' && Object.hasOwn(QUESTIONS, use);

interface BelongsToProps {
  use: BelongingUse;
  chosen: ReadonlySet<string>;
  onTake: (screen: string) => void;
  onClose: () => void;
}

/** Asks which screen the chosen ones belong to. */
export function BelongsTo({ use, chosen, onTake, onClose }: BelongsToProps) {
  const project = useProject();
  const { app, graph } = project;
  const [typed, setTyped] = useState('');
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
      <Suggest
        label="Screen"
        isLabelHidden
        isStatic
        autoFocus
        placeholder="Type the name of a screen"
        value={typed}
        onType={setTyped}
        suggestions={suggestions}
        nothing="No screen is called that."
        onLeave={onClose}
        onTake={(taken) => onTake(taken.id)}
      />
    </Sheet>
  );
}
