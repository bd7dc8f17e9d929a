import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { api, type FetchedFiles } from '../api/client';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';

const Sources = styled.ul`
  border-top: 1px solid ${color.rule};
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid ${color.rule};
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    display: block;
    color: ${color.ink2};
  }
`;

interface LinkSheetProps {
  onFetched: (fetched: FetchedFiles, address: string) => void;
  onClose: () => void;
}

/** Screens by address, and the addresses that they came from, which can be asked again. */
export function LinkSheet({ onFetched, onClose }: LinkSheetProps) {
  const { id } = useProject();
  const queries = useQueryClient();
  const { data: sources = [] } = useQuery({ queryKey: ['sources', id], queryFn: () => api.sources(id) });
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const [address, setAddress] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const run = async (what: string, ask: () => Promise<FetchedFiles | null>): Promise<void> => {
    setBusy(what);
    setProblem(null);
    setSaid(null);
    try {
      const fetched = await ask();
      if (fetched) {
        onFetched(fetched, what);
        onClose();
      } else {
        setSaid(`Nothing has changed at ${what}.`);
        await queries.invalidateQueries({ queryKey: ['sources', id] });
      }
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(null);
    }
  };
  const example = settings?.designPort ? `http://127.0.0.1:${settings.designPort}/mossgate/latest.zip` : null;
  return (
    <Sheet title="From a link" onClose={onClose}>
      <form
        style={{ display: 'grid', gap: 12 }}
        onSubmit={(event) => {
          event.preventDefault();
          void run(address.trim(), () => api.addSource(id, address.trim()));
        }}
      >
        <Field
          label="Address of a page, drawing, PDF, zip or .tovel file"
          isCode
          autoFocus
          value={address}
          onChange={setAddress}
          problem={problem}
          inputMode="url"
        />
        {example && !sources.length && (
          <p style={{ color: color.ink2 }}>
            To try it:{' '}
            <Button $kind="quiet" onPress={() => setAddress(example)}>
              {example}
            </Button>
          </p>
        )}
        <Button
          type="submit"
          $kind="primary"
          isDisabled={busy !== null || !address.trim()}
          style={{ justifySelf: 'end' }}
        >
          {busy === address.trim() && busy ? 'Fetching …' : 'Fetch'}
        </Button>
      </form>
      <p role="status">{said ?? '\u00a0'}</p>
      {sources.length > 0 && (
        <Sources aria-label="Sources of this project">
          {sources.map((source) => (
            <li key={source.id}>
              <span title={source.address}>
                {source.address}
                <small>
                  asked{' '}
                  {new Date(source.fetchedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })}
                </small>
              </span>
              <Button
                isDisabled={busy !== null}
                onPress={() => void run(source.address, () => api.refreshSource(id, source.id))}
              >
                {busy === source.address ? 'Asking …' : 'Refresh'}
              </Button>
              <Button
                $kind="quiet"
                aria-label={`Forget ${source.address}`}
                onPress={() =>
                  void api
                    .forgetSource(id, source.id)
                    .then(() => queries.invalidateQueries({ queryKey: ['sources', id] }))
                }
              >
                Forget
              </Button>
            </li>
          ))}
        </Sources>
      )}
    </Sheet>
  );
}
