import {
  type Collection,
  type DataRecord,
  isRecordSchema,
  readTable,
  takeSchema,
  takeTable,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { counted } from '../ui/counted';
import { PastedText } from './PastedText';

const Problems = styled.ul`
  max-height: 130px;
  overflow: auto;
  color: ${color.ochre};
  font-size: 12px;
`;

/** How many of something; nothing for none. */
const ifAny = (count: number, word: string): string => (count ? counted(count, word) : '');

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
    if (isRecordSchema(text)) {
      const { change, changed, problems } = takeSchema(id, collection, text);
      return { change, says: ifAny(changed, 'field'), problems: problems.map((message) => ({ message })) };
    }
    const read = readTable(text);
    const made = takeTable(id, collection, records, read.lines);
    return {
      change: made.change,
      says: ifAny(made.changed, 'value'),
      problems: [...read.problems, ...(read.lines.length ? made.problems : [])],
    };
  }, [text, id, collection, records]);
  const take = (): void => {
    if (!taken?.change) return;
    session.change(`Take ${taken.says} into ${collection.name}`, taken.change);
    onClose();
  };
  return (
    <Sheet title={`Values for ${collection.name}`} onClose={onClose}>
      <div style={{ display: 'grid', gap: 12 }}>
        <p style={{ color: color.ink2 }}>
          The first line calls the columns, as fields are called here:{' '}
          {collection.fields.map(({ name }) => name).join(', ')}. Lines go into the records in their order;
          further lines become further records. The JSON Schema of a record says which fields there are.
        </p>
        <PastedText
          id="table-text"
          label="Table: CSV, JSON, or pasted from a spreadsheet; or a JSON Schema"
          accept=".csv,.tsv,.txt,.json"
          value={text}
          onChange={setText}
        />
        <div id="table-says" role="status">
          {taken &&
            (taken.says
              ? `${taken.says} ${taken.says.startsWith('1 ') ? 'differs' : 'differ'} from now.`
              : 'Nothing in it differs from now.')}
          {taken && taken.problems.length > 0 && (
            <Problems>
              {taken.problems.map((problem, i) => (
                <li key={i}>
                  {'line' in problem && problem.line ? `Line ${problem.line}: ` : ''}
                  {problem.message}.
                </li>
              ))}
            </Problems>
          )}
        </div>
        <Button $kind="primary" style={{ justifySelf: 'end' }} isDisabled={!taken?.change} onPress={take}>
          {taken?.says ? `Take ${taken.says}` : 'Take them'}
        </Button>
      </div>
    </Sheet>
  );
}
