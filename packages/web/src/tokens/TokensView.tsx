import {
  all,
  exportTokens,
  importTokens,
  isSafeCssValue,
  isUsed,
  mergedToken,
  type MergeProposal,
  normalValue,
  proposeMerges,
  proposeTokens,
  putRefused,
  putToken,
  type Token,
  type TokenKind,
  type TokenProposal,
  valueUses,
} from '@tovel/core';
import { type ReactNode, useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { ScreensNav } from '../screens/ScreensNav';
import { StationBody, StationView } from '../screens/StationView';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { FileButton } from '../ui/FileButton';
import { saveFile } from '../ui/save_file';
import { Row } from '../workbench/panel';
import { ValueField } from '../workbench/ValueField';

const SheetList = styled.div`
  overflow: auto;
  padding: 6px 20px 30px;
  h3 {
    font-size: 13px;
    padding: 14px 0 5px;
    border-bottom: 1px solid ${color.ink};
    display: flex;
    justify-content: space-between;
  }
  h3 small {
    font-weight: 400;
    color: ${color.ink2};
  }
`;

const Line = styled.div<{ $isProposed: boolean }>`
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

const Swatch = styled.div<{ $isProposed?: boolean }>`
  width: 44px;
  height: 28px;
  display: grid;
  place-items: center;
  overflow: hidden;
  border: 1px ${({ $isProposed }) => ($isProposed ? 'dashed' : 'solid')}
    ${({ $isProposed }) => ($isProposed ? color.ochre : color.fieldRule)};
  background: ${color.field};
  color: ${color.ink};
  i {
    display: block;
  }
`;

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  padding: 12px 18px 24px;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  display: grid;
  gap: 12px;
  align-content: start;
  h3 {
    font-size: 13px;
  }
  li {
    display: grid;
    grid-template-columns: 44px 44px minmax(0, 1fr);
    gap: 4px 8px;
    align-items: center;
    padding: 7px 0;
    border-top: 1px solid ${color.rule};
  }
  li > div:last-child {
    grid-column: 1 / -1;
  }
  p {
    color: ${color.ink2};
  }
`;

const KINDS: readonly { kind: TokenKind; title: string }[] = [
  { kind: 'color', title: 'Colours' },
  { kind: 'size', title: 'Type sizes' },
  { kind: 'weight', title: 'Weights' },
  { kind: 'space', title: 'Spaces' },
  { kind: 'radius', title: 'Corners' },
  { kind: 'shadow', title: 'Shadows' },
];

const NAME = /^[a-z][a-z0-9-]{0,60}$/;

/** The values that recur, under names: a sheet of all of them, with how often each is used. */
export function TokensView() {
  const project = useProject();
  const { app, design, session, name: projectName } = project;
  const [message, setMessage] = useState<string | null>(null);
  const screens = useMemo(
    () => design.screens.filter((screen) => isUsed(project, screen.key)),
    [design, project.graph.screens.join()],
  );
  const uses = useMemo(() => {
    const counts = new Map<string, number>();
    for (const use of valueUses(screens)) counts.set(`${use.kind} ${use.value}`, use.uses);
    return counts;
  }, [screens]);
  const proposals = useMemo(() => proposeTokens(screens, app.tokens), [screens, app.tokens]);
  const merges = useMemo(
    () => proposeMerges(screens, app.tokens, app.refused),
    [screens, app.tokens, app.refused],
  );
  const usesOf = (token: Token): number =>
    token.from.reduce(
      (sum, value) => sum + (uses.get(`${token.kind} ${normalValue(token.kind, value)}`) ?? 0),
      0,
    );

  const take = (list: readonly TokenProposal[]): void =>
    session.change(
      list.length === 1 ? `Name ${list[0].name}` : `Name ${list.length} values`,
      all(list.map(({ name, token }) => putToken(name, token))),
    );
  const merge = (proposal: MergeProposal): void => {
    const fresh = proposals.find(
      ({ token }) => token.kind === proposal.kind && token.value === proposal.keep,
    )?.name;
    const { name, token } = mergedToken(app.tokens, proposal, fresh ?? `${proposal.kind}-merged`);
    // A token that stood for the value that is given up has nothing left to stand for.
    const dropped = Object.entries(app.tokens).filter(
      ([other, { kind, from }]) =>
        other !== name &&
        kind === proposal.kind &&
        from.every((value) => normalValue(kind, value) === proposal.drop),
    );
    session.change(
      `Make ${proposal.drop} be ${proposal.keep}`,
      all([...dropped.map(([other]) => putToken(other, null)), putToken(name, token)]),
    );
  };
  const rename = (from: string, to: string): void => {
    if (!NAME.test(to) || to === from || app.tokens[to]) return;
    session.change(`Rename ${from} to ${to}`, all([putToken(from, null), putToken(to, app.tokens[from])]));
  };
  const save = (): void =>
    saveFile(projectName, '.tokens.json', 'application/json', exportTokens(app.tokens));
  const load = async (chosen: File): Promise<void> => {
    try {
      const { tokens, leftOut } = importTokens(await chosen.text());
      const names = Object.keys(tokens);
      if (names.length)
        session.change(
          `Import ${names.length} tokens`,
          all(
            names.map((name) => {
              const known = app.tokens[name];
              return putToken(name, known ? { ...known, value: tokens[name].value } : tokens[name]);
            }),
          ),
        );
      setMessage(
        `${names.length} tokens came in from ${chosen.name}.${leftOut.length ? ` Left out: ${leftOut.join('; ')}.` : ''}`,
      );
    } catch (error) {
      setMessage(`${chosen.name}: ${(error as Error).message}`);
    }
  };
  const total = Object.keys(app.tokens).length;
  return (
    <StationView>
      <ScreensNav>
        <span style={{ marginLeft: 'auto', color: color.ink2 }}>
          {total} {total === 1 ? 'token' : 'tokens'}
        </span>
        <FileButton
          label="A file of design tokens"
          accept=".json,application/json"
          onChoose={(chosen) => void load(chosen)}
        >
          Import …
        </FileButton>
        <Button onPress={save} isDisabled={!total}>
          Export as JSON
        </Button>
        <Button $kind="primary" isDisabled={!proposals.length} onPress={() => take(proposals)}>
          {proposals.length ? `Name all ${proposals.length} values` : 'All are named'}
        </Button>
      </ScreensNav>
      <StationBody $columns="minmax(0, 1fr) 372px">
        <SheetList aria-label="Tokens">
          {message && (
            <p role="status" style={{ padding: '8px 0' }}>
              {message}
            </p>
          )}
          {KINDS.map(({ kind, title }) => {
            const own = Object.entries(app.tokens)
              .filter(([, token]) => token.kind === kind)
              .sort((a, b) => usesOf(b[1]) - usesOf(a[1]));
            const open = proposals.filter(({ token }) => token.kind === kind);
            if (!own.length && !open.length) return null;
            return (
              <section key={kind} aria-label={title}>
                <h3>
                  {title}{' '}
                  <small>
                    {own.length} named, {open.length} proposed
                  </small>
                </h3>
                {own.map(([name, token]) => (
                  <Line key={name} $isProposed={false}>
                    <Swatch>{sample(kind, token.value)}</Swatch>
                    <input
                      data-name
                      aria-label={`Name of ${name}`}
                      defaultValue={name}
                      onBlur={(event) => {
                        const next = event.target.value.trim();
                        if (next !== name && (!NAME.test(next) || app.tokens[next]))
                          event.target.value = name;
                        else rename(name, next);
                      }}
                      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                    />
                    <ValueField
                      label={`Value of ${name}`}
                      value={token.value}
                      isEdited={false}
                      isColor={kind === 'color'}
                      unit={kind === 'size' || kind === 'space' || kind === 'radius' ? 'px' : ''}
                      check={(value) => value !== '' && isSafeCssValue(value)}
                      onValue={(value) =>
                        value && session.change(`${name} is ${value}`, putToken(name, { ...token, value }))
                      }
                    />
                    <span title={token.from.join(', ')}>
                      {usesOf(token)} uses
                      {token.from.length > 1
                        ? ` of ${token.from.length} values`
                        : token.from[0] !== token.value
                          ? `, drawn as ${token.from[0]}`
                          : ''}
                    </span>
                    <Button
                      $kind="quiet"
                      aria-label={`Give ${name} up`}
                      onPress={() => session.change(`Give ${name} up`, putToken(name, null))}
                    >
                      Give up
                    </Button>
                  </Line>
                ))}
                {open.map((proposal) => (
                  <Line key={proposal.name} $isProposed>
                    <Swatch $isProposed>{sample(kind, proposal.token.value)}</Swatch>
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
          })}
        </SheetList>
        <Side aria-label="Nearly the same">
          <h3>
            {merges.length
              ? `${merges.length} values are nearly the same as another`
              : 'No two values are nearly the same'}
          </h3>
          <p>
            Where one would do, take the other back to it. What was drawn stays; the token stands for both.
          </p>
          <ul>
            {merges.map((proposal) => (
              <li key={proposal.id}>
                <Swatch $isProposed>{sample(proposal.kind, proposal.drop)}</Swatch>
                <Swatch>{sample(proposal.kind, proposal.keep)}</Swatch>
                <span>{proposal.reason}</span>
                <Row>
                  <Button
                    aria-label={`Make ${proposal.drop} be ${proposal.keep}`}
                    onPress={() => merge(proposal)}
                  >
                    Merge
                  </Button>
                  <Button
                    $kind="quiet"
                    aria-label={`Keep ${proposal.drop} apart`}
                    onPress={() =>
                      session.change(`Keep ${proposal.drop} apart`, putRefused(proposal.id, true))
                    }
                  >
                    Keep apart
                  </Button>
                </Row>
              </li>
            ))}
          </ul>
        </Side>
      </StationBody>
    </StationView>
  );
}

/** What a value looks like. */
function sample(kind: TokenKind, value: string): ReactNode {
  switch (kind) {
    case 'color':
      return <i style={{ width: '100%', height: 28, background: value }} />;
    case 'size':
      return <b style={{ fontSize: `min(${value}, 22px)`, fontWeight: 500, lineHeight: 1 }}>Aa</b>;
    case 'weight':
      return <b style={{ fontWeight: Number(value) || 400 }}>Aa</b>;
    case 'space':
      return (
        <i
          style={{
            width: `min(${value}, 40px)`,
            height: 12,
            background: color.lakeTint,
            borderInline: `1px solid ${color.lake}`,
          }}
        />
      );
    case 'radius':
      return <i style={{ width: 26, height: 18, border: `1.5px solid ${color.ink}`, borderRadius: value }} />;
    case 'shadow':
      return <i style={{ width: 26, height: 16, background: color.field, boxShadow: value }} />;
  }
}
