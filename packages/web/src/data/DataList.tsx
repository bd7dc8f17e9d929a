import type { KeyboardEvent } from 'react';
import { focusedOption } from '../ui/focused_option';
import { MarkedList, MarkedRow } from '../ui/marked_list';

/** Something that stands behind the screens, in the list of all of it. */
export interface DataItem {
  readonly id: string;
  readonly group:
    | 'Collections'
    | 'Proposed, the surest first'
    | 'What the app remembers'
    | 'Seen on the screens'
    | 'Where records come from';
  readonly name: string;
  readonly says: string;
  readonly mark: 'taken' | 'proposed' | 'seen';
}

interface DataListProps {
  readonly items: readonly DataItem[];
  readonly chosen: string | undefined;
  readonly onChoose: (id: string) => void;
  /** What Enter and Backspace do with what is proposed. */
  readonly onTake: (id: string) => void;
  readonly onRefuse: (id: string) => void;
}

/** Ids of the rows begin with it. */
const PREFIX = 'data-';

/** What there is, with what waits to be decided. */
export function DataList({ items, chosen, onChoose, onTake, onRefuse }: DataListProps) {
  const onKeyDown = (event: KeyboardEvent): void => {
    const on = focusedOption(event, PREFIX) ?? chosen;
    if (on === undefined) return;
    const at = items.findIndex(({ id }) => id === on);
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step) {
      event.preventDefault();
      const next = items[Math.max(0, Math.min(items.length - 1, at + step))];
      onChoose(next.id);
      document.getElementById(PREFIX + next.id)?.focus();
    } else if (event.key === 'Enter') onTake(on);
    else if (event.key === 'Backspace') onRefuse(on);
  };
  return (
    <MarkedList role="listbox" aria-label="What stands behind the screens" onKeyDown={onKeyDown}>
      {items.map((item, i) => (
        <div key={item.id} role="presentation">
          {items[i - 1]?.group !== item.group && <h3>{item.group}</h3>}
          <MarkedRow
            id={PREFIX + item.id}
            role="option"
            aria-selected={item.id === chosen}
            aria-label={`${item.name}, ${item.says}, ${item.mark}`}
            tabIndex={item.id === chosen ? 0 : -1}
            $isOn={item.id === chosen}
            $columns="12px minmax(0, 1fr) auto"
            onClick={() => onChoose(item.id)}
          >
            <i aria-hidden="true" data-mark={item.mark} />
            <b title={item.name}>{item.name}</b>
            <small>{item.says}</small>
          </MarkedRow>
        </div>
      ))}
    </MarkedList>
  );
}
