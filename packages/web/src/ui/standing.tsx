import type { Standing } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';

/** How an element stands; one that is open may have a proposal. */
type Shown = Standing | 'proposed';

/** Filled square: live. Empty square: open, dashed where something is proposed. Filled diamond: broken. Line: still. */
const Mark = styled.span<{ $standing: Shown }>`
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 6px;
  flex: none;
  ${({ $standing }) =>
    ({
      live: `background: ${color.lake};`,
      open: `border: 1.5px solid currentcolor;`,
      proposed: `border: 1.5px dashed ${color.ochre};`,
      broken: `background: ${color.red}; transform: rotate(45deg);`,
      still: `height: 0; border-top: 2px solid currentcolor; vertical-align: middle;`,
    })[$standing]}
`;

const Word = styled.span<{ $isBroken: boolean }>`
  white-space: nowrap;
  font-size: 12px;
  color: ${({ $isBroken }) => ($isBroken ? color.red : 'inherit')};
`;

export function StandingMark({ standing }: { standing: Shown }) {
  return (
    <Word $isBroken={standing === 'broken'}>
      <Mark $standing={standing} aria-hidden="true" />
      {standing}
    </Word>
  );
}
