import styled from 'styled-components';
import { color } from '../theme/theme';

/** The column beside files: what they are held against, and what was done. */
export const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 16px;
  padding: 14px 16px;
  border-right: 1px solid ${color.rule};
  h3 {
    font-size: 13px;
    padding-bottom: 4px;
    margin-bottom: 6px;
    border-bottom: 1px solid ${color.ink};
  }
  code {
    font-size: 12px;
    overflow-wrap: anywhere;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid ${color.rule};
    overflow-wrap: anywhere;
  }
  small {
    color: ${color.ink2};
  }
  li small {
    display: block;
  }
`;
