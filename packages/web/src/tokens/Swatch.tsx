import type { TokenKind } from '@tovel/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';

const Box = styled.div<{ $isProposed?: boolean }>`
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

/** A value as it looks; in dashes where it has no name. */
export const Swatch = ({ kind, value, isProposed = false }: SwatchProps) => (
  <Box $isProposed={isProposed}>{sample(kind, value)}</Box>
);

interface SwatchProps {
  kind: TokenKind;
  value: string;
  isProposed?: boolean;
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
