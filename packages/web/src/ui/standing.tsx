import type { Standing } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';

/** Filled square: live. Empty square: open. Filled diamond: broken. Line: still. */
const Mark = styled.span<{ $standing: Standing }>`
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 6px;
  flex: none;
  ${({ $standing }) =>
    ({
      live: `background: ${color.lake};`,
      open: `border: 1.5px solid currentcolor;`,
      broken: `background: ${color.red}; transform: rotate(45deg);`,
      still: `height: 0; border-top: 2px solid currentcolor; vertical-align: middle;`,
    })[$standing]}
`;

const Word = styled.span<{ $isBroken: boolean }>`
  white-space: nowrap;
  font-size: 12px;
  color: ${({ $isBroken }) => ($isBroken ? color.red : 'inherit')};
`;

export function StandingMark({ standing }: { standing: Standing }) {
  return (
    <Word $isBroken={standing === 'broken'}>
      <Mark $standing={standing} aria-hidden="true" />
      {standing}
    </Word>
  );
}
