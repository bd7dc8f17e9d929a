import type { CSSProperties } from 'react';
import styled from 'styled-components';
import { font } from '../theme/theme';
import { SuggestionList } from './Suggest';

const List = styled(SuggestionList)`
  max-height: 252px;
  min-width: 340px;
  li {
    font: 12px/16px ${font.code};
  }
  li span:last-child {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

interface CompletionsProps {
  /** Of the field that they are for; `ID-list` and `ID-0` and so on are the list and its entries. */
  readonly id: string;
  readonly offered: readonly { readonly text: string; readonly says: string }[];
  /** Which one is taken by Enter, from 0. */
  readonly place: number;
  readonly onTake: (text: string) => void;
  readonly style?: CSSProperties;
}

/** What can stand at the cursor of a field that code is typed in. */
export const Completions = ({ id, offered, place, onTake, style }: CompletionsProps) =>
  offered.length > 0 && (
    <List role="listbox" id={`${id}-list`} aria-label="What can stand here" style={style}>
      {offered.map((one, i) => (
        <li
          key={one.text}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === place}
          onPointerDown={(event) => {
            event.preventDefault();
            onTake(one.text);
          }}
        >
          <span>{one.text}</span>
          <span>{one.says}</span>
        </li>
      ))}
    </List>
  );
