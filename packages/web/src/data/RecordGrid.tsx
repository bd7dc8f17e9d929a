import {
  canSay,
  type Collection,
  type DataRecord,
  type Design,
  type RecordField,
  titleField,
} from '@tovel/core';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { PlacePicture } from '../repeats/PlacePicture';
import { color, font } from '../theme/theme';
import { type At, movedBy } from './grid_keys';

const Scroller = styled.div`
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
`;

const Table = styled.table`
  border-collapse: separate;
  border-spacing: 0;
  min-width: 100%;
  font-size: 13px;
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    padding: 7px 12px 6px;
    text-align: left;
    vertical-align: bottom;
    font-weight: 650;
    white-space: nowrap;
    background: ${color.sheet};
    border-bottom: 1px solid ${color.ink};
  }
  th small {
    display: block;
    font-weight: 400;
    font-size: 11.5px;
    color: ${color.ink2};
  }
  th code {
    font: 12px ${font.code};
  }
  td {
    max-width: 300px;
    height: 38px;
    padding: 4px 12px;
    border-bottom: 1px solid ${color.rule};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    outline-offset: -2px;
  }
  td[data-number] {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  td:first-child,
  th:first-child {
    padding-left: 18px;
  }
  tr[aria-selected='true'] td {
    background: ${color.lakeTint};
  }
  td[data-empty] {
    color: ${color.ink2};
  }
  input {
    width: 100%;
    min-width: 90px;
    height: 28px;
    padding: 2px 6px;
    border: 1px solid ${color.lake};
    background: ${color.field};
    color: ${color.ink};
    font: inherit;
  }
`;

const NUMBERS: ReadonlySet<RecordField['type']> = new Set(['number', 'money', 'percent']);

interface RecordGridProps {
  readonly collection: Collection;
  readonly records: readonly DataRecord[];
  readonly at: At;
  readonly onAt: (at: At) => void;
  /** Not there where nothing can be written. */
  readonly onSay?: (record: DataRecord, field: RecordField, text: string) => void;
  /** Gives the focus to the cell that one is at whenever it is another number. */
  readonly focus?: number;
  /** Takes a record away that no screen shows. */
  readonly onRemove?: (record: DataRecord) => void;
}

/** So many rows are written at once, around the one that one is at. */
const MOST_ROWS = 300;

/** The records of a collection as the screens show them; a text can be written anew in its cell. */
export function RecordGrid({ collection, records, at, onAt, onSay, onRemove, focus = 0 }: RecordGridProps) {
  const { fields } = collection;
  const { design } = useProject();
  const [typed, setTyped] = useState<string | null>(null);
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(false);
  const focused = useRef(focus);
  if (focused.current !== focus) {
    focused.current = focus;
    wantsFocus.current = true;
  }
  useEffect(() => {
    if (!wantsFocus.current || typed !== null) return;
    wantsFocus.current = false;
    table.current?.querySelector<HTMLElement>('td[tabindex="0"]')?.focus();
  });
  const record = records[at.row];
  const field = fields[at.column];
  const canWrite =
    onSay !== undefined && record !== undefined && field !== undefined && canSay(record, field);
  const first = Math.max(0, Math.min(at.row - MOST_ROWS / 2, records.length - MOST_ROWS));
  const seen = records.slice(first, first + MOST_ROWS);
  const go = (to: At): void => {
    wantsFocus.current = true;
    onAt(to);
  };
  const finish = (isKept: boolean, to: At = at): void => {
    if (isKept && typed !== null && record) onSay?.(record, field, typed.trim());
    setTyped(null);
    go(to);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const isControl = event.ctrlKey || event.metaKey;
    const to = movedBy(event.key, isControl, at, records.length, fields.length);
    if (to) {
      event.preventDefault();
      go(to);
    } else if ((event.key === 'Enter' || event.key === 'F2') && canWrite) {
      event.preventDefault();
      setTyped(record.values[field.name]?.text ?? '');
    } else if (event.key === 'Delete' && onRemove && record && !record.rows.length) {
      event.preventDefault();
      onRemove(record);
    } else if (event.key.length === 1 && !isControl && !event.altKey && event.key !== '?' && canWrite) {
      event.preventDefault();
      setTyped(event.key);
    }
  };
  const onTyping = (event: KeyboardEvent): void => {
    event.stopPropagation();
    const next = (key: string): At => movedBy(key, false, at, records.length, fields.length) ?? at;
    if (event.key === 'Escape') finish(false);
    else if (event.key === 'Enter') finish(true, next('ArrowDown'));
    else if (event.key === 'Tab') {
      event.preventDefault();
      finish(true, next(event.shiftKey ? 'ArrowLeft' : 'ArrowRight'));
    }
  };
  return (
    <Scroller>
      <Table
        ref={table}
        role="grid"
        aria-label={`Records of ${collection.name}`}
        aria-rowcount={records.length + 1}
        onKeyDown={onKeyDown}
      >
        <thead>
          <tr>
            {fields.map((one) => (
              <th
                key={one.name}
                scope="col"
                style={NUMBERS.has(one.type) ? { textAlign: 'right' } : undefined}
              >
                <code>{one.name}</code>
                <small>
                  {TYPE_WORDS[one.type]}
                  {one.label && one.label.toLowerCase() !== one.name.toLowerCase() ? `, “${one.label}”` : ''}
                </small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {seen.map((one, i) => {
            const row = first + i;
            return (
              <tr key={one.id} aria-selected={row === at.row} aria-rowindex={row + 2}>
                {fields.map((of, column) => {
                  const value = one.values[of.name];
                  const isHere = row === at.row && column === at.column;
                  return (
                    <td
                      key={of.name}
                      role="gridcell"
                      tabIndex={isHere ? 0 : -1}
                      aria-readonly={!onSay || !canSay(one, of)}
                      data-number={NUMBERS.has(of.type) || undefined}
                      data-empty={value ? undefined : true}
                      title={value?.text && value.text.length > 36 ? value.text : undefined}
                      onClick={() => onAt({ row, column })}
                      onFocus={() => !isHere && onAt({ row, column })}
                      onDoubleClick={() => onSay && canSay(one, of) && setTyped(value?.text ?? '')}
                    >
                      {isHere && typed !== null ? (
                        <>
                          <input
                            autoFocus
                            size={1}
                            aria-label={`${of.name} of ${titleOf(design, one, collection)}`}
                            value={typed}
                            list={of.choices ? 'choices-of-field' : undefined}
                            onChange={(event) => setTyped(event.target.value)}
                            onKeyDown={onTyping}
                            onBlur={() => typed !== null && finish(true)}
                          />
                          {of.choices && (
                            <datalist id="choices-of-field">
                              {of.choices.map((choice) => (
                                <option key={choice} value={choice} />
                              ))}
                            </datalist>
                          )}
                        </>
                      ) : of.type === 'picture' && value ? (
                        <PlacePicture element={value.elements[0]} width={58} height={30} />
                      ) : (
                        (value?.text ?? '–')
                      )}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Scroller>
  );
}

export const TYPE_WORDS: Readonly<Record<RecordField['type'], string>> = {
  text: 'text',
  number: 'number',
  money: 'money',
  percent: 'percent',
  date: 'date',
  time: 'time',
  'yes-no': 'yes or no',
  'one-of': 'one of several',
  email: 'e-mail',
  phone: 'telephone',
  link: 'address',
  picture: 'picture',
};

/** What calls a record. */
export function titleOf(design: Design, { values }: DataRecord, collection: Collection): string {
  const title = titleField(design, collection)?.name;
  const own = title === undefined ? '' : values[title]?.text;
  const field = collection.fields.find(({ name, type }) => type === 'text' && values[name]?.text);
  return own || (field ? values[field.name].text : 'this record');
}
