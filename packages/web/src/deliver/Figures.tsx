import { type EmittedProject, figuresOf } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';

const List = styled.dl`
  margin: 0;
  padding: 10px 12px 12px;
  border-top: 1px solid ${color.rule};
  font-size: 12px;
  line-height: 1.5;
  div {
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
  dt {
    color: ${color.ink2};
  }
  dd {
    margin: 0;
    font-weight: 600;
    text-align: right;
  }
`;

const percent = (part: number, whole: number): string =>
  whole ? `${Math.round((part / whole) * 100)} %` : '0 %';

/** The few figures of the code that whoever takes it over would count first. */
export function Figures({ emitted }: { emitted: EmittedProject }) {
  const figures = useMemo(() => figuresOf(emitted), [emitted]);
  const { codeLines, styleLines, parts, longest, mostGiven, rules, sameRules, hardColors } = figures;
  const rows: readonly (readonly [what: string, value: string, more?: string])[] = [
    ['Parts', String(parts)],
    ['Lines of code', codeLines.toLocaleString('en')],
    ['Lines of styles', styleLines.toLocaleString('en')],
    ...(longest ? [['Longest part', `${longest.lines} lines`, longest.path] as const] : []),
    ...(mostGiven ? [['Most props', String(mostGiven.props), mostGiven.path] as const] : []),
    ['Rules said twice', percent(sameRules, rules)],
    ['Colours without a name', String(hardColors)],
  ];
  return (
    <List aria-label="The code in figures">
      {rows.map(([what, value, more]) => (
        <div key={what} title={more}>
          <dt>{what}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </List>
  );
}
