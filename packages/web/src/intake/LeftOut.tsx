import type { Notice, NoticeCause } from '@tovel/core';
import styled from 'styled-components';
import { color, font } from '../theme/theme';

const List = styled.ul`
  overflow: auto;
  min-height: 0;
  li {
    padding: 8px 16px;
    border-top: 1px solid ${color.rule};
  }
  small {
    display: block;
    font: 11.5px ${font.code};
    color: ${color.ink2};
    overflow-wrap: anywhere;
  }
  summary {
    width: fit-content;
    cursor: pointer;
    font-size: 12px;
    color: ${color.ink2};
  }
`;

const Level = styled.b<{ $level: Notice['level'] }>`
  font-size: 11.5px;
  font-weight: 650;
  margin-right: 6px;
  color: ${({ $level }) => ({ error: color.red, warning: color.ochre, info: color.ink2 })[$level]};
`;

const LEVEL_WORDS: Record<Notice['level'], string> = {
  error: 'not read',
  warning: 'incomplete',
  info: 'left out',
};
/** So many causes are listed. */
const MOST = 500;

/** What was dropped or could not be read, and why; of several files once, with all of them to look up. */
export function LeftOut({ notices }: { notices: readonly NoticeCause[] }) {
  return (
    <List aria-label="What was left out">
      {!notices.length && <li style={{ color: color.ink2 }}>Nothing was left out.</li>}
      {notices.slice(0, MOST).map(({ level, message, files }, i) => (
        <li key={i}>
          <Level $level={level}>{LEVEL_WORDS[level]}</Level>
          {message}
          <small>{files[0]}</small>
          {files.length > 1 && (
            <details>
              <summary>and {files.length - 1} more</summary>
              {files.slice(1).map((file) => (
                <small key={file}>{file}</small>
              ))}
            </details>
          )}
        </li>
      ))}
      {notices.length > MOST && <li>… and {notices.length - MOST} more</li>}
    </List>
  );
}
