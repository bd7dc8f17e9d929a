import { screenName } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import type { Grid, Look } from './use_grid';

const Square = styled.button<{ $look: Look; $isOn: boolean; $became?: 'new' | 'gone' }>`
  display: block;
  width: 100%;
  height: 100%;
  padding: 0;
  border: 1px solid ${color.rule};
  margin: -0.5px;
  cursor: pointer;
  font: 11px ${font.code};
  background: ${color.sheet};
  color: ${color.onLake};
  ${({ $look }) =>
    ({
      live: `background: ${color.lake};`,
      broken: `background: ${color.redTint}; color: ${color.red}; box-shadow: inset 0 0 0 2px ${color.red};`,
      self: `background: ${color.rule}; color: ${color.ink};`,
      marked: `background: ${color.redTint};`,
      proposed: `border: 1.5px dashed ${color.ochre}; z-index: 1; position: relative;`,
      empty: '',
    })[$look]}
  ${({ $became }) =>
    $became &&
    `box-shadow: inset 0 0 0 3px ${$became === 'new' ? color.lake : color.ochre}; ${$became === 'gone' ? `color: ${color.ochre};` : ''}`}
  ${({ $isOn }) => $isOn && `outline: 2px solid ${color.ink}; outline-offset: 0; position: relative; z-index: 1;`}
`;

interface GridCellProps {
  grid: Grid;
  from: string;
  to: string;
  /** Its place, from 0, by which keys find the next. */
  row: number;
  column: number;
  isOn: boolean;
  /** Whether the Tab key comes to it. */
  isReached: boolean;
  onPress: () => void;
}

/** How many links lead from one screen to another; pressed, it shows them. */
export function GridCell({ grid, from, to, row, column, isOn, isReached, onPress }: GridCellProps) {
  const project = useProject();
  const count = grid.linksOf(from, to).length;
  const look = grid.lookOf(from, to);
  const became = grid.becameOf(from, to);
  const names = `${screenName(project, from)} to ${screenName(project, to)}`;
  const says = [
    `${count || 'no'} ${count === 1 ? 'link' : 'links'}`,
    ...(look === 'broken' || look === 'proposed' ? [look] : []),
    ...(became ? [became] : []),
  ];
  return (
    <Square
      id={`cell ${row} ${column}`}
      type="button"
      $look={look}
      $isOn={isOn}
      {...(became ? { $became: became } : {})}
      aria-pressed={isOn}
      tabIndex={isReached ? 0 : -1}
      aria-label={`${names}: ${says.join(', ')}`}
      title={names}
      onClick={onPress}
    >
      {became === 'gone' && !count
        ? '×'
        : look === 'broken'
          ? '◆'
          : count > 1 || (look === 'self' && count)
            ? count
            : ''}
    </Square>
  );
}
