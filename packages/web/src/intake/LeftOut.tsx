import type { Notice, NoticeCause } from '@tovel/core';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';

const List = styled.ul`
  overflow: auto;
  min-height: 0;
  li {
    padding: 8px 16px;
    border-top: 1px solid ${color.rule};
  }
  li > div,
  details > div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 4px 8px;
  }
  button {
    flex: none;
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
/** What became of some files, in a word or two. */
function levelWords(level: Notice['level'], code: string, count: number): string {
  if (code !== 'shown-by-pages') return LEVEL_WORDS[level];
  return `${count} ${count === 1 ? 'picture' : 'pictures'}`;
}

/** So many causes are listed. */
const MOST = 500;

/** What says this of a file leaves it to whoever brought it in whether it is a screen all the same. */
const COULD_BE_SCREENS: ReadonlySet<string> = new Set([
  'shown-by-pages',
  'picture-unused',
  'icon-unused',
  'icons-unused',
  'page-twice',
  'page-piece',
  'library-pages',
]);

interface LeftOutProps {
  readonly notices: readonly NoticeCause[];
  /** Whether a file is at hand. */
  readonly hasFile: (path: string) => boolean;
  readonly onMakeScreen: (path: string) => void;
}

/** What was dropped, taken for something else or could not be read, and why; of several files once, with all of them to look up. */
export function LeftOut({ notices, hasFile, onMakeScreen }: LeftOutProps) {
  const fileLine = (file: string, code: string) => (
    <div key={file}>
      <small>{file}</small>
      {COULD_BE_SCREENS.has(code) && hasFile(file) && (
        <Button $kind="quiet" aria-label={`Make ${file} a screen`} onPress={() => onMakeScreen(file)}>
          Make it a screen
        </Button>
      )}
    </div>
  );
  return (
    <List aria-label="What was left out">
      {!notices.length && <li style={{ color: color.ink2 }}>Nothing was left out.</li>}
      {notices.slice(0, MOST).map(({ level, code, message, files }, i) => (
        <li key={i}>
          <Level $level={level}>{levelWords(level, code, files.length)}</Level>
          {message}
          {fileLine(files[0], code)}
          {files.length > 1 && (
            <details>
              <summary>and {files.length - 1} more</summary>
              {files.slice(1).map((file) => fileLine(file, code))}
            </details>
          )}
        </li>
      ))}
      {notices.length > MOST && <li>… and {notices.length - MOST} more</li>}
    </List>
  );
}
