import type { Difference } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';

const List = styled.ul`
  button {
    display: block;
    width: 100%;
    padding: 6px 16px;
    border: 0;
    border-top: 1px solid ${color.rule};
    background: none;
    text-align: left;
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  button:hover,
  button[aria-pressed='true'] {
    background: ${color.lakeTint};
  }
  b {
    font-weight: 600;
  }
  span {
    color: ${color.ink2};
  }
`;

const Nothing = styled.p`
  padding: 4px 16px 10px;
  color: ${color.ink2};
`;

/** Lines drawn at once, at most; a screen with more has been drawn anew. */
const MOST_LINES = 300;

interface DifferenceListProps {
  differences: readonly Difference[];
  marked: Difference | null;
  onMark: (difference: Difference | null) => void;
  nothing: string;
}

/** What differs, in words; a line that is pointed at, or has the focus, is marked in both pictures. */
export function DifferenceList({ differences, marked, onMark, nothing }: DifferenceListProps) {
  if (!differences.length) return <Nothing>{nothing}</Nothing>;
  return (
    <>
      <List aria-label="What differs">
        {differences.slice(0, MOST_LINES).map((difference) => {
          const more = Math.max(difference.olds.length, difference.nows.length) - 1;
          return (
            <li key={`${difference.kind} ${difference.says} ${difference.olds[0] ?? difference.nows[0]}`}>
              <button
                type="button"
                aria-pressed={difference === marked}
                onPointerEnter={() => onMark(difference)}
                onFocus={() => onMark(difference)}
                onClick={() => onMark(difference)}
              >
                <b>
                  {difference.label}
                  {more > 0 && ` and ${more} more`}
                </b>
                <span>: {difference.says}</span>
              </button>
            </li>
          );
        })}
      </List>
      {differences.length > MOST_LINES && <Nothing>and {differences.length - MOST_LINES} more</Nothing>}
    </>
  );
}
