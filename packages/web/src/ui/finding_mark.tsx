import type { Finding } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';

/** How grave a finding is, by its shape first: a diamond, a filled square, an empty one. */
export const FindingMark = styled.i<{ $level: Finding['level'] }>`
  flex: none;
  display: inline-block;
  width: 9px;
  height: 9px;
  ${({ $level }) =>
    ({
      error: `background: ${color.red}; transform: rotate(45deg);`,
      warning: `background: ${color.ink};`,
      info: `border: 1.5px solid ${color.ink2};`,
    })[$level]}
`;

export const LEVEL_NAMES: Record<Finding['level'], string> = {
  error: 'Error',
  warning: 'Warning',
  info: 'To do',
};
