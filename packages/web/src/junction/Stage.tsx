import { type ElementState, elementsByKey, graphOf, labelOf, type Screen } from '@tovel/core';
import { type PointerEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { placeInPicture, pointInPicture } from '../picture/in_picture';
import { useOpenedAround } from '../picture/open_parts';
import { ScreenPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { unlisted } from './rows';
import { Cords, type CordEnd } from './Cords';
import { PIN, pinsOf, seenPlaces } from './pins';

const Column = styled.section`
  position: relative;
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 16px 6px;
  min-height: 40px;
  h2 {
    font-size: 15px;
    margin-right: auto;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .mono {
    color: ${color.ink2};
    white-space: nowrap;
  }
`;

const Scroller = styled.div`
  overflow: auto;
  padding: 4px 20px 20px;
  position: relative;
`;

const Picture = styled.div`
  position: relative;
  width: fit-content;
  margin: 0 auto;
  border: 1px solid ${color.fieldRule};
  cursor: pointer;
`;

const Pin = styled.button<{ $look: 'live' | 'open' | 'broken' | 'still' | 'on' }>`
  position: absolute;
  width: 20px;
  height: 20px;
  padding: 0;
  display: grid;
  place-items: center;
  font: 600 11px/1 ${font.code};
  cursor: pointer;
  border: 1.5px solid ${color.ink2};
  background: ${color.sheet};
  color: ${color.ink};
  ${({ $look }) =>
    ({
      live: `border-color: ${color.lake}; color: ${color.lake};`,
      open: '',
      still: `border-style: dotted; color: ${color.ink2};`,
      broken: `border-color: ${color.red}; background: ${color.red}; color: ${color.sheet};`,
      on: `border-color: ${color.ink}; background: ${color.ink}; color: ${color.onInk};`,
    })[$look]}
`;

const Outline = styled.div<{ $isSelected: boolean }>`
  position: absolute;
  pointer-events: none;
  border: 2px solid ${({ $isSelected }) => ($isSelected ? color.ink : color.lake)};
  box-shadow: 0 0 0 1px ${color.sheet};
`;

interface StageProps {
  screen: Screen;
  title: string;
  route: string;
  states: readonly ElementState[];
  selected: ElementState | null;
  /** Where the row of each element stands, in px from the top of the window. */
  rowTops: ReadonlyMap<string, number>;
  onPick: (state: ElementState) => void;
  onCancel?: () => void;
}

const MARGIN = 44;

/** The screen as the emitter writes it, with a pin on each element that can be wired. */
export function Stage({ screen, title, route, states, selected, rowTops, onPick, onCancel }: StageProps) {
  const project = useProject();
  const column = useRef<HTMLElement>(null);
  const picture = useRef<HTMLDivElement>(null);
  const [space, setSpace] = useState({ width: 0, height: 0 });
  const [isActual, setActual] = useState(false);
  const [page, setPage] = useState<Document | null>(null);
  const [hovered, setHovered] = useState<string | null>(null);
  const [scroll, setScroll] = useState(0);

  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([entry]) =>
      setSpace({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    watcher.observe(column.current!);
    return () => watcher.disconnect();
  }, []);

  const room = space.width - 2 * MARGIN;
  const fit =
    screen.width > 600
      ? room / screen.width
      : Math.min(room / screen.width, Math.max((space.height - 70) / Math.min(screen.height, 900), 0.5));
  const scale = isActual ? 1 : Math.min(1, fit);
  const width = Math.max(60, Math.round(screen.width * scale));
  const ratio = width / screen.width;

  const opened = useOpenedAround(page, selected?.element.key ?? null);
  const pins = useMemo(() => {
    const keys = states.map(({ element }) => element.key);
    return pinsOf(seenPlaces(opened.page, keys, ratio), { width, height: screen.height * ratio });
  }, [opened, states, ratio, width, screen.height]);
  const outlined = hovered ?? selected?.element.key ?? null;
  const outline = useMemo(
    () => (outlined ? placeInPicture(opened.page, outlined, ratio) : null),
    [opened, outlined, ratio],
  );

  /** The element under the pointer: the pressable one around it, else itself. */
  const elementAt = (event: PointerEvent): string | null => {
    const hit = page?.elementFromPoint(...pointInPicture(event, picture.current!, ratio));
    const listed = new Set(states.map((state) => state.element.key));
    let nearest: string | null = null;
    for (let node = hit; node; node = node.parentElement) {
      const key = node.getAttribute('data-key');
      if (!key) continue;
      if (listed.has(key)) return key;
      nearest ??= key;
    }
    return nearest;
  };
  const pick = (key: string | null): void => {
    if (!key) return;
    const element = elementsByKey(screen).get(key);
    const known = graphOf(project)
      .elements.get(screen.key)
      ?.find((state) => state.element.key === key);
    if (element) onPick(known ?? unlisted(element, labelOf(element)));
  };

  const top = column.current?.getBoundingClientRect().top ?? 0;
  const ends: CordEnd[] = [];
  for (const state of states) {
    const rowTop = rowTops.get(state.element.key);
    const pin = pins.get(state.element.key);
    if (!pin || rowTop === undefined || !picture.current || (!hasCord(state) && state !== selected)) continue;
    const bounds = picture.current.getBoundingClientRect();
    const columnLeft = column.current!.getBoundingClientRect().left;
    const y = bounds.top - top + pin.y + PIN / 2;
    if (y < 36 || y > space.height - 4) continue;
    ends.push({
      key: state.element.key,
      x: bounds.left - columnLeft + pin.x + PIN,
      y,
      toY: rowTop - top,
      look: state === selected ? 'on' : state.standing === 'broken' ? 'broken' : 'live',
    });
  }
  void scroll;

  return (
    <Column ref={column} aria-label={`Stage: ${title}`}>
      <Head>
        <h2 title={title}>{title}</h2>
        {onCancel ? (
          <Button onPress={onCancel}>Cancel</Button>
        ) : (
          <>
            <span className="mono">{route}</span>
            <Button $kind="quiet" aria-pressed={isActual} onPress={() => setActual(!isActual)}>
              {isActual ? 'Fit' : `${Math.round(ratio * 100)} %`}
            </Button>
          </>
        )}
      </Head>
      <Scroller onScroll={(event) => setScroll(event.currentTarget.scrollTop)}>
        {space.width > 0 && (
          <Picture
            ref={picture}
            data-stage
            onPointerMove={(event) => setHovered(elementAt(event))}
            onPointerLeave={() => setHovered(null)}
            onPointerDown={(event) => {
              if ((event.target as HTMLElement).closest('button')) return;
              event.preventDefault();
              pick(elementAt(event));
            }}
          >
            <ScreenPicture screen={screen} width={width} onReady={(document) => setPage(document)} />
            {outline && (
              <Outline
                $isSelected={outlined === selected?.element.key}
                style={{
                  left: outline.x - 2,
                  top: outline.y - 2,
                  width: outline.width + 4,
                  height: outline.height + 4,
                }}
              />
            )}
            <Pins states={states} pins={pins} selected={selected} onPick={pick} />
          </Picture>
        )}
      </Scroller>
      <Cords ends={ends} width={space.width} />
    </Column>
  );
}

interface PinsProps {
  states: readonly ElementState[];
  /** Where each stands in the picture, by key. */
  pins: ReturnType<typeof pinsOf>;
  selected: ElementState | null;
  onPick: (key: string) => void;
}

/** A number on each thing that can be pressed. */
const Pins = ({ states, pins, selected, onPick }: PinsProps) =>
  states.map((state) => {
    const pin = pins.get(state.element.key);
    if (!pin) return null;
    const isOn = state === selected;
    return (
      <Pin
        key={state.element.key}
        type="button"
        tabIndex={-1}
        $look={isOn ? 'on' : state.standing}
        style={{ left: pin.x, top: pin.y, zIndex: isOn ? 4 : 3 }}
        title={`${state.number}: ${state.label}`}
        aria-label={`Pin ${state.number}: ${state.label}, ${state.standing}`}
        onClick={() => onPick(state.element.key)}
      >
        {state.number}
      </Pin>
    );
  });

/** Links of a bar stand on many screens; their cords would only hide the others. */
const hasCord = (state: ElementState): boolean =>
  state.standing === 'broken' || (state.standing === 'live' && !state.within);
