import { useVirtualizer } from '@tanstack/react-virtual';
import type { Finding, Screen } from '@tovel/core';
import { type KeyboardEvent, memo, type MouseEvent, useEffect, useLayoutEffect, useRef } from 'react';
import styled from 'styled-components';
import { pictureSize } from '../picture/picture_size';
import { LazyPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { FindingMark } from '../ui/finding_mark';
import { cardSize, type SheetCard, sheetLengths, type SheetRow } from './contact_rows';
import { useSheetChoice } from './use_sheet_choice';

const Scroller = styled.div`
  overflow: auto;
  outline-offset: -3px;
`;

const Row = styled.div`
  position: absolute;
  left: 18px;
  right: 18px;
  display: flex;
  gap: ${sheetLengths.gap}px;
  align-items: flex-start;
`;

const Head = styled.h3`
  position: absolute;
  left: 0;
  right: 0;
  padding: 14px 18px 0;
  font-size: 13px;
  border-top: 1px solid ${color.rule};
  span {
    margin-left: 6px;
    font-weight: 400;
    color: ${color.ink2};
  }
`;

const Card = styled.div<{ $isOn: boolean; $isAt: boolean; $isFaint: boolean }>`
  flex: none;
  cursor: pointer;
  .picture {
    width: fit-content;
    border: 1px solid ${color.rule};
    overflow: hidden;
    opacity: ${({ $isFaint }) => ($isFaint ? 0.5 : 1)};
    outline: ${({ $isOn, $isAt }) => ($isOn ? `2px solid ${color.ink}` : $isAt ? `2px solid ${color.lake}` : 'none')};
    outline-offset: 2px;
  }
  b,
  small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  b {
    margin-top: 6px;
  }
  small {
    font: 11.5px ${font.code};
    color: ${color.ink2};
  }
  em {
    font-style: normal;
    font-weight: 600;
    font-size: 11.5px;
    color: ${color.ink};
    display: inline-flex;
    gap: 4px;
    align-items: center;
    margin-right: 8px;
  }
`;

const Under = styled.div`
  display: flex;
  gap: 8px;
  margin-top: 8px;
  align-items: flex-start;
`;

interface ContactSheetProps {
  rows: readonly SheetRow[];
  scale: number;
  screens: ReadonlyMap<string, Screen>;
  findings: ReadonlyMap<string, readonly Finding[]>;
  selected: ReadonlySet<string>;
  onSelect: (keys: ReadonlySet<string>) => void;
  onOpen: (key: string) => void;
  /** Told the width that rows have, in px. */
  onWidth: (width: number) => void;
  /** Keys that mean something for the whole selection. */
  onKey: (event: KeyboardEvent) => void;
}

/** All screens at their true relative size. Only rows near the window are there, and pictures when they come near. */
export function ContactSheet({
  rows,
  scale,
  screens,
  findings,
  selected,
  onSelect,
  onOpen,
  onWidth,
  onKey,
}: ContactSheetProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => rows[index].height,
    overscan: 2,
    paddingStart: 14,
    paddingEnd: 24,
  });
  useEffect(() => virtual.measure(), [rows, virtual]);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) => onWidth(entry.contentRect.width - 36));
    watcher.observe(scroller.current!);
    return () => watcher.disconnect();
  }, [onWidth]);

  const { current, onPress, onKeyDown } = useSheetChoice({
    rows,
    selected,
    onSelect,
    onOpen,
    onKey,
    onShow: (row) => virtual.scrollToIndex(row, { align: 'auto' }),
    onPressed: () => scroller.current?.focus(),
  });

  const card = ({ key, attached }: SheetCard) => (
    <SheetEntry
      key={key}
      screen={screens.get(key)!}
      width={cardSize({ key, attached }, (one) => screens.get(one)!, scale).width}
      scale={scale}
      found={findings.get(key) ?? NONE}
      isOn={selected.has(key)}
      isAt={key === current}
      onPress={onPress}
      onOpen={onOpen}
    >
      {attached.length > 0 && (
        <Under>
          {attached.map((under) => (
            <SheetEntry
              key={under.key}
              screen={screens.get(under.key)!}
              width={Math.max(
                64,
                pictureSize(screens.get(under.key)!, scale * sheetLengths.attachedScale).width,
              )}
              scale={scale * sheetLengths.attachedScale}
              found={findings.get(under.key) ?? NONE}
              isOn={selected.has(under.key)}
              isAt={under.key === current}
              isUnder
              onPress={onPress}
              onOpen={onOpen}
            />
          ))}
        </Under>
      )}
    </SheetEntry>
  );
  return (
    <Scroller
      ref={scroller}
      role="listbox"
      aria-label="Screens that came in"
      aria-multiselectable="true"
      aria-activedescendant={current ? `sheet-${current}` : undefined}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onClick={() => onSelect(new Set())}
    >
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index];
          if (!row) return null;
          if (row.kind === 'head')
            return (
              <Head key="head" role="presentation" style={{ top: start }}>
                {row.title} <span>{row.count}</span>
              </Head>
            );
          return (
            <Row key={row.cards[0].key} role="presentation" style={{ top: start }}>
              {row.cards.map(card)}
            </Row>
          );
        })}
      </div>
    </Scroller>
  );
}

const NONE: readonly Finding[] = [];

interface EntryProps {
  screen: Screen;
  width: number;
  scale: number;
  found: readonly Finding[];
  isOn: boolean;
  isAt: boolean;
  isUnder?: boolean;
  onPress: (event: MouseEvent, key: string) => void;
  onOpen: (key: string) => void;
  children?: React.ReactNode;
}

const SheetEntry = memo(function SheetEntry({
  screen,
  width,
  scale,
  found,
  isOn,
  isAt,
  isUnder,
  onPress,
  onOpen,
  children,
}: EntryProps) {
  const { app } = useProject();
  const entry = app.screens[screen.key];
  const size = pictureSize(screen, scale);
  const worst =
    found.find((finding) => finding.level === 'error') ??
    found.find((finding) => finding.level === 'warning') ??
    found[0];
  const uses = {
    screen: entry.route,
    skip: 'skipped',
    counterpart: 'counterpart',
    overlay: 'overlay',
    planned: 'to be drawn',
    alternative: 'alternative',
    state: entry.state ?? 'empty',
  };
  return (
    <Card $isOn={isOn} $isAt={isAt} $isFaint={entry.use === 'skip'} style={{ width }} role="presentation">
      <div
        id={`sheet-${screen.key}`}
        role="option"
        aria-selected={isOn}
        aria-label={`${entry.name}, ${entry.use === 'screen' ? 'screen' : entry.use === 'state' ? `${uses.state} state` : uses[entry.use]}${found.length ? `, ${found.length} found` : ''}`}
        onClick={(event) => onPress(event, screen.key)}
        onDoubleClick={() => onOpen(screen.key)}
      >
        <div className="picture">
          <LazyPicture screen={screen} width={size.width} height={size.height} />
        </div>
        {isUnder ? (
          <small title={entry.name}>{uses[entry.use]}</small>
        ) : (
          <>
            <b title={entry.name}>{entry.name}</b>
            <small>
              {worst && (
                <em title={found.map((finding) => finding.message).join('\n')}>
                  <FindingMark $level={worst.level} /> {found.length}
                </em>
              )}
              {uses[entry.use]}
            </small>
          </>
        )}
      </div>
      {children}
    </Card>
  );
});
