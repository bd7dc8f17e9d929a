import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { useProject } from '../../project/context';
import { color } from '../../theme/theme';
import { Button, Field } from '../../ui/controls';
import type { RepositoryState } from './use_repository';

const Form = styled.form`
  display: grid;
  gap: 12px;
  max-width: 560px;
  p,
  [slot='description'] {
    color: ${color.ink2};
  }
`;

/** Where the code goes: address, branch and token. */
export function Connection({ repository, onDone }: { repository: RepositoryState; onDone?: () => void }) {
  const { id, name } = useProject();
  const { connection, connect } = repository;
  const known = connection.data ?? null;
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const [address, setAddress] = useState(known?.address ?? '');
  const [branch, setBranch] = useState(known?.branch ?? 'main');
  const [token, setToken] = useState('');
  const shipped = settings?.repositories;
  const tryIt = (): void => {
    if (!shipped) return;
    setAddress(`${shipped.address}/${nameOf(name)}.git`);
    setToken(shipped.token);
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        connect.mutate({ address, branch, ...(token ? { token } : {}) }, { onSuccess: () => onDone?.() });
      }}
    >
      <Field
        label="Address of the repository, https:// or file://"
        isCode
        autoFocus
        value={address}
        onChange={setAddress}
        problem={connect.error?.message ?? null}
        inputMode="url"
      />
      <Field label="Branch" isCode value={branch} onChange={setBranch} />
      <Branches id={id} address={address.trim()} token={token} chosen={branch} onChoose={setBranch} />
      <Field
        label="Token that may write there"
        type="password"
        autoComplete="off"
        value={token}
        onChange={setToken}
        hint={
          known?.hasToken
            ? 'One was given; leave this empty to keep it.'
            : 'Kept in memory until Tovel stops, never in the project. Leave it empty where git itself knows how to sign in.'
        }
      />
      {shipped && !known && (
        <p>
          To try it:{' '}
          <Button $kind="quiet" onPress={tryIt}>
            the repository that comes with Tovel
          </Button>
        </p>
      )}
      <div style={{ display: 'flex', gap: 8 }}>
        <Button
          type="submit"
          $kind="primary"
          isDisabled={!address.trim() || !branch.trim() || connect.isPending}
        >
          {connect.isPending ? 'Connecting …' : 'Connect'}
        </Button>
        {onDone && <Button onPress={onDone}>Cancel</Button>}
      </div>
    </Form>
  );
}

const Found = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 8px;
  min-height: 28px;
`;

/** The branches that the repository has, to choose from; another name makes a new one. */
function Branches({
  id,
  address,
  token,
  chosen,
  onChoose,
}: {
  id: string;
  address: string;
  token: string;
  chosen: string;
  onChoose: (branch: string) => void;
}) {
  const ask = useMutation({
    mutationFn: (of: { address: string; token?: string }) => api.branches(id, of),
  });
  const isOfThis = ask.variables?.address === address;
  const found = isOfThis ? ask.data : undefined;
  return (
    <Found role="group" aria-label="Branches that are there">
      <Button
        $kind="quiet"
        isDisabled={!address || ask.isPending}
        onPress={() => ask.mutate({ address, ...(token ? { token } : {}) })}
      >
        {ask.isPending ? 'Asking …' : 'Which branches are there?'}
      </Button>
      {isOfThis && ask.error && <p role="alert">{ask.error.message}</p>}
      {found?.length === 0 && <p role="status">None yet: the first push makes one.</p>}
      {found?.map((one) => (
        <Button key={one} aria-pressed={one === chosen} onPress={() => onChoose(one)}>
          {one}
        </Button>
      ))}
    </Found>
  );
}

const nameOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'app';
