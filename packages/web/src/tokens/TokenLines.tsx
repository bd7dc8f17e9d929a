import { isSafeCssValue, type Token, type TokenKind } from '@tovel/core';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { ValueField } from '../workbench/ValueField';
import { Swatch } from './Swatch';
import type { TokensHeld } from './use_tokens';

const Line = styled.div`
  display: grid;
  grid-template-columns: 46px minmax(120px, 190px) minmax(120px, 210px) minmax(60px, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 42px;
  border-bottom: 1px solid ${color.rule};
  > span {
    color: ${color.ink2};
    font-size: 12px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > code {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  input[data-name] {
    width: 100%;
    height: 27px;
    padding: 2px 7px;
    border: 1px solid ${color.fieldRule};
    background: ${color.field};
    color: ${color.ink};
    font: 12px ${font.code};
  }
  label > span {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
`;

const IN_PX: ReadonlySet<TokenKind> = new Set(['size', 'space', 'radius']);

interface TokenLinesProps {
  kind: TokenKind;
  title: string;
  held: TokensHeld;
}

/** The values of a kind: those that have names, the most used first, and those that could have. */
export function TokenLines({ kind, title, held }: TokenLinesProps) {
  const { tokens, usesOf, take } = held;
  const own = Object.entries(tokens)
    .filter(([, token]) => token.kind === kind)
    .sort((a, b) => usesOf(b[1]) - usesOf(a[1]));
  const open = held.proposals.filter(({ token }) => token.kind === kind);
  if (!own.length && !open.length) return null;
  return (
    <section aria-label={title}>
      <h3>
        {title}{' '}
        <small>
          {own.length} named, {open.length} proposed
        </small>
      </h3>
      {own.map(([name, token]) => (
        <Named key={name} name={name} token={token} held={held} />
      ))}
      {open.map((proposal) => (
        <Line key={proposal.name}>
          <Swatch kind={kind} value={proposal.token.value} isProposed />
          <code>{proposal.name}</code>
          <code>{proposal.token.value}</code>
          <span>{proposal.uses} uses</span>
          <Button
            aria-label={`Name ${proposal.token.value} ${proposal.name}`}
            onPress={() => take([proposal])}
          >
            Name it
          </Button>
        </Line>
      ))}
    </section>
  );
}

function Named({ name, token, held }: { name: string; token: Token; held: TokensHeld }) {
  const { kind, value, from } = token;
  return (
    <Line>
      <Swatch kind={kind} value={value} />
      <input
        data-name
        aria-label={`Name of ${name}`}
        defaultValue={name}
        onBlur={(event) => {
          if (!held.rename(name, event.target.value.trim())) event.target.value = name;
        }}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      <ValueField
        label={`Value of ${name}`}
        value={value}
        isEdited={false}
        isColor={kind === 'color'}
        unit={IN_PX.has(kind) ? 'px' : ''}
        check={(next) => next !== '' && isSafeCssValue(next)}
        onValue={(next) => next && held.setValue(name, next)}
      />
      <span title={from.join(', ')}>
        {held.usesOf(token)} uses
        {from.length > 1 ? ` of ${from.length} values` : from[0] !== value ? `, drawn as ${from[0]}` : ''}
      </span>
      <Button $kind="quiet" aria-label={`Give ${name} up`} onPress={() => held.giveUp(name)}>
        Give up
      </Button>
    </Line>
  );
}
