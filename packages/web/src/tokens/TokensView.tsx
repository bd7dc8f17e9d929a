import type { TokenKind } from '@tovel/core';
import styled from 'styled-components';
import { ScreensNav } from '../screens/ScreensNav';
import { StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { FileButton } from '../ui/FileButton';
import { counted } from '../ui/counted';
import { NearlySame } from './NearlySame';
import { TokenLines } from './TokenLines';
import { useTokens } from './use_tokens';

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

const KINDS: readonly { kind: TokenKind; title: string }[] = [
  { kind: 'color', title: 'Colours' },
  { kind: 'size', title: 'Type sizes' },
  { kind: 'weight', title: 'Weights' },
  { kind: 'space', title: 'Spaces' },
  { kind: 'radius', title: 'Corners' },
  { kind: 'shadow', title: 'Shadows' },
];

/** The values that recur, under names: a sheet of all of them, with how often each is used. */
export function TokensView() {
  const held = useTokens();
  const { tokens, proposals, message } = held;
  const total = Object.keys(tokens).length;
  return (
    <StationView>
      <ScreensNav>
        <span style={{ marginLeft: 'auto', color: color.ink2 }}>{counted(total, 'token')}</span>
        <FileButton
          label="A file of design tokens"
          accept=".json,application/json"
          onChoose={(chosen) => void held.load(chosen)}
        >
          Import …
        </FileButton>
        <Button onPress={held.save} isDisabled={!total}>
          Export as JSON
        </Button>
        <Button $kind="primary" isDisabled={!proposals.length} onPress={() => held.take(proposals)}>
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
          {KINDS.map(({ kind, title }) => (
            <TokenLines key={kind} kind={kind} title={title} held={held} />
          ))}
        </SheetList>
        <NearlySame held={held} />
      </StationBody>
    </StationView>
  );
}
