import {
  all,
  type Change,
  mergedToken,
  type MergeProposal,
  normalValue,
  putToken,
  type Token,
  type TokenProposal,
} from '@tovel/core';

type Tokens = Readonly<Record<string, Token>>;

const NAME = /^[a-z][a-z0-9-]{0,60}$/;

/** Whether a token may be called so, where others have their names. */
export const isFreeName = (tokens: Tokens, name: string): boolean =>
  NAME.test(name) && !Object.hasOwn(tokens, name);

export const namingOf = (list: readonly TokenProposal[]): Change =>
  all(list.map(({ name, token }) => putToken(name, token)));

export const renaming = (tokens: Tokens, from: string, to: string): Change =>
  all([putToken(from, null), putToken(to, tokens[from])]);

/**
 * Has one token stand for both values of a merge, under its name or the one that is proposed for it. A token that stood for
 * the value that is given up has nothing left to stand for, and goes.
 */
export function merging(
  tokens: Tokens,
  proposals: readonly TokenProposal[],
  proposal: MergeProposal,
): Change {
  const fresh = proposals.find(
    ({ token }) => token.kind === proposal.kind && token.value === proposal.keep,
  )?.name;
  const { name, token } = mergedToken(tokens, proposal, fresh ?? `${proposal.kind}-merged`);
  const dropped = Object.entries(tokens).filter(
    ([other, { kind, from }]) =>
      other !== name &&
      kind === proposal.kind &&
      from.every((value) => normalValue(kind, value) === proposal.drop),
  );
  return all([...dropped.map(([other]) => putToken(other, null)), putToken(name, token)]);
}

/** Tokens of a file: those that are there keep what they stand for, and take its values. */
export const importing = (tokens: Tokens, given: Tokens): Change =>
  all(
    Object.keys(given).map((name) => {
      const known = Object.hasOwn(tokens, name) ? tokens[name] : null;
      return putToken(name, known ? { ...known, value: given[name].value } : given[name]);
    }),
  );
