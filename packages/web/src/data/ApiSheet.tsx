import { documentOfExample, keptApi, putApi, uniqueName } from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { api as server } from '../api/client';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';
import { PastedText } from './PastedText';

const Body = styled.div`
  display: grid;
  gap: 12px;
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
  gap: 8px;
`;

const Problems = styled.ul`
  max-height: 130px;
  overflow: auto;
  color: ${color.ochre};
  font-size: 12px;
  overflow-wrap: anywhere;
`;

/** Whether a text is an example of an answer: JSON that does not say that it is a description. */
const isExample = (text: string): boolean =>
  /^\s*[[{]/.test(text) && !/"(openapi|swagger)"\s*:/.test(text.slice(0, 100_000));

/** An API that somebody describes: an OpenAPI document, or an example of what it answers. */
export function ApiSheet({ onClose }: { onClose: () => void }) {
  const { id, app, session } = useProject();
  const [text, setText] = useState('');
  const [path, setPath] = useState('/records');
  const [address, setAddress] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const example = isExample(text);
  const read = useMemo(() => {
    if (!text.trim()) return null;
    const made = example ? documentOfExample(text, path) : { document: text, problems: [] };
    if (made.document === null) return { api: null, problems: made.problems };
    return keptApi(made.document);
  }, [text, example, path]);
  const fetchIt = async (): Promise<void> => {
    setSaid('Fetching …');
    try {
      const { text: fetched } = await server.readAddress(id, address.trim());
      setText(fetched);
      setSaid(fetched.trim() ? null : 'There is nothing at that address.');
    } catch (error) {
      setSaid((error as Error).message);
    }
  };
  const take = (): void => {
    if (!read?.api) return;
    const key = uniqueName('api', (one) => app.apis[one] !== undefined, '');
    session.change(`Describe ${read.api.name}`, putApi(key, read.api));
    onClose();
  };
  return (
    <Sheet title="Describe an API" onClose={onClose}>
      <Body>
        <p style={{ color: color.ink2 }}>
          An OpenAPI document of version 3.0 or 3.1, as JSON or YAML; or a JSON answer with a list of records,
          as the API gives it. Nothing of it is run, and the API itself is not asked.
        </p>
        <PastedText
          id="api-text"
          label="Document or example"
          accept=".json,.yaml,.yml"
          value={text}
          onChange={setText}
        />
        <Row>
          <Field label="Or its address" value={address} onChange={setAddress} placeholder="https://" />
          <Button isDisabled={!/^https?:\/\/./.test(address.trim())} onPress={() => void fetchIt()}>
            Fetch it
          </Button>
        </Row>
        {example && <Field label="Path that gives this answer" value={path} onChange={setPath} />}
        <div id="api-says" role="status">
          {said}
          {read?.api && `${read.api.name} can be read.`}
          {read && read.problems.length > 0 && (
            <Problems>
              {read.problems.map(({ at, message }, i) => (
                <li key={i}>
                  {at ? `${at}: ` : ''}
                  {message}.
                </li>
              ))}
            </Problems>
          )}
        </div>
        <Button $kind="primary" style={{ justifySelf: 'end' }} isDisabled={!read?.api} onPress={take}>
          Take it
        </Button>
      </Body>
    </Sheet>
  );
}
