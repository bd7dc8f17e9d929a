import { type App, apiOf, type Behind, behindBy, type Collection, listsRecords, spread } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Choice } from '../ui/controls';

const Line = styled.div`
  grid-column: 1 / -1;
  && {
    flex-wrap: wrap;
    align-items: center;
    font-size: 12px;
  }
`;

/** Stands for records that are kept in the app. */
const KEPT = 'kept';

/** Where the records of a collection come from, and how that is chosen. */
export function ComesFrom({
  collection,
  onChange,
}: {
  collection: Collection;
  /** Not there where nothing can be changed. */
  onChange?: (behind: Behind | null, words: string) => void;
}) {
  const { app } = useProject();
  const options = Object.keys(app.apis)
    .sort()
    .flatMap((id) => {
      const { name } = app.apis[id];
      const lists = apiOf(app, id)!.operations.filter(listsRecords);
      return lists.map((one) => ({
        id: `${id} ${one.id}`,
        label: `${name}: ${one.id}`,
        api: id,
        list: one.id,
      }));
    });
  const { behind } = collection;
  if (!options.length) return null;
  const unmapped = behind ? collection.fields.filter(({ name }) => behind.fields[name] === undefined) : [];
  return (
    <Line>
      <span>Records come from</span>
      <Choice
        label="Records come from"
        isLabelHidden
        value={behind ? `${behind.api} ${behind.list}` : KEPT}
        options={[{ id: KEPT, label: 'the app itself, kept on the device' }, ...options]}
        isDisabled={!onChange}
        onChange={(chosen) => {
          const option = options.find(({ id }) => id === chosen);
          if (!option) onChange?.(null, `Keep ${collection.name} in the app`);
          else {
            const made = behindBy(option.api, apiOf(app, option.api)!, option.list, collection);
            if (made) onChange?.(made, `${collection.name} come from ${option.label}`);
          }
        }}
      />
      {unmapped.length > 0 && (
        <span>
          The API has nothing for {unmapped.map(({ name }) => name).join(', ')}: choose the field, then what
          it is called.
        </span>
      )}
    </Line>
  );
}

/** A collection whose records come from somewhere else; kept in the app where that is nowhere. */
export function withBehind(
  { behind: _before, ...collection }: Collection,
  behind: Behind | null,
): Collection {
  return behind ? { ...collection, behind } : collection;
}

/** What the API calls the properties of a collection's records. */
export function propertiesFor(app: App, { behind }: Collection): string[] {
  const list = behind && apiOf(app, behind.api)?.operations.find(({ id }) => id === behind.list);
  return list ? spread(list.fields).map(({ name }) => name) : [];
}
