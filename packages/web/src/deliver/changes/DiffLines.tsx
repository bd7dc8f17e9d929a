import { useMemo } from 'react';
import styled from 'styled-components';
import { color, font } from '../../theme/theme';
import { diffRows } from './diff_rows';

/** The column in which one file is looked at. */
export const FileColumn = styled.section`
  min-width: 0;
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  > h3 {
    position: sticky;
    top: 0;
    z-index: 1;
    padding: 9px 16px 7px;
    font: 600 12px/1.4 ${font.code};
    background: ${color.sheet};
    border-bottom: 1px solid ${color.rule};
  }
  > p {
    padding: 8px 16px;
    color: ${color.ink2};
  }
`;

const Lines = styled.div`
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  font: 12px/19px ${font.code};
  padding-bottom: 16px;
`;

const Line = styled.div<{ $kind: 'same' | 'out' | 'in' | 'gap' }>`
  display: grid;
  grid-column: 1 / -1;
  grid-template-columns: 48px 20px minmax(0, 1fr);
  background: ${({ $kind }) => ($kind === 'in' ? color.lakeTint : $kind === 'out' ? color.redTint : 'none')};
  color: ${({ $kind }) => ($kind === 'gap' ? color.ink2 : 'inherit')};
  i {
    padding-right: 10px;
    text-align: right;
    font-style: normal;
    color: ${color.ink2};
    user-select: none;
  }
  span {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
`;

/** Two texts line by line: what went, what came, and a little of what stayed. */
export function DiffLines({ before, after }: { before: string; after: string }) {
  const rows = useMemo(() => diffRows(before, after), [before, after]);
  return (
    <Lines>
      {rows.map((row, i) =>
        row.kind === 'gap' ? (
          <Line key={i} $kind="gap">
            <i>⋯</i>
            <span />
            <span>
              {row.count} {row.count === 1 ? 'line' : 'lines'} as before
            </span>
          </Line>
        ) : (
          <Line key={i} $kind={row.kind}>
            <i>{row.after ?? row.before}</i>
            <span>{row.kind === 'in' ? '+' : row.kind === 'out' ? '−' : ''}</span>
            <span>{row.text}</span>
          </Line>
        ),
      )}
    </Lines>
  );
}
