import type { Notice } from '@tovel/core';
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
const ORDER: Record<Notice['level'], number> = { error: 0, warning: 1, info: 2 };

/** What was dropped or could not be read, and why. */
export function LeftOut({ notices }: { notices: readonly Notice[] }) {
  const sorted = notices.toSorted((a, b) => ORDER[a.level] - ORDER[b.level]);
  return (
    <List aria-label="What was left out">
      {!sorted.length && <li style={{ color: color.ink2 }}>Nothing was left out.</li>}
      {sorted.slice(0, 500).map((notice, i) => (
        <li key={i}>
          <Level $level={notice.level}>{LEVEL_WORDS[notice.level]}</Level>
          {notice.message}
          <small>{notice.file}</small>
        </li>
      ))}
      {sorted.length > 500 && <li>… and {sorted.length - 500} more</li>}
    </List>
  );
}
