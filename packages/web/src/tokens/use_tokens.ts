import {
  exportTokens,
  importTokens,
  isUsed,
  type MergeProposal,
  normalValue,
  proposeMerges,
  proposeTokens,
  putRefused,
  putToken,
  type Token,
  type TokenProposal,
  valueUses,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { useProject } from '../project/context';
import { saveFile } from '../ui/save_file';
import { importing, isFreeName, merging, namingOf, renaming } from './token_changes';

/** The tokens of the project, the values that could have names, and what can be done with both. */
export function useTokens() {
  const project = useProject();
  const { app, design, session, name: projectName } = project;
  const { tokens, refused } = app;
  /** What became of a file that came in. */
  const [message, setMessage] = useState<string | null>(null);
  const screens = useMemo(
    () => design.screens.filter((screen) => isUsed(project, screen.key)),
    [design, project.graph.screens.join()],
  );
  const uses = useMemo(
    () => new Map(valueUses(screens).map((use) => [`${use.kind} ${use.value}`, use.uses])),
    [screens],
  );
  const proposals = useMemo(() => proposeTokens(screens, tokens), [screens, tokens]);
  const merges = useMemo(() => proposeMerges(screens, tokens, refused), [screens, tokens, refused]);
  return {
    tokens,
    proposals,
    merges,
    message,
    /** How often the values that a token stands for are used. */
    usesOf: ({ kind, from }: Token): number =>
      from.reduce((sum, value) => sum + (uses.get(`${kind} ${normalValue(kind, value)}`) ?? 0), 0),
    take(list: readonly TokenProposal[]) {
      const label = list.length === 1 ? `Name ${list[0].name}` : `Name ${list.length} values`;
      session.change(label, namingOf(list));
    },
    merge: (proposal: MergeProposal) =>
      session.change(`Make ${proposal.drop} be ${proposal.keep}`, merging(tokens, proposals, proposal)),
    keepApart: ({ id, drop }: MergeProposal) => session.change(`Keep ${drop} apart`, putRefused(id, true)),
    /** @returns whether it is called so now */
    rename(from: string, to: string): boolean {
      if (to === from) return true;
      if (!isFreeName(tokens, to)) return false;
      session.change(`Rename ${from} to ${to}`, renaming(tokens, from, to));
      return true;
    },
    setValue: (name: string, value: string) =>
      session.change(`${name} is ${value}`, putToken(name, { ...tokens[name], value })),
    giveUp: (name: string) => session.change(`Give ${name} up`, putToken(name, null)),
    save: () => saveFile(projectName, '.tokens.json', 'application/json', exportTokens(tokens)),
    async load(chosen: File): Promise<void> {
      try {
        const { tokens: given, leftOut } = importTokens(await chosen.text());
        const count = Object.keys(given).length;
        if (count) session.change(`Import ${count} tokens`, importing(tokens, given));
        const left = leftOut.length ? ` Left out: ${leftOut.join('; ')}.` : '';
        setMessage(`${count} tokens came in from ${chosen.name}.${left}`);
      } catch (error) {
        setMessage(`${chosen.name}: ${(error as Error).message}`);
      }
    },
  };
}

export type TokensHeld = ReturnType<typeof useTokens>;
