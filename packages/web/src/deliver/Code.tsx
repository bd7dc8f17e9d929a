import { useVirtualizer } from '@tanstack/react-virtual';
import { Highlight, type PrismTheme } from 'prism-react-renderer';
import { useEffect, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { color, font } from '../theme/theme';

const LINE = 19;

const Scroller = styled.div`
  overflow: auto;
  background: ${color.sheet};
  font: 12px/${LINE}px ${font.code};
  outline-offset: -2px;
`;

const Line = styled.div<{ $isOn: boolean; $isLinked: boolean }>`
  position: absolute;
  left: 0;
  min-width: 100%;
  height: ${LINE}px;
  white-space: pre;
  padding-right: 16px;
  cursor: ${({ $isLinked }) => ($isLinked ? 'pointer' : 'text')};
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  box-shadow: ${({ $isOn }) => ($isOn ? `inset 3px 0 0 ${color.lake}` : 'none')};
  &:hover {
    background: ${({ $isLinked, $isOn }) => ($isLinked && !$isOn ? color.side : undefined)};
  }
  i {
    display: inline-block;
    width: 46px;
    padding-right: 12px;
    text-align: right;
    font-style: normal;
    color: ${color.ink2};
    user-select: none;
  }
`;

const theme: PrismTheme = {
  plain: {},
  styles: [
    { types: ['keyword', 'tag', 'selector', 'atrule'], style: { color: color.lake } },
    { types: ['string', 'attr-value', 'url'], style: { color: color.ochre } },
    { types: ['comment'], style: { color: color.ink2, fontStyle: 'italic' } },
    { types: ['function', 'class-name'], style: { fontWeight: '600' as unknown as 'bold' } },
    { types: ['punctuation'], style: { color: color.ink2 } },
  ],
};

const LANGUAGES: Record<string, string> = {
  tsx: 'tsx',
  ts: 'tsx',
  css: 'css',
  json: 'json',
  md: 'markdown',
  html: 'markup',
};

interface CodeProps {
  path: string;
  text: string;
  /** The design element of each line. */
  lines: readonly (string | null)[];
  element: string | null;
  onLine: (element: string) => void;
}

/** Highlighted code; the lines of the chosen element are marked and brought into sight. */
export function Code({ path, text, lines, element, onLine }: CodeProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const count = useMemo(() => text.trimEnd().split('\n').length, [text]);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE,
    overscan: 20,
  });
  const first = element ? lines.indexOf(element) : -1;
  useEffect(() => {
    if (first >= 0) rows.scrollToIndex(first, { align: 'center' });
    else scroller.current?.scrollTo?.(0, 0);
  }, [first, path, rows]);
  return (
    <Scroller ref={scroller} tabIndex={0} role="region" aria-label={`Code of ${path}`}>
      <Highlight
        code={text.trimEnd()}
        language={LANGUAGES[path.replace(/^.*\./, '')] ?? 'markup'}
        theme={theme}
      >
        {({ tokens, getTokenProps }) => (
          <div style={{ height: rows.getTotalSize(), position: 'relative', margin: '8px 0' }}>
            {rows.getVirtualItems().map(({ index, start }) => {
              const key = lines[index] ?? null;
              return (
                <Line
                  key={index}
                  data-line={index + 1}
                  data-marked={(key !== null && key === element) || undefined}
                  $isOn={key !== null && key === element}
                  $isLinked={key !== null}
                  style={{ top: start }}
                  onClick={() => key && onLine(key)}
                >
                  <i>{index + 1}</i>
                  {tokens[index]?.map((token, i) => (
                    <span key={i} {...getTokenProps({ token })} />
                  ))}
                </Line>
              );
            })}
          </div>
        )}
      </Highlight>
    </Scroller>
  );
}
