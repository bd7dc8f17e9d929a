import { type Collection, type DataRecord, readTable, takeTable } from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color, font } from '../theme/theme';
import { Button, fieldBox, Label } from '../ui/controls';

const Source = styled.textarea`
  ${fieldBox}
  min-height: 200px;
  resize: vertical;
  font: 12px/1.5 ${font.code};
`;

const Problems = styled.ul`
  max-height: 130px;
  overflow: auto;
  color: ${color.ochre};
  font-size: 12px;
`;

const valuesWord = (count: number): string => `${count} ${count === 1 ? 'value' : 'values'}`;

/** Values from a table that somebody pastes or opens: CSV, what a spreadsheet copies, or JSON. */
export function TableSheet({
  id,
  collection,
  records,
  onClose,
}: {
  id: string;
  collection: Collection;
  records: readonly DataRecord[];
  onClose: () => void;
}) {
  const { session } = useProject();
  const [text, setText] = useState('');
  const taken = useMemo(() => {
    if (!text.trim()) return null;
    const read = readTable(text);
    const made = takeTable(id, collection, records, read.lines);
    return { ...made, problems: [...read.problems, ...(read.lines.length ? made.problems : [])] };
  }, [text, id, collection, records]);
  const take = (): void => {
    if (!taken?.change) return;
    session.change(`Take ${valuesWord(taken.changed)} into ${collection.name}`, taken.change);
    onClose();
  };
  const open = async (file: File | undefined): Promise<void> => {
    if (file) setText(await file.text());
  };
  return (
    <Sheet title={`Values for ${collection.name}`} onClose={onClose}>
      <div style={{ display: 'grid', gap: 12 }}>
        <p style={{ color: color.ink2 }}>
          The first line calls the columns, as fields are called here:{' '}
          {collection.fields.map(({ name }) => name).join(', ')}. Lines go into the records in their order;
          further lines become further records.
        </p>
        <div>
          <Label htmlFor="table-text">Table: CSV, JSON, or pasted from a spreadsheet</Label>
          <Source
            id="table-text"
            autoFocus
            spellCheck={false}
            value={text}
            onChange={(event) => setText(event.target.value)}
            aria-describedby="table-says"
          />
          <input
            type="file"
            aria-label="Open a file"
            accept=".csv,.tsv,.txt,.json"
            onChange={(event) => void open(event.target.files?.[0])}
          />
        </div>
        <div id="table-says" role="status">
          {taken &&
            (taken.changed
              ? `${valuesWord(taken.changed)} ${taken.changed === 1 ? 'differs' : 'differ'} from now.`
              : 'Nothing in it differs from now.')}
          {taken && taken.problems.length > 0 && (
            <Problems>
              {taken.problems.map(({ line, message }, i) => (
                <li key={i}>
                  Line {line}: {message}.
                </li>
              ))}
            </Problems>
          )}
        </div>
        <Button $kind="primary" style={{ justifySelf: 'end' }} isDisabled={!taken?.change} onPress={take}>
          {taken?.changed ? `Take ${valuesWord(taken.changed)}` : 'Take them'}
        </Button>
      </div>
    </Sheet>
  );
}
