import styled from 'styled-components';
import { color, font } from '../theme/theme';

/** Height of a line, in px. */
export const LINE = 19;

/** What scrolls lines that are written, with their numbers beside them. */
export const NumberedScroller = styled.div`
  position: relative;
  min-height: 0;
  overflow: auto;
  background: ${color.field};
  border-top: 1px solid ${color.rule};
  font: 12.5px/${LINE}px ${font.code};
`;

/** Numbers, and what is written beside them. */
export const Lines = styled.div`
  position: relative;
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  min-height: 100%;
  min-width: max-content;
`;

/** Numbers of lines, an item each; those with `data-wrong` are marked. */
export const Numbers = styled.ol`
  padding: 8px 8px 8px 0;
  text-align: right;
  color: ${color.ink2};
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  user-select: none;
  position: sticky;
  left: 0;
  z-index: 1;
  li[data-wrong] {
    color: ${color.onLake};
    background: ${color.red};
    font-weight: 700;
  }
`;

/** What is written, as high as its lines. */
export const Entry = styled.textarea`
  font: inherit;
  padding: 8px 12px;
  border: 0;
  background: none;
  color: ${color.ink};
  white-space: pre;
  overflow: hidden;
  resize: none;
  tab-size: 2;
  field-sizing: content;
  min-width: 100%;
  &:focus-visible {
    outline: 2px solid ${color.lake};
    outline-offset: -2px;
  }
`;
