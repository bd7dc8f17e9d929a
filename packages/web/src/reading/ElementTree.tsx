import { useVirtualizer } from '@tanstack/react-virtual';
import {
  elementsByKey,
  type Element,
  isPressable,
  labelOf,
  putLayer,
  roleOf,
  type Screen,
} from '@tovel/core';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { toggled } from '../ui/toggled';

const Scroller = styled.div`
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  outline-offset: -3px;
`;

const Row = styled.div<{ $isOn: boolean; $isHovered: boolean; $isOut: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  height: 25px;
  display: flex;
  align-items: center;
  gap: 6px;
  padding-right: 10px;
  cursor: pointer;
  white-space: nowrap;
  background: ${({ $isOn, $isHovered }) => ($isOn ? color.ink : $isHovered ? color.lakeTint : 'none')};
  color: ${({ $isOn, $isOut }) => ($isOn ? color.onInk : $isOut ? color.ink2 : 'inherit')};
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    text-decoration: ${({ $isOut }) => ($isOut ? 'line-through' : 'none')};
  }
  small {
    margin-left: auto;
    padding-left: 8px;
    color: ${({ $isOn }) => ($isOn ? color.onInk2 : color.ink2)};
  }
  small[data-proposed] {
    margin: 0 0 0 auto;
    padding: 0 5px;
    border: 1px dashed currentcolor;
    color: ${({ $isOn }) => ($isOn ? color.onInk : color.ochre)};
  }
  button {
    width: 16px;
    flex: none;
    border: 0;
    padding: 0;
    background: none;
    color: inherit;
    cursor: pointer;
  }
`;

interface Line {
  readonly element: Element;
  readonly depth: number;
  /** Left out by itself or with what it is in. */
  readonly isOut: boolean;
}

interface ElementTreeProps {
  /** As it was drawn. */
  screen: Screen;
  /** As it is in the app. */
  settled: Screen;
  selected: string | null;
  hovered: string | null;
  onSelect: (key: string) => void;
  onHover: (key: string | null) => void;
  /** What is said of an element at the end of its row, in place of what it was read as. */
  noteOf?: (element: Element) => { readonly text: string; readonly isProposed?: boolean } | null;
}

/** All elements of a screen in reading order, those that are left out among them. */
export function ElementTree({
  screen,
  settled,
  selected,
  hovered,
  onSelect,
  onHover,
  noteOf,
}: ElementTreeProps) {
  const { app, session } = useProject();
  const scroller = useRef<HTMLDivElement>(null);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const lines = useMemo(() => {
    const there = elementsByKey(settled);
    const list: Line[] = [];
    const visit = (element: Element, depth: number, isOut: boolean): void => {
      if (element.tag === undefined && !element.text?.trim()) return;
      const out = isOut || !there.has(element.key);
      list.push({ element, depth, isOut: out });
      if (!closed.has(element.key)) element.children.forEach((child) => visit(child, depth + 1, out));
    };
    visit(screen.root, 0, false);
    for (const element of settled.root.children)
      if (!elementsByKey(screen).has(element.key)) list.push({ element, depth: 1, isOut: false });
    return list;
  }, [screen, settled, closed]);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 25,
    overscan: 12,
    paddingStart: 6,
    paddingEnd: 12,
  });
  const at = lines.findIndex((line) => line.element.key === selected);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  // An element that is chosen elsewhere must not stay folded away.
  useEffect(() => {
    if (!selected || at >= 0) return;
    setClosed(new Set());
  }, [selected, at]);

  const noteInWords = (element: Element): string => {
    const note = noteOf?.(element);
    if (note) return note.isProposed ? `proposed: ${note.text}` : note.text;
    return kindInWords(element) || element.kind;
  };
  const toggle = (key: string): void => setClosed((now) => toggled(now, key));
  const onKeyDown = (event: KeyboardEvent): void => {
    const line = lines[at];
    const move = (to: number): void => {
      event.preventDefault();
      onSelect(lines[Math.max(0, Math.min(lines.length - 1, to))].element.key);
    };
    if (event.key === 'ArrowDown') move(at + 1);
    else if (event.key === 'ArrowUp') move(Math.max(0, at - 1));
    else if (event.key === 'Home') move(0);
    else if (event.key === 'End') move(lines.length - 1);
    else if (!line) return;
    else if (event.key === 'ArrowLeft') {
      event.preventDefault();
      if (line.element.children.length && !closed.has(line.element.key)) toggle(line.element.key);
      else {
        const parent = lines.slice(0, at).findLastIndex((other) => other.depth < line.depth);
        if (parent >= 0) move(parent);
      }
    } else if (event.key === 'ArrowRight') {
      event.preventDefault();
      if (closed.has(line.element.key)) toggle(line.element.key);
      else if (line.element.children.length) move(at + 1);
    } else if (event.key.toLowerCase() === 'x' && !event.ctrlKey && !event.metaKey) {
      const { key } = line.element;
      session.change(
        `${line.isOut ? 'Show' : 'Leave out'} ${labelOf(line.element)}`,
        putLayer(key, { ...app.layers[key], show: line.isOut }),
      );
    }
  };
  return (
    <Scroller
      ref={scroller}
      role="tree"
      aria-label="Elements"
      tabIndex={0}
      aria-activedescendant={at >= 0 ? `tree-${at}` : undefined}
      onKeyDown={onKeyDown}
      onPointerLeave={() => onHover(null)}
    >
      <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const { element, depth, isOut } = lines[index];
          const isOpen = !closed.has(element.key);
          return (
            <Row
              key={element.key}
              id={`tree-${index}`}
              role="treeitem"
              aria-label={`${(element.text ?? element.name).slice(0, 80) || element.kind}, ${isOut ? (element.hidden ? 'hidden' : 'left out') : noteInWords(element)}`}
              aria-level={depth + 1}
              aria-selected={index === at}
              aria-expanded={element.children.length ? isOpen : undefined}
              $isOn={index === at}
              $isHovered={element.key === hovered}
              $isOut={isOut}
              style={{ top: start, paddingLeft: 8 + Math.min(depth, 14) * 13 }}
              onClick={() => onSelect(element.key)}
              onPointerEnter={() => onHover(element.key)}
            >
              {element.children.some((child) => child.tag !== undefined) ? (
                <button
                  type="button"
                  tabIndex={-1}
                  aria-label={isOpen ? 'Close' : 'Open'}
                  onClick={(event) => {
                    event.stopPropagation();
                    toggle(element.key);
                  }}
                >
                  {isOpen ? '▾' : '▸'}
                </button>
              ) : (
                <i style={{ width: 16, flex: 'none' }} />
              )}
              <span title={element.name}>{(element.text ?? element.name).slice(0, 80) || element.kind}</span>
              <small data-proposed={(!isOut && noteOf?.(element)?.isProposed) || undefined}>
                {isOut
                  ? element.hidden
                    ? 'hidden'
                    : 'left out'
                  : noteOf
                    ? noteOf(element)?.text
                    : kindInWords(element)}
              </small>
            </Row>
          );
        })}
      </div>
    </Scroller>
  );
}

function kindInWords(element: Element): string {
  const role = roleOf(element);
  if (role && role !== ('none' as string)) return role;
  if (isPressable(element)) return 'pressable';
  return element.kind === 'box'
    ? element.tag && !['div', 'span'].includes(element.tag)
      ? element.tag
      : ''
    : element.kind;
}
